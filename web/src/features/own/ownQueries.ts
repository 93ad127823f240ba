import { queryOptions, useMutation, useQueryClient } from '@tanstack/react-query';
import { api, data, type Schemas } from '../../api/client';

export type OwnJob = Schemas['OwnJob'];

export const ownJobsQuery = queryOptions({
  queryKey: ['own'],
  queryFn: () => data(api.GET('/api/own/jobs')),
});

/** A change of an own job; afterwards everything that shows it is asked again. */
function useOwnChange<V>(send: (values: V) => Promise<OwnJob>, onDone: () => void) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: send,
    onSuccess: onDone,
    onSettled: () =>
      Promise.all(
        ['own', 'fleets', 'desk', 'vehicle'].map((key) =>
          client.invalidateQueries({ queryKey: [key] }),
        ),
      ),
  });
}

export const useOwnAnswer = (id: number, onDone: () => void) =>
  useOwnChange(
    (body: Schemas['OwnAnswerIn']) =>
      data(api.POST('/api/own/jobs/{id}/answer', { params: { path: { id } }, body })),
    onDone,
  );

export const useOwnWish = (id: number, onDone: () => void) =>
  useOwnChange(
    (body: Schemas['OwnWishIn']) =>
      data(api.PUT('/api/own/jobs/{id}/wishes', { params: { path: { id } }, body })),
    onDone,
  );
