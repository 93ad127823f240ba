import { queryOptions, useMutation, useQueryClient } from '@tanstack/react-query';
import { api, data, sendText, type Schemas } from '../../api/client';
import type { JsonSchema } from './schemaForm';

export const enginesQuery = queryOptions({
  queryKey: ['engines'],
  queryFn: () => data(api.GET('/api/engines')),
});

export const engineQuery = (code: string, version?: number) =>
  queryOptions({
    queryKey: ['engines', code, version],
    queryFn: () =>
      data(api.GET('/api/engines/{code}', { params: { path: { code }, query: { version } } })),
  });

export const differencesQuery = (code: string, from: number, to: number) =>
  queryOptions({
    queryKey: ['engines', code, 'differences', from, to],
    queryFn: () =>
      data(
        api.GET('/api/engines/{code}/differences', {
          params: { path: { code }, query: { from, to } },
        }),
      ),
    enabled: from > 0,
  });

/** Minutes of each access step, by the book and as signed jobs have them. */
export const learnedQuery = (code: string) =>
  queryOptions({
    queryKey: ['engines', code, 'minutes'],
    queryFn: () => data(api.GET('/api/engines/{code}/minutes', { params: { path: { code } } })),
  });

/** Each purpose of a book, its card, and whether it is proven. */
export const proofQuery = (code: string, version: number) =>
  queryOptions({
    queryKey: ['engines', code, 'proof', version],
    queryFn: () =>
      data(
        api.GET('/api/engines/{code}/proof', { params: { path: { code }, query: { version } } }),
      ),
  });

/** The published schema of a book; the editor is drawn from it. */
export const schemaQuery = queryOptions({
  queryKey: ['engine-schema'],
  queryFn: async () => {
    const whole = (await data(
      api.GET('/api/engines/schema', { parseAs: 'json' }),
    )) as unknown as JsonSchema;
    return whole.properties!.family!;
  },
  staleTime: Infinity,
});

export const useFileBook = (code: string, onDone: () => void) => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas['FamilyChange']) =>
      data(api.PUT('/api/engines/{code}', { params: { path: { code } }, body })),
    onSuccess: async () => {
      onDone();
      await client.invalidateQueries();
    },
  });
};

/** What the path of a book that is being changed looks like; files nothing. */
export const useDrawPath = () =>
  useMutation({
    mutationFn: ({ loop, ...body }: Schemas['FamilyChange'] & { loop?: string }) =>
      data(api.POST('/api/engines/check', { body, params: { query: { loop } } })),
  });

export const useTakeBook = (preview: boolean) => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: async (file: Blob) =>
      sendText<Schemas['ImportView']>(
        `/api/engines/documents?preview=${preview}`,
        await file.text(),
      ),
    onSuccess: async () => {
      if (!preview) await client.invalidateQueries();
    },
  });
};

/** What a new family can be begun from. */
export const beginningsQuery = queryOptions({
  queryKey: ['engine-forms'],
  queryFn: () => data(api.GET('/api/setup/engine-forms')),
});

export const beginQuery = (
  like: string | undefined,
  copy: string | undefined,
  extras: Schemas['ExtraChoice']['code'][],
) =>
  queryOptions({
    queryKey: ['engine-forms', 'begin', like, copy, extras],
    queryFn: () =>
      data(api.GET('/api/setup/engine-forms/begin', { params: { query: { like, copy, extras } } })),
    // what is being typed is not begun anew behind it
    staleTime: Infinity,
  });

/** What the answers so far block and prove. */
export const formCheckQuery = (answers: Schemas['Answers']) =>
  queryOptions({
    queryKey: ['engine-forms', 'check', answers],
    queryFn: () => data(api.POST('/api/setup/engine-forms/check', { body: answers })),
  });

export const useFileForm = (onDone: (filed: Schemas['FiledFamily']) => void) => {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas['Answers']) => data(api.POST('/api/setup/engine-forms', { body })),
    onSuccess: async (filed) => {
      await client.invalidateQueries();
      onDone(filed);
    },
  });
};
