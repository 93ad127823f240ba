import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import { api, data, type Schemas } from '../../api/client';

export type Status = Schemas['DeskRow']['status'];
export type Drive = NonNullable<Schemas['DeskRow']['drive']>;

export interface DeskFilter {
  status: Status[];
  fleet?: number;
  drive?: Drive;
  q: string;
}

const PAGE = 200;

export const deskQuery = (filter: DeskFilter) =>
  queryOptions({
    queryKey: ['desk', filter],
    queryFn: () =>
      data(
        api.GET('/api/desk', {
          params: {
            query: {
              status: filter.status,
              fleet: filter.fleet,
              drive: filter.drive,
              q: filter.q,
              limit: PAGE,
            },
          },
        }),
      ),
    placeholderData: keepPreviousData,
  });

export const fleetsQuery = queryOptions({
  queryKey: ['fleets'],
  queryFn: () => data(api.GET('/api/desk/fleets')),
  staleTime: 300_000,
});

/** The filter as it stands in the address. */
export function filterOf(params: URLSearchParams): DeskFilter {
  const fleet = params.get('fleet');
  return {
    status: params.getAll('status') as Status[],
    fleet: fleet ? Number(fleet) : undefined,
    drive: (params.get('drive') as Drive | null) ?? undefined,
    q: params.get('q') ?? '',
  };
}
