import { queryOptions, useMutation, useQueryClient } from '@tanstack/react-query';
import { api, data, type Schemas } from '../../api/client';

export type Stores = Schemas['StoresView'];

export const storesQuery = queryOptions({
  queryKey: ['stores'],
  queryFn: () => data(api.GET('/api/stores')),
});

export const stockQuery = queryOptions({
  queryKey: ['stock'],
  queryFn: () => data(api.GET('/api/stores/stock')),
});

function useStoresChange<V>(send: (values: V) => Promise<Stores>) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: send,
    onSuccess: (stores) => {
      client.setQueryData(storesQuery.queryKey, stores);
      // what is in the house moves the earliest start of jobs
      return Promise.all(
        ['board', 'stock', 'job'].map((key) => client.invalidateQueries({ queryKey: [key] })),
      );
    },
  });
}

export const useOrder = () =>
  useStoresChange((lines: Schemas['OrderIn']['lines']) =>
    data(api.POST('/api/stores/orders', { body: { lines } })),
  );

export const useArrived = () =>
  useStoresChange(({ id, version }: { id: number; version: number }) =>
    data(
      api.POST('/api/stores/orders/{id}/arrived', { params: { path: { id }, query: { version } } }),
    ),
  );

export const useCancelOrder = () =>
  useStoresChange(({ id, version }: { id: number; version: number }) =>
    data(
      api.POST('/api/stores/orders/{id}/cancelled', {
        params: { path: { id }, query: { version } },
      }),
    ),
  );

export const useToolCopy = (id: number) =>
  useStoresChange((body: Schemas['CopyIn']) =>
    data(api.PUT('/api/stores/tool-sets/{id}', { params: { path: { id } }, body })),
  );

export const useAddCopy = () =>
  useStoresChange((familyCode: string) =>
    data(api.POST('/api/stores/tool-sets', { body: { familyCode } })),
  );

export function useCount(part: string) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas['CountIn']) =>
      data(api.PUT('/api/stores/stock/{part}', { params: { path: { part } }, body })),
    onSuccess: (stock) => {
      client.setQueryData(stockQuery.queryKey, stock);
      return Promise.all(
        ['stores', 'board'].map((key) => client.invalidateQueries({ queryKey: [key] })),
      );
    },
  });
}
