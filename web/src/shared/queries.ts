import { queryOptions } from '@tanstack/react-query';
import { api, data } from '../api/client';

export const meQuery = queryOptions({
  queryKey: ['me'],
  queryFn: () => data(api.GET('/api/me')),
  staleTime: 60_000,
});

export const findQuery = (q: string) =>
  queryOptions({
    queryKey: ['find', q],
    queryFn: () => data(api.GET('/api/find', { params: { query: { q } } })),
    enabled: q.trim().length > 0,
    staleTime: 5_000,
  });
