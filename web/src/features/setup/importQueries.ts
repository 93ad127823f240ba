import { queryOptions, useMutation, useQueryClient } from '@tanstack/react-query';
import { api, data, sendFile, sendForBlob, type Schemas } from '../../api/client';

type Preview = Schemas['Preview'];

/** What somebody says of a list; what is left out is found out by the server. */
export interface Said {
  kind?: Preview['kind'];
  encoding?: string;
  separator?: string;
  headerRow?: number;
  columns?: Record<string, number>;
  style?: Preview['style'];
  order?: Preview['order'];
  unit?: Preview['unit'];
  readOn?: string;
  usageClass?: string;
  existing?: Preview['existing'];
  takeGood?: boolean;
}

export interface Listed {
  file: File;
  said: Said;
}

const path = (at: string, { file, said }: Listed) =>
  `/api/imports${at}?${new URLSearchParams({ as: JSON.stringify(said), name: file.name })}`;

export const usePreview = () =>
  useMutation({
    mutationFn: (list: Listed) => sendFile<Preview>(path('/preview', list), list.file),
  });

export const useImport = (onDone: (result: Schemas['Imported']) => void) => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (list: Listed) => sendFile<Schemas['Imported']>(path('', list), list.file),
    onSuccess: async (result) => {
      await client.invalidateQueries();
      onDone(result);
    },
  });
};

/** Saves the lines that cannot be taken as a file. */
export const useBadLines = () =>
  useMutation({
    mutationFn: async (list: Listed) => {
      const blob = await sendForBlob(path('/bad-lines', list), list.file);
      const link = document.createElement('a');
      link.href = URL.createObjectURL(blob);
      link.download = 'lines-to-mend.csv';
      link.click();
      URL.revokeObjectURL(link.href);
    },
  });

export const importsQuery = queryOptions({
  queryKey: ['imports'],
  queryFn: () => data(api.GET('/api/imports')),
});

/** How far an import is, asked for twice a second while it runs. */
export const progressQuery = (running: boolean) =>
  queryOptions({
    queryKey: ['imports', 'progress'],
    queryFn: () => data(api.GET('/api/imports/progress')),
    enabled: running,
    refetchInterval: running ? 500 : false,
    gcTime: 0,
  });

export const useTakeBack = () => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (id: number) =>
      data(api.POST('/api/imports/{id}/take-back', { params: { path: { id } } })),
    onSettled: () => client.invalidateQueries(),
  });
};

export const mappingsQuery = queryOptions({
  queryKey: ['imports', 'mappings'],
  queryFn: () => data(api.GET('/api/imports/mappings')),
});

export const useKeepMapping = (onDone: () => void) => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas['MappingIn']) => data(api.PUT('/api/imports/mappings', { body })),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: mappingsQuery.queryKey });
      onDone();
    },
  });
};
