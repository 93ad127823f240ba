import { queryOptions, useMutation, useQueryClient } from '@tanstack/react-query';
import { api, data, type Schemas } from '../../api/client';

export const dossierQuery = (id: number) =>
  queryOptions({
    queryKey: ['vehicle', id],
    queryFn: () => data(api.GET('/api/vehicles/{id}', { params: { path: { id } } })),
  });

/** A change to a vehicle; afterwards everything that shows it is asked again. */
function useVehicleChange<V>(send: (values: V) => Promise<unknown>, onDone?: () => void) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: send,
    onSuccess: async () => {
      onDone?.();
      await Promise.all([
        client.invalidateQueries({ queryKey: ['vehicle'] }),
        client.invalidateQueries({ queryKey: ['desk'] }),
        client.invalidateQueries({ queryKey: ['job'] }),
      ]);
    },
  });
}

export const useAddReading = (id: number, onDone: () => void) =>
  useVehicleChange(
    (body: Schemas['NewReading']) =>
      data(api.POST('/api/vehicles/{id}/readings', { params: { path: { id } }, body })),
    onDone,
  );

export const useMarkReading = (id: number) =>
  useVehicleChange(({ readingId, ...body }: Schemas['ReadingMark'] & { readingId: number }) =>
    data(
      api.PUT('/api/vehicles/{id}/readings/{readingId}/mark', {
        params: { path: { id, readingId } },
        body,
      }),
    ),
  );

export const useConditions = (id: number) =>
  useVehicleChange((body: Schemas['Conditions']) =>
    data(api.PUT('/api/vehicles/{id}/conditions', { params: { path: { id } }, body })),
  );

export const useAddEvidence = (id: number, onDone: () => void) =>
  useVehicleChange(
    (body: Schemas['NewEvidence']) =>
      data(api.POST('/api/vehicles/{id}/evidence', { params: { path: { id } }, body })),
    onDone,
  );

export const useWithdraw = (id: number, onDone: () => void) =>
  useVehicleChange(
    ({ evidenceId, why }: { evidenceId: number; why: string }) =>
      data(
        api.POST('/api/vehicles/{id}/evidence/{evidenceId}/withdrawal', {
          params: { path: { id, evidenceId } },
          body: { why },
        }),
      ),
    onDone,
  );

export const useStartJob = (onDone: (jobId: number) => void) => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (vehicleId: number) => data(api.POST('/api/jobs', { body: { vehicleId } })),
    onSuccess: async (job) => {
      await client.invalidateQueries();
      onDone(job.id);
    },
  });
};
