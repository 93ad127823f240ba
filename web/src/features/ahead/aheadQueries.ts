import { infiniteQueryOptions, keepPreviousData, queryOptions } from '@tanstack/react-query';
import { api, data, type Schemas } from '../../api/client';
import type { paths } from '../../api/schema';

export type AheadParams = NonNullable<paths['/api/ahead']['get']['parameters']['query']>;
export type AheadView = Schemas['AheadView'];

/** A part of the window, in shares of the limits. */
export interface Box {
  ageFrom: number;
  ageTo: number;
  distanceFrom: number;
  distanceTo: number;
}

const PAGE = 100;

export const aheadQuery = (params: AheadParams) =>
  queryOptions({
    queryKey: ['ahead', params],
    queryFn: () => data(api.GET('/api/ahead', { params: { query: params } })),
    placeholderData: keepPreviousData,
  });

/** Those that cross by the day; with a box, those inside it. */
export const crossQuery = (params: AheadParams, box?: Box) =>
  infiniteQueryOptions({
    queryKey: ['ahead', 'list', params, box],
    queryFn: ({ pageParam }) =>
      data(
        api.GET('/api/ahead/vehicles', {
          params: { query: { ...params, ...box, offset: pageParam, limit: PAGE } },
        }),
      ),
    initialPageParam: 0,
    getNextPageParam: (last) =>
      last.offset + last.rows.length < last.total ? last.offset + last.rows.length : undefined,
    placeholderData: keepPreviousData,
  });
