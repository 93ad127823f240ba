import {
  keepPreviousData,
  queryOptions,
  useMutation,
  useQueryClient,
  type QueryClient,
} from '@tanstack/react-query';
import { api, data, type Schemas } from '../../api/client';
import type { paths } from '../../api/schema';

export type Status = Schemas['DeskRow']['status'];
export type Drive = NonNullable<Schemas['DeskRow']['drive']>;
export type DeskParams = NonNullable<paths['/api/desk']['get']['parameters']['query']>;
export type Order = NonNullable<DeskParams['order']>;

/** Rows asked for at once; the list is drawn from as many pages as are in sight. */
export const PAGE = 100;

/** Names of the filters as they stand in the address of the Desk and of its list's CSV. */
export const FILTERS = [
  'status',
  'fleet',
  'drive',
  'family',
  'interference',
  'within',
  'state',
  'q',
  'aside',
  'only',
  'order',
] as const;

/** The filters of the address, nothing else of it, as the server takes them. */
export function filterOf(params: URLSearchParams): DeskParams {
  const text = (name: string) => params.get(name) ?? undefined;
  const number = (name: string) => (params.get(name) ? Number(params.get(name)) : undefined);
  const many = <T>(name: string) => (params.has(name) ? (params.getAll(name) as T[]) : undefined);
  return {
    status: many<Status>('status'),
    fleet: number('fleet'),
    drive: text('drive') as Drive | undefined,
    family: text('family'),
    interference: text('interference') as DeskParams['interference'],
    within: number('within'),
    state: many<NonNullable<DeskParams['state']>[number]>('state'),
    q: text('q'),
    aside: params.get('aside') === 'true' || undefined,
    only: text('only') as DeskParams['only'],
    order: text('order') as Order | undefined,
  };
}

/** The filters alone, as they are kept under a name and put behind an address. */
export function filterText(params: URLSearchParams): string {
  const only = new URLSearchParams();
  for (const name of FILTERS) params.getAll(name).forEach((v) => only.append(name, v));
  return only.toString();
}

export const deskQuery = (filter: DeskParams, page = 0) =>
  queryOptions({
    queryKey: ['desk', filter, page],
    queryFn: () =>
      data(
        api.GET('/api/desk', {
          params: { query: { ...filter, offset: page * PAGE, limit: PAGE } },
        }),
      ),
    placeholderData: page === 0 ? keepPreviousData : undefined,
  });

export const choicesQuery = queryOptions({
  queryKey: ['choices'],
  queryFn: () => data(api.GET('/api/desk/choices')),
  staleTime: 300_000,
});

export const fleetsQuery = queryOptions({
  queryKey: ['fleets'],
  queryFn: () => data(api.GET('/api/desk/fleets')),
  staleTime: 300_000,
});

export const movesQuery = queryOptions({
  queryKey: ['desk', 'moves'],
  queryFn: () => data(api.GET('/api/desk/moves')),
});

export const viewsQuery = queryOptions({
  queryKey: ['views'],
  queryFn: () => data(api.GET('/api/desk/views')),
});

const keepViews = (client: QueryClient) => (views: Schemas['SavedView'][]) =>
  client.setQueryData(viewsQuery.queryKey, views);

export function useSaveView(onDone: () => void) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas['NewView']) => data(api.POST('/api/desk/views', { body })),
    onSuccess: (views) => {
      keepViews(client)(views);
      onDone();
    },
  });
}

export function useRemoveView() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (id: number) =>
      data(api.DELETE('/api/desk/views/{id}', { params: { path: { id } } })),
    onSuccess: keepViews(client),
  });
}

export function useBulkReadings(onDone: (count: number) => void) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas['Bulk']) => data(api.POST('/api/vehicle-readings', { body })),
    onSuccess: async (taken) => {
      onDone(taken.count);
      await client.invalidateQueries();
    },
  });
}
