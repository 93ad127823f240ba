import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import { api, data } from '../api/client';
import { writeAs } from './format';

export const meQuery = queryOptions({
  queryKey: ['me'],
  queryFn: async () => {
    const me = await data(api.GET('/api/me'));
    writeAs(me);
    return me;
  },
  staleTime: 60_000,
});

export const findQuery = (q: string) =>
  queryOptions({
    queryKey: ['find', q],
    queryFn: () => data(api.GET('/api/find', { params: { query: { q } } })),
    enabled: q.trim().length > 0,
    staleTime: 5_000,
  });

/** Owners by name, or those that `q` finds. */
export const ownersQuery = (q: string, limit: number) =>
  queryOptions({
    queryKey: ['owners', q, limit],
    queryFn: () => data(api.GET('/api/owners', { params: { query: { q, limit } } })),
    placeholderData: keepPreviousData,
    staleTime: 5_000,
  });
