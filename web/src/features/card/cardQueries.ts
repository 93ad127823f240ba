import { queryOptions, useMutation, useQueryClient } from '@tanstack/react-query';
import { api, data, type Schemas } from '../../api/client';

export type Card = Schemas['CardView'];
export type Step = Card['phases'][number]['steps'][number];
export type Entry = Omit<Schemas['CardEventRequest'], 'clientKey' | 'basedOn'>;

export const cardQuery = (id: number) =>
  queryOptions({
    queryKey: ['card', id],
    queryFn: () => data(api.GET('/api/jobs/{id}/card', { params: { path: { id } } })),
    refetchInterval: 15_000,
  });

/** Enters an event; the key makes sure that one sent twice counts once. */
export function useEnter(card: Card) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (entry: Entry) =>
      data(
        api.POST('/api/jobs/{id}/card/events', {
          params: { path: { id: card.jobId } },
          body: {
            ...entry,
            clientKey: crypto.randomUUID?.() ?? `${Date.now()}-${Math.random()}`,
            basedOn: card.seq,
          },
        }),
      ),
    onSuccess: async (next, entry) => {
      client.setQueryData(cardQuery(card.jobId).queryKey, next);
      if (entry.type === 'START' || entry.type === 'COMPLETE') {
        await Promise.all(
          ['desk', 'vehicle', 'jobs', 'job'].map((key) =>
            client.invalidateQueries({ queryKey: [key] }),
          ),
        );
      }
    },
    onError: () => client.invalidateQueries({ queryKey: ['card', card.jobId] }),
  });
}
