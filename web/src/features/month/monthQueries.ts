import { queryOptions } from '@tanstack/react-query';
import { api, data, type Schemas } from '../../api/client';

export type MonthView = Schemas['MonthView'];

/** Which jobs are counted; nothing chosen: all of this month's. */
export interface Asked {
  month?: string;
  fleet?: number;
  family?: string;
  person?: number;
}

export const monthQuery = (asked: Asked) =>
  queryOptions({
    queryKey: ['month', asked],
    queryFn: () => data(api.GET('/api/month', { params: { query: { ...asked } } })),
  });

export const exposureQuery = (month: string | undefined) =>
  queryOptions({
    queryKey: ['month', 'exposure', month ?? null],
    queryFn: () => data(api.GET('/api/month/exposure', { params: { query: { month } } })),
    staleTime: 300_000,
  });

/** The same question as an address of the jobs as CSV. */
export function csvOf(asked: Asked): string {
  const query = new URLSearchParams(
    Object.entries(asked)
      .filter(([, v]) => v !== undefined)
      .map(([k, v]) => [k, String(v)]),
  );
  return `/api/month/jobs.csv?${query}`;
}
