/** Entries that could not be sent yet, kept on this tablet in the order they were made. */
import { stepOf, type Entry } from './cardQueries';

export interface Kept {
  key: string;
  basedOn: number;
  at: string;
  entry: Entry;
}

const place = (job: number) => `knollfield-bench-${job}`;

/** What is kept for `job`; nothing where the store cannot be read. */
export function keptFor(job: number): Kept[] {
  try {
    const text = localStorage.getItem(place(job));
    return text ? (JSON.parse(text) as Kept[]) : [];
  } catch {
    return [];
  }
}

/** Keeps `list` in place of what was kept; an empty one leaves nothing behind. */
export function keep(job: number, list: Kept[]): void {
  if (list.length === 0) localStorage.removeItem(place(job));
  else localStorage.setItem(place(job), JSON.stringify(list));
}

/** A key nobody else uses; an entry sent twice with it counts once. */
export const newKey = () => crypto.randomUUID?.() ?? `${Date.now()}-${Math.random()}`;

/** Entries that must reach the server before anything else can be said. */
export const needsServer = (entry: Entry) => entry.type === 'START' || entry.type === 'COMPLETE';

/** Steps that have an entry waiting to be sent; a whole phase's plain ones where they were ticked together. */
export const waitingSteps = (list: Kept[], plainOf: (phase: string) => string[]) =>
  new Set(
    list.flatMap(({ entry }) => {
      if (entry.type === 'TICK_PHASE' && entry.phase) return plainOf(entry.phase);
      const step = stepOf(entry);
      return step ? [step] : [];
    }),
  );

const NAMES: Partial<Record<Entry['type'], string>> = {
  TICK: 'done',
  TICK_PHASE: 'plain steps done',
  TURN: 'turn done',
  MARKS: 'marks',
  HARD_STOP: 'hard stop',
  PAUSE: 'waits',
  RESUME: 'goes on',
};

/** A kept entry in a few words. */
export function inWords({ entry }: Kept): string {
  const value =
    ('value' in entry && entry.value?.toString()) ||
    ('result' in entry && entry.result) ||
    ('words' in entry && entry.words) ||
    ('count' in entry && entry.count?.toString()) ||
    undefined;
  return [NAMES[entry.type], value].filter(Boolean).join(' ') || 'entry';
}
