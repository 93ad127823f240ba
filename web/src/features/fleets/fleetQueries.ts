import { keepPreviousData, queryOptions, useMutation, useQueryClient } from '@tanstack/react-query';
import { api, data, type Schemas } from '../../api/client';

export type FleetPage = Schemas['FleetPage'];

export const fleetsQuery = queryOptions({
  queryKey: ['fleets'],
  queryFn: () => data(api.GET('/api/fleets')),
});

export const fleetQuery = (id: number) =>
  queryOptions({
    queryKey: ['fleets', id],
    queryFn: () => data(api.GET('/api/fleets/{id}', { params: { path: { id } } })),
  });

export const pastQuery = (id: number) =>
  queryOptions({
    queryKey: ['fleets', id, 'past'],
    queryFn: () => data(api.GET('/api/fleets/{id}/past', { params: { path: { id } } })),
  });

/** @param hours a month that the fleet may take of the workshop; none: not counted */
export const levelQuery = (id: number, hours: number | undefined) =>
  queryOptions({
    queryKey: ['fleets', id, 'level', hours ?? null],
    queryFn: () =>
      data(api.GET('/api/fleets/{id}/level', { params: { path: { id }, query: { hours } } })),
    placeholderData: keepPreviousData,
  });

/** A change of a fleet's months; afterwards everything that names an act-by day is asked again. */
function useMonthsChange<V>(send: (values: V) => Promise<FleetPage>, onDone: () => void) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: send,
    onSuccess: onDone,
    onSettled: () =>
      Promise.all(
        ['fleets', 'find', 'vehicle', 'desk', 'ahead', 'board'].map((key) =>
          client.invalidateQueries({ queryKey: [key] }),
        ),
      ),
  });
}

export const useBringForward = (id: number, onDone: () => void) =>
  useMonthsChange(
    (moves: Schemas['Accepted'][]) =>
      data(api.POST('/api/fleets/{id}/level', { params: { path: { id } }, body: { moves } })),
    onDone,
  );

export const useLeaveInItsMonth = (id: number) =>
  useMonthsChange(
    (vehicle: number) =>
      data(api.DELETE('/api/fleets/{id}/level/{vehicle}', { params: { path: { id, vehicle } } })),
    () => undefined,
  );
