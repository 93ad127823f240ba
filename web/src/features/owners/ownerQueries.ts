import { queryOptions, useMutation, useQueryClient } from '@tanstack/react-query';
import { api, data, type Schemas } from '../../api/client';

export type OwnerPage = Schemas['OwnerPage'];

export const ownerQuery = (id: number) =>
  queryOptions({
    queryKey: ['owner', id],
    queryFn: () => data(api.GET('/api/owners/{id}', { params: { path: { id } } })),
  });

/** A change of an owner; afterwards everything that names owners is asked again. */
function useOwnerChange<V>(
  send: (values: V) => Promise<OwnerPage>,
  onDone: (page: OwnerPage) => void,
) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: send,
    onSuccess: async (page) => {
      client.setQueryData(ownerQuery(page.owner.id).queryKey, page);
      onDone(page);
      await Promise.all(
        ['owner', 'owners', 'find', 'vehicle', 'desk', 'job', 'ahead', 'board'].map((key) =>
          client.invalidateQueries({ queryKey: [key] }),
        ),
      );
    },
  });
}

export const useKeepOwner = (id: number, onDone: (page: OwnerPage) => void) =>
  useOwnerChange(
    (body: Schemas['OwnerIn']) =>
      data(api.PUT('/api/owners/{id}', { params: { path: { id } }, body })),
    onDone,
  );

export const useMergeOwner = (onDone: (page: OwnerPage) => void) =>
  useOwnerChange(
    ({ id, ...body }: Schemas['MergeIn'] & { id: number }) =>
      data(api.POST('/api/owners/{id}/merge', { params: { path: { id } }, body })),
    onDone,
  );

export const useSplitOwner = (id: number, onDone: (page: OwnerPage) => void) =>
  useOwnerChange(
    (body: Schemas['SplitIn']) =>
      data(api.POST('/api/owners/{id}/split', { params: { path: { id } }, body })),
    onDone,
  );

export const useUndoOwner = (id: number, onDone: (page: OwnerPage) => void) =>
  useOwnerChange(
    (change: number) =>
      data(
        api.POST('/api/owners/{id}/changes/{change}/undo', { params: { path: { id, change } } }),
      ),
    onDone,
  );
