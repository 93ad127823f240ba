import { keepPreviousData, queryOptions, useMutation, useQueryClient } from '@tanstack/react-query';
import { api, data, type Schemas } from '../../api/client';

export const jobsQuery = queryOptions({
  queryKey: ['jobs'],
  queryFn: () => data(api.GET('/api/jobs')),
});

export const jobQuery = (id: number) =>
  queryOptions({
    queryKey: ['job', id],
    queryFn: () => data(api.GET('/api/jobs/{id}', { params: { path: { id } } })),
  });

export const weekQuery = (from: string) =>
  queryOptions({
    queryKey: ['week', from],
    queryFn: () => data(api.GET('/api/jobs/week', { params: { query: { from } } })),
    placeholderData: keepPreviousData,
  });

/** A change to a job; its answer is the job as it is now. */
function useJobChange<V>(id: number, send: (values: V) => Promise<Schemas['JobView']>) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: send,
    onSuccess: async (job) => {
      client.setQueryData(jobQuery(id).queryKey, job);
      await Promise.all(
        ['week', 'jobs', 'desk', 'vehicle'].map((key) =>
          client.invalidateQueries({ queryKey: [key] }),
        ),
      );
    },
  });
}

export const useChoose = (id: number) =>
  useJobChange(id, (body: Schemas['Choice']) =>
    data(api.PUT('/api/jobs/{id}/lines', { params: { path: { id } }, body })),
  );

export const useBook = (id: number) =>
  useJobChange(id, (body: Schemas['BookingRequest']) =>
    data(api.PUT('/api/jobs/{id}/booking', { params: { path: { id } }, body })),
  );

export const useUnbook = (id: number) =>
  useJobChange(id, (version: number) =>
    data(api.DELETE('/api/jobs/{id}/booking', { params: { path: { id }, query: { version } } })),
  );

export const useCancel = (id: number) =>
  useJobChange(id, (version: number) =>
    data(api.DELETE('/api/jobs/{id}', { params: { path: { id }, query: { version } } })),
  );
