import { queryOptions, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useState } from 'react';
import { A_DAY_AND_TOMORROW } from '../../shared/atHand';
import { useMe } from '../../shared/me';
import { meQuery } from '../../shared/queries';
import { api, data, Problem, sendForm, type Schemas } from '../../api/client';
import type { paths } from '../../api/schema';
import { needsServer, newKey, Outbox, problemOf, type Doing, type Kept } from './outbox';

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
    gcTime: A_DAY_AND_TOMORROW,
  });

/** Where a picture of a card is read. */
export const pictureAt = (job: number, picture: number) =>
  `/api/jobs/${job}/card/photos/${picture}.jpg`;

export const recordQuery = (id: number) =>
  queryOptions({
    queryKey: ['record', id],
    queryFn: () => data(api.GET('/api/jobs/{id}/record', { params: { path: { id } } })),
  });

/** How often what is kept on the tablet is tried again, ms. */
const TRY_AGAIN = 4_000;

/** How long one waits for an answer before going on with what is kept, ms. */
const PATIENCE = 3_000;

/** Sends what was done; the card as it stands then. */
export async function send({ job, key, basedOn, doing }: Kept): Promise<Card> {
  const path = { params: { path: { id: job } } };
  if ('entry' in doing) {
    return data(
      api.POST('/api/jobs/{id}/card/events', {
        ...path,
        body: { ...doing.entry, clientKey: key, basedOn },
      }),
    );
  }
  if ('photo' in doing) {
    return sendForm<Card>(`/api/jobs/${job}/card/photos`, { ...doing.photo, clientKey: key });
  }
  if ('lines' in doing) {
    return data(api.POST('/api/jobs/{id}/card/lines', { ...path, body: { items: doing.lines } }));
  }
  await data(api.POST('/api/jobs/{id}/card/owner-answer', { ...path, body: doing.owner }));
  return data(api.GET('/api/jobs/{id}/card', path));
}

/** An answer entered once more takes the place of the one that was not taken. */
const isAnew = (now: Doing, before: Doing) =>
  'entry' in now &&
  'entry' in before &&
  now.entry.type === before.entry.type &&
  stepOf(now.entry) !== undefined &&
  stepOf(now.entry) === stepOf(before.entry);

/** Something the server did not take, with what it says; `late` where it had been kept on the tablet meanwhile. */
export interface Refused {
  kept: Kept;
  problem: Problem;
  late: boolean;
}

/**
 * Enters events, pictures, lines and the owner's answers. Each is kept on the tablet first and then sent, in its order; its
 * key makes sure that it counts once, whether or not the server had it before the network broke.
 */
export function useBench(card: Card) {
  const client = useQueryClient();
  const by = useMe().name ?? '';
  // asked at each turn: somebody else may have signed in over the page
  const [who] = useState(() => () => client.getQueryData(meQuery.queryKey)?.name ?? '');
  const [list, setList] = useState<Kept[]>([]);
  const [objection, setObjection] = useState<Refused>();
  const [busy, setBusy] = useState(false);
  /** What is being entered just now; its refusal is told where it was entered. */
  const [own, setOwn] = useState<string>();

  const taken = useCallback(
    (next: Card, { doing }: Kept) => {
      client.setQueryData(cardQuery(next.jobId).queryKey, next);
      const type = 'entry' in doing ? doing.entry.type : 'owner' in doing ? 'OWNER' : undefined;
      if (type && ['START', 'COMPLETE', 'PAUSE', 'RESUME', 'OWNER'].includes(type)) {
        ['desk', 'vehicle', 'jobs', 'job', 'aftercare', 'story'].forEach(
          (key) => void client.invalidateQueries({ queryKey: [key] }),
        );
      }
    },
    [client],
  );

  const [box] = useState(() => {
    const made: Outbox = new Outbox(card.jobId, who, send, {
      taken,
      changed: () => void made.list().then(setList),
    });
    return made;
  });

  useEffect(() => {
    void box
      .takeOver()
      .then(() => box.list())
      .then(setList)
      .then(() => box.flush());
  }, [box]);

  const waits = list.some((k) => !k.refused);
  useEffect(() => {
    if (!waits) return;
    const again = () => void box.flush();
    const timer = setInterval(again, TRY_AGAIN);
    window.addEventListener('online', again);
    return () => {
      clearInterval(timer);
      window.removeEventListener('online', again);
    };
  }, [waits, box]);

  /** What is wrong with `doing`; undefined where it was taken or kept. */
  const act = async (doing: Doing): Promise<Problem | undefined> => {
    setObjection(undefined);
    setBusy(true);
    const key = newKey();
    setOwn(key);
    try {
      for (const k of await box.list()) {
        if (k.refused && isAnew(doing, k.doing)) await box.remove(k.key);
      }
      await box.add(doing, card.seq, key);
      await Promise.race([box.flush(), new Promise((go) => setTimeout(go, PATIENCE))]);
      const kept = (await box.list()).find((k) => k.key === key);
      const problem = kept && problemOf(kept);
      if (!problem) return undefined;
      await box.remove(key);
      setObjection({ kept, problem, late: false });
      await client.invalidateQueries({ queryKey: ['card', card.jobId] });
      return problem;
    } finally {
      setOwn(undefined);
      setBusy(false);
    }
  };

  /** Check-in and signature do not wait; the page offers a signature once nothing else does. */
  const say = async (entry: Entry): Promise<boolean> => {
    setObjection(undefined);
    setBusy(true);
    const one: Kept = {
      key: newKey(),
      job: card.jobId,
      by,
      order: 0,
      basedOn: card.seq,
      at: new Date().toISOString(),
      doing: { entry },
    };
    try {
      taken(await send(one), one);
      return true;
    } catch (e) {
      if (e instanceof Problem) setObjection({ kept: one, problem: e, late: false });
      await client.invalidateQueries({ queryKey: ['card', card.jobId] });
      return false;
    } finally {
      setBusy(false);
    }
  };

  /** True where the entry was taken or kept, false where it was refused. */
  const enter = async (entry: Entry): Promise<boolean> =>
    needsServer(entry) ? say(entry) : (await act({ entry })) === undefined;

  const late = list.find((k) => k.refused && k.key !== own);
  const lateProblem = late && problemOf(late);
  const refused =
    objection ??
    (late && lateProblem ? { kept: late, problem: lateProblem, late: true } : undefined);
  return {
    enter,
    act,
    busy,
    /** What waits to be sent. */
    kept: list.filter((k) => !k.refused && k.key !== own),
    refused,
    /** Since when the server has not answered. */
    since: box.since,
    /** Who has to sign in so that what waits is sent; undefined where it is whoever is. */
    waitsFor: list.find((k) => !k.refused && k.by !== by)?.by,
    /** What waits would be lost with this page. */
    inMemoryOnly: box.inMemoryOnly,
    dismiss: () => setObjection(undefined),
    /** Somebody has seen what was not taken, and leaves it. */
    leave: () => void (late && box.remove(late.key)),
  };
}

export type Bench = ReturnType<typeof useBench>;

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
