import { keepPreviousData, queryOptions, useMutation, useQueryClient } from '@tanstack/react-query';
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
        client.invalidateQueries({ queryKey: ['ahead'] }),
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

export const useAddCall = (id: number, onDone: () => void) =>
  useVehicleChange(
    (body: Schemas['NewCall']) =>
      data(api.POST('/api/vehicles/{id}/calls', { params: { path: { id } }, body })),
    onDone,
  );

export const useAddDecline = (id: number, onDone: () => void) =>
  useVehicleChange(
    (body: Schemas['NewDecline']) =>
      data(api.POST('/api/vehicles/{id}/declines', { params: { path: { id } }, body })),
    onDone,
  );

export const useWithdrawDecline = (id: number) =>
  useVehicleChange((declineId: number) =>
    data(
      api.POST('/api/vehicles/{id}/declines/{declineId}/withdrawal', {
        params: { path: { id, declineId } },
      }),
    ),
  );

export const useAddTrip = (id: number, onDone: () => void) =>
  useVehicleChange(
    (body: Schemas['NewTrip']) =>
      data(api.POST('/api/vehicles/{id}/trips', { params: { path: { id } }, body })),
    onDone,
  );

export const useCancelTrip = (id: number) =>
  useVehicleChange((tripId: number) =>
    data(api.DELETE('/api/vehicles/{id}/trips/{tripId}', { params: { path: { id, tripId } } })),
  );

export const useAddRenewal = (id: number, onDone: () => void) =>
  useVehicleChange(
    (body: Schemas['NewRenewal']) =>
      data(api.POST('/api/vehicles/{id}/renewals', { params: { path: { id } }, body })),
    onDone,
  );

export const useUseState = (id: number, onDone: () => void) =>
  useVehicleChange(
    (body: Schemas['StateChange']) =>
      data(api.PUT('/api/vehicles/{id}/state', { params: { path: { id } }, body })),
    onDone,
  );

export const useOwnTiming = (id: number, onDone: () => void) =>
  useVehicleChange(
    (body: Schemas['OwnTiming']) =>
      data(api.PUT('/api/vehicles/{id}/own-timing', { params: { path: { id } }, body })),
    onDone,
  );

/** Says that the odometer was replaced, and that this reading is the first of the new one; or takes that back. */
export const useReplacement = (id: number) =>
  useVehicleChange(
    ({ readingId, version, undo }: { readingId: number; version: number; undo: boolean }) =>
      undo
        ? data(
            api.DELETE('/api/vehicles/{id}/readings/{readingId}/replacement', {
              params: { path: { id, readingId }, query: { version } },
            }),
          )
        : data(
            api.POST('/api/vehicles/{id}/readings/{readingId}/replacement', {
              params: { path: { id, readingId } },
              body: { version },
            }),
          ),
  );

export const useReadFaultCodes = (id: number) => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () =>
      data(api.POST('/api/vehicles/{id}/fault-codes', { params: { path: { id } } })),
    onSuccess: () => client.invalidateQueries(),
  });
};

/** What happens if she waits until `date`; with another yearly distance, if one is given. */
export const whatIfQuery = (id: number, date: string, kmPerYear?: number) =>
  queryOptions({
    queryKey: ['vehicle', id, 'what-if', date, kmPerYear],
    queryFn: () =>
      data(
        api.GET('/api/vehicles/{id}/what-if', {
          params: { path: { id }, query: { date, kmPerYear } },
        }),
      ),
    placeholderData: keepPreviousData,
  });

export const detailsQuery = (id: number) =>
  queryOptions({
    queryKey: ['vehicle', id, 'details'],
    queryFn: () => data(api.GET('/api/vehicles/{id}/details', { params: { path: { id } } })),
    staleTime: Infinity,
    gcTime: 0,
  });

export const vinWarningQuery = (vin: string) =>
  queryOptions({
    queryKey: ['vin-warning', vin],
    queryFn: () => data(api.GET('/api/vehicles/vin-warning', { params: { query: { vin } } })),
    enabled: vin.length === 17,
    staleTime: Infinity,
  });

export const useStoreVehicle = (id: number | undefined, onDone: (id: number) => void) => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas['VehicleDetails']) =>
      id === undefined
        ? data(api.POST('/api/vehicles', { body }))
        : data(api.PUT('/api/vehicles/{id}/details', { params: { path: { id } }, body })),
    onSuccess: async (stored) => {
      await client.invalidateQueries();
      onDone(stored.id);
    },
  });
};

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

export const useNoteBreakdown = (id: number, onDone: () => void) =>
  useVehicleChange(
    (body: Schemas['NewBreakdown']) =>
      data(
        api.POST('/api/vehicles/{vehicleId}/breakdowns', {
          params: { path: { vehicleId: id } },
          body,
        }),
      ),
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
    mutationFn: (body: Schemas['NewJob']) => data(api.POST('/api/jobs', { body })),
    onSuccess: async (job) => {
      await client.invalidateQueries();
      onDone(job.id);
    },
  });
};

/** What jobs left to be looked at again. */
export const aftercareQuery = (id: number) =>
  queryOptions({
    queryKey: ['aftercare', id],
    queryFn: () => data(api.GET('/api/vehicles/{id}/aftercare', { params: { path: { id } } })),
  });

/** What has happened to the timing drive, newest first. */
export const storyQuery = (id: number) =>
  queryOptions({
    queryKey: ['story', id],
    queryFn: () => data(api.GET('/api/vehicles/{id}/story', { params: { path: { id } } })),
  });
