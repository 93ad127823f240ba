import { queryOptions, useMutation, useQueryClient } from '@tanstack/react-query';
import { api, data, sendCsv, type Schemas } from '../../api/client';

export const workshopQuery = queryOptions({
  queryKey: ['workshop'],
  queryFn: () => data(api.GET('/api/setup/workshop')),
});

export const assumptionsQuery = queryOptions({
  queryKey: ['assumptions'],
  queryFn: () => data(api.GET('/api/setup/assumptions')),
});

export const peopleQuery = queryOptions({
  queryKey: ['people'],
  queryFn: () => data(api.GET('/api/setup/people')),
});

function useSetupChange<V, R>(send: (values: V) => Promise<R>, onDone?: (result: R) => void) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: send,
    onSuccess: async (result) => {
      onDone?.(result);
      await client.invalidateQueries();
    },
  });
}

export const useChangeWorkshop = (onDone: () => void) =>
  useSetupChange(
    (body: Schemas['WorkshopChange']) => data(api.PUT('/api/setup/workshop', { body })),
    onDone,
  );

export const usePreviewWorkshop = () =>
  useMutation({
    mutationFn: (body: Schemas['WorkshopChange']) =>
      data(api.POST('/api/setup/workshop/preview', { body })),
  });

export const useAssume = (onDone: () => void) =>
  useSetupChange(
    (body: Schemas['AssumptionsChange']) => data(api.PUT('/api/setup/assumptions', { body })),
    onDone,
  );

export const usePreviewAssumptions = () =>
  useMutation({
    mutationFn: (body: Schemas['AssumptionsChange']) =>
      data(api.POST('/api/setup/assumptions/preview', { body })),
  });

export const useAddPerson = (onDone: () => void) =>
  useSetupChange(
    (body: Schemas['NewPerson']) => data(api.POST('/api/setup/people', { body })),
    onDone,
  );

export const useChangePerson = () =>
  useSetupChange(({ id, ...body }: Schemas['PersonChange'] & { id: number }) =>
    data(api.PUT('/api/setup/people/{id}', { params: { path: { id } }, body })),
  );

export const usePreview = () =>
  useMutation({
    mutationFn: (file: Blob) => sendCsv<Schemas['Preview']>('/api/imports/preview', file),
  });

export const useImport = (onDone: (result: Schemas['Imported']) => void) =>
  useSetupChange((file: Blob) => sendCsv<Schemas['Imported']>('/api/imports', file), onDone);
