import { createAsyncStoragePersister } from '@tanstack/query-async-storage-persister';
import type { PersistQueryClientOptions } from '@tanstack/react-query-persist-client';
import type { IDBPDatabase } from 'idb';

/** What of the server's answers is kept on the tablet: who is signed in, the jobs and the cards read ahead. */
const KEPT = ['me', 'jobs', 'card'];

/** How long it is kept: cards of today and tomorrow, ms. */
export const A_DAY_AND_TOMORROW = 48 * 3_600_000;

const PICTURES = 'card-pictures';

let opened: Promise<IDBPDatabase> | undefined;

const answers = () => {
  opened ??= import('idb').then(({ openDB }) =>
    openDB('knollfield-answers', 1, { upgrade: (db) => db.createObjectStore('answers') }),
  );
  opened.catch(() => (opened = undefined));
  return opened;
};

/** A tablet without storage works as long as its page is open; nothing here may stop it. */
const persister = createAsyncStoragePersister({
  key: 'answers',
  storage: {
    getItem: async (key) => (await answers()).get('answers', key) as Promise<string | undefined>,
    setItem: async (key, value) => (await answers()).put('answers', value, key),
    removeItem: async (key) => (await answers()).delete('answers', key),
  },
});

/** For the cards at hand to open without a network. Another build reads none of them. */
export const atHand: Omit<PersistQueryClientOptions, 'queryClient'> = {
  persister,
  maxAge: A_DAY_AND_TOMORROW,
  buster: __BUILD__,
  dehydrateOptions: {
    shouldDehydrateQuery: (q) => q.state.data !== undefined && KEPT.includes(String(q.queryKey[0])),
    shouldDehydrateMutation: () => false,
  },
};

/** Takes away what the tablet keeps of the server's answers; what waits to be sent is kept elsewhere and stays. */
export async function leaveNothingAtHand(): Promise<void> {
  await Promise.allSettled([
    persister.removeClient(),
    'caches' in window ? caches.delete(PICTURES) : undefined,
  ]);
}
