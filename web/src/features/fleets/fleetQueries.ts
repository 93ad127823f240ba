import { queryOptions } from '@tanstack/react-query';
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
