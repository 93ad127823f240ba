import { queryOptions, useMutation, useQueryClient } from '@tanstack/react-query';
import { api, data, type Schemas } from '../../api/client';

export type By = 'PART' | 'BATCH' | 'JOINT' | 'BOOK';

export interface Asked {
  by: By;
  q: string;
  family: string;
  joint: string;
  newtonMetres?: number;
  version?: number;
}

export type Row = Schemas['RecallRow'];

export const recallQuery = (asked?: Asked) =>
  queryOptions({
    queryKey: ['recall', asked],
    enabled: asked !== undefined,
    retry: false,
    queryFn: () => data(api.GET('/api/recall', { params: { query: asked! } })),
  });

export const recallChoicesQuery = (family: string) =>
  queryOptions({
    queryKey: ['recall', 'choices', family],
    enabled: family !== '',
    queryFn: () => data(api.GET('/api/recall/choices', { params: { query: { family } } })),
  });

export function useFollowUps() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas['FollowUpsIn']) =>
      data(api.POST('/api/recall/follow-ups', { body })),
    onSuccess: () =>
      Promise.all(['desk', 'vehicle'].map((key) => client.invalidateQueries({ queryKey: [key] }))),
  });
}
