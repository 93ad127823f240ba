import { queryOptions, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useRef, useState } from 'react';
import { api, data, Problem, sendForm, type Schemas } from '../../api/client';
import type { paths } from '../../api/schema';
import { keep, keptFor, needsServer, newKey, type Kept } from './outbox';

export type Card = Schemas['CardView'];
export type Step = Schemas['StepView'];
type Body =
  paths['/api/jobs/{id}/card/events']['post']['requestBody']['content']['application/json'];
type WithoutKeys<T> = T extends unknown ? Omit<T, 'clientKey' | 'basedOn'> : never;

/** What is entered at the bench: each kind with its own fields. */
export type Entry = WithoutKeys<Body>;

/** Code of the step an entry is about; undefined for what is entered beside the steps. */
export const stepOf = (entry: Entry) => ('step' in entry ? entry.step : undefined);

/** The entry of one kind. */
export type EntryOf<K extends Entry['type']> = Extract<Entry, { type: K }>;

export const cardQuery = (id: number) =>
  queryOptions({
    queryKey: ['card', id],
    queryFn: () => data(api.GET('/api/jobs/{id}/card', { params: { path: { id } } })),
    refetchInterval: 10_000,
  });

export const recordQuery = (id: number) =>
  queryOptions({
    queryKey: ['record', id],
    queryFn: () => data(api.GET('/api/jobs/{id}/record', { params: { path: { id } } })),
  });

/** How often what is kept on the tablet is tried again, ms. */
const TRY_AGAIN = 4_000;

const send = (job: number, k: Kept) =>
  data(
    api.POST('/api/jobs/{id}/card/events', {
      params: { path: { id: job } },
      body: { ...k.entry, clientKey: k.key, basedOn: k.basedOn },
    }),
  );

const isUnreachable = (e: unknown) => e instanceof Problem && e.status === 0;

/** An entry the server did not take, with what it says; `late` where it had been kept on the tablet meanwhile. */
export interface Refused {
  kept: Kept;
  problem: Problem;
  late: boolean;
}

/**
 * Enters events. One that cannot be sent is kept on the tablet and sent when the network returns, in its order; its
 * key makes sure that it counts once, whether or not the server had it before the network broke.
 */
export function useBench(card: Card) {
  const client = useQueryClient();
  const [kept, setKept] = useState(() => keptFor(card.jobId));
  const [refused, setRefused] = useState<Refused>();
  const [busy, setBusy] = useState(false);
  const flushing = useRef(false);
  const put = useCallback(
    (list: Kept[]) => {
      keep(card.jobId, list);
      setKept(list);
    },
    [card.jobId],
  );

  const taken = useCallback(
    async (next: Card, entry: Entry) => {
      client.setQueryData(cardQuery(card.jobId).queryKey, next);
      if (needsServer(entry) || entry.type === 'PAUSE' || entry.type === 'RESUME') {
        await Promise.all(
          ['desk', 'vehicle', 'jobs', 'job', 'aftercare', 'story'].map((key) =>
            client.invalidateQueries({ queryKey: [key] }),
          ),
        );
      }
    },
    [card.jobId, client],
  );

  const flush = useCallback(async () => {
    if (flushing.current) return;
    flushing.current = true;
    try {
      for (let list = keptFor(card.jobId); list.length > 0; list = keptFor(card.jobId)) {
        const [first, ...rest] = list as [Kept, ...Kept[]];
        try {
          await taken(await send(card.jobId, first), first.entry);
        } catch (e) {
          if (!(e instanceof Problem) || e.status === 0 || e.status === 401) return;
          setRefused({ kept: first, problem: e, late: true });
        }
        put(rest);
      }
    } finally {
      flushing.current = false;
    }
  }, [card.jobId, put, taken]);

  useEffect(() => {
    if (kept.length === 0) return;
    const timer = setInterval(() => void flush(), TRY_AGAIN);
    const online = () => void flush();
    window.addEventListener('online', online);
    return () => {
      clearInterval(timer);
      window.removeEventListener('online', online);
    };
  }, [kept.length, flush]);

  /** True where the entry was taken or kept, false where it was refused. */
  const enter = async (entry: Entry): Promise<boolean> => {
    setRefused(undefined);
    const one: Kept = {
      key: newKey(),
      basedOn: card.seq,
      at: new Date().toISOString(),
      entry,
    };
    const waiting = keptFor(card.jobId);
    if (waiting.length > 0 && !needsServer(entry)) {
      put([...waiting, one]);
      return true;
    }
    setBusy(true);
    try {
      await taken(await send(card.jobId, one), entry);
      return true;
    } catch (e) {
      if (isUnreachable(e) && !needsServer(entry)) {
        put([...keptFor(card.jobId), one]);
        return true;
      }
      if (e instanceof Problem) setRefused({ kept: one, problem: e, late: false });
      await client.invalidateQueries({ queryKey: ['card', card.jobId] });
      return false;
    } finally {
      setBusy(false);
    }
  };

  return { enter, busy, kept, refused, dismiss: () => setRefused(undefined) };
}

export type Bench = ReturnType<typeof useBench>;

/** Adds items found at the bench to the job. */
export function useWiden(job: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (items: string[]) =>
      data(
        api.POST('/api/jobs/{id}/card/lines', { params: { path: { id: job } }, body: { items } }),
      ),
    onSuccess: (next) => client.setQueryData(cardQuery(job).queryKey, next),
  });
}

/** Notes what the owner says to added items. */
export function useOwnerAnswer(job: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas['OwnerAnswerIn']) =>
      data(api.POST('/api/jobs/{id}/card/owner-answer', { params: { path: { id: job } }, body })),
    onSuccess: () => client.invalidateQueries({ queryKey: ['card', job] }),
  });
}

/** Stores a picture. */
export function usePhoto(job: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: ({ file, step, caption }: { file: Blob; step: string; caption: string }) =>
      sendForm<Card>(`/api/jobs/${job}/card/photos`, { file, step, caption }),
    onSuccess: (next) => client.setQueryData(cardQuery(job).queryKey, next),
  });
}

/** One reading of the belt-frequency meter. */
export function useMeter(job: number) {
  return useMutation({
    mutationFn: () =>
      data(api.POST('/api/jobs/{id}/card/frequency', { params: { path: { id: job } } })),
  });
}

/** Fault codes as the reader has them. */
export function useReadCodes(vehicle: number) {
  return useMutation({
    mutationFn: () =>
      data(api.POST('/api/vehicles/{id}/fault-codes', { params: { path: { id: vehicle } } })),
  });
}

export const useRecord = (id: number, signed: boolean) =>
  useQuery({ ...recordQuery(id), enabled: signed });
