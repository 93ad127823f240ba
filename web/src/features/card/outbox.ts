import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import { Problem, type Schemas } from '../../api/client';
import { stepOf, type Card, type Entry } from './cardQueries';

/** What is sent of a card: an entry, a picture, lines added, or what the owner said to them. */
export type Doing =
  | { entry: Entry }
  | { photo: { file: Blob; step: string; caption: string } }
  | { lines: string[] }
  | { owner: Schemas['OwnerAnswerIn'] };

/** Something done at the bench that the server does not have yet. */
export interface Kept {
  /** Nobody else's; what is sent twice with it counts once. */
  key: string;
  job: number;
  /** Name of who did it; it is entered in their name and no other. */
  by: string;
  /** Grows; what was done first is sent first. */
  order: number;
  /** Number of the last entry of the card that was seen when it was done. */
  basedOn: number;
  at: string;
  doing: Doing;
  /** What the server said where it did not take it; it stays until somebody has seen that. */
  refused?: Said;
}

/** A problem as it can be kept. */
type Said = Pick<
  Problem,
  'status' | 'type' | 'title' | 'message' | 'errors' | 'suggestion' | 'value'
>;

/** What the server said to `kept` where it did not take it. */
export const problemOf = ({ refused: r }: Kept) =>
  r && new Problem(r.status, r.type, r.title, r.message, r.errors, r.suggestion, r.value);

interface Store extends DBSchema {
  kept: { key: string; value: Kept; indexes: { job: number } };
}

let opened: Promise<IDBPDatabase<Store>> | undefined;

const database = () => {
  opened ??= openDB<Store>('knollfield-bench', 1, {
    upgrade: (db) => db.createObjectStore('kept', { keyPath: 'key' }).createIndex('job', 'job'),
    terminated: () => (opened = undefined),
  });
  // one that did not open is tried again
  opened.catch(() => (opened = undefined));
  return opened;
};

/** What waits and what was refused on this tablet, of all cards; nothing where its storage is shut. */
export const everythingKept = async (): Promise<Kept[]> => {
  try {
    return await (await database()).getAll('kept');
  } catch {
    return [];
  }
};

/** A key nobody else uses; an entry sent twice with it counts once. */
export const newKey = (): string => crypto.randomUUID?.() ?? `${Date.now()}-${Math.random()}`;

/** Entries that must reach the server before anything else can be said. */
export const needsServer = (entry: Entry) => entry.type === 'START' || entry.type === 'COMPLETE';

/** True where the server did not answer: no network, or one that is busy or restarts. */
export const noAnswer = (e: unknown) =>
  !(e instanceof Problem) || e.status === 0 || e.status >= 500 || [408, 429].includes(e.status);

/** True where the server may take it later as it is: it did not answer, or nobody is signed in. */
export const mayPass = (e: unknown) => noAnswer(e) || (e instanceof Problem && e.status === 401);

/** How long one waits for the answer to one thing; what was sent then counts once all the same, ms. */
const ONE_ANSWER = 30_000;

const inTime = <T>(answer: Promise<T>): Promise<T> =>
  Promise.race([
    answer,
    new Promise<never>((_, late) => setTimeout(() => late(new Error('no answer')), ONE_ANSWER)),
  ]);

/** One at a time over all tabs of this tablet, where the browser can say so. */
const alone = <T>(name: string, work: () => Promise<T>): Promise<T> =>
  navigator.locks ? (navigator.locks.request(name, work) as Promise<T>) : work();

/**
 * What is done on one card, kept on the tablet until the server has it. Everything goes through it, in the order it was
 * done: it is kept first and then sent, so that nothing done while something else is under way is lost. What the tablet
 * cannot keep, because its storage is full, stands in memory and says so.
 */
export class Outbox {
  private readonly memory: Kept[] = [];
  private sending: Promise<void> | undefined;
  private asked = false;
  /** Since when the server has not answered; undefined while it does. */
  since: string | undefined;

  /** @param by who enters, by name; what somebody else entered waits until they are signed in again */
  constructor(
    private readonly job: number,
    private readonly by: () => string,
    private readonly send: (kept: Kept) => Promise<Card>,
    private readonly told: { taken: (next: Card, kept: Kept) => void; changed: () => void },
  ) {}

  /** The tablet's storage is full or shut: some of what waits is lost with this page. */
  get inMemoryOnly(): boolean {
    return this.memory.length > 0;
  }

  /** What waits and what was refused, oldest first. */
  async list(): Promise<Kept[]> {
    let stored: Kept[] = [];
    try {
      stored = await (await database()).getAllFromIndex('kept', 'job', this.job);
    } catch {
      // what cannot be read was not written either: it stands in memory
    }
    // what memory has of the same is newer
    const older = stored.filter((k) => !this.memory.some((m) => m.key === k.key));
    return [...older, ...this.memory].sort((a, b) => a.order - b.order);
  }

  /** Keeps what was done; it is not sent by this alone. */
  async add(doing: Doing, basedOn: number, key = newKey()): Promise<Kept> {
    const last = (await this.list()).at(-1)?.order ?? 0;
    const kept: Kept = {
      key,
      job: this.job,
      by: this.by(),
      order: Math.max(last + 1, Date.now()),
      basedOn,
      at: new Date().toISOString(),
      doing,
    };
    await this.put(kept);
    this.told.changed();
    return kept;
  }

  private async put(kept: Kept): Promise<void> {
    this.forget(kept.key);
    try {
      await (await database()).put('kept', kept);
    } catch {
      this.memory.push(kept);
    }
  }

  private forget(key: string) {
    const at = this.memory.findIndex((k) => k.key === key);
    if (at >= 0) this.memory.splice(at, 1);
  }

  /** Takes away what was taken, or what somebody has seen refused. */
  async remove(key: string): Promise<void> {
    this.forget(key);
    try {
      await (await database()).delete('kept', key);
    } catch {
      // it stays in a storage that is shut; sent again, its key counts once
    }
    this.told.changed();
  }

  /** Sends what waits, oldest first, until nothing is left or the server does not answer. */
  flush(): Promise<void> {
    this.asked = true;
    this.sending ??= this.run();
    return this.sending;
  }

  private async run(): Promise<void> {
    try {
      while (this.asked) {
        this.asked = false;
        await alone(`knollfield-bench-${this.job}`, () => this.sendAll());
      }
    } finally {
      // at once with the last look, so that whoever asks next begins anew
      this.sending = undefined;
    }
  }

  private async sendAll(): Promise<void> {
    for (;;) {
      const first = (await this.list()).find((k) => !k.refused);
      if (!first || first.by !== this.by()) return;
      let next: Card;
      try {
        next = await inTime(this.send(first));
      } catch (e) {
        if (mayPass(e)) {
          this.since = noAnswer(e) ? (this.since ?? new Date().toISOString()) : undefined;
          this.told.changed();
          return;
        }
        this.since = undefined;
        const { status, type, title, message, errors, suggestion, value } = e as Problem;
        await this.put({
          ...first,
          refused: { status, type, title, message, errors, suggestion, value },
        });
        this.told.changed();
        continue;
      }
      this.since = undefined;
      this.told.taken(next, first);
      await this.remove(first.key);
    }
  }

  /** Takes over what an earlier version of this page kept. */
  async takeOver(): Promise<void> {
    const place = `knollfield-bench-${this.job}`;
    let earlier: { key: string; basedOn: number; entry: Entry }[] = [];
    try {
      earlier = JSON.parse(localStorage.getItem(place) ?? '[]') as typeof earlier;
    } catch {
      // what cannot be read is no list of entries
    }
    if (!Array.isArray(earlier)) return;
    for (const e of earlier) await this.add({ entry: e.entry }, e.basedOn, e.key);
    localStorage.removeItem(place);
  }
}

/** Code of the step something was done at; undefined for what is done beside the steps. */
export const stepOfDoing = (doing: Doing) =>
  'entry' in doing ? stepOf(doing.entry) : 'photo' in doing ? doing.photo.step : undefined;

/**
 * Steps that count as done for the eye, because what does them waits to be sent: all passes of a pattern, the plain steps
 * of a phase that were ticked together as far as the next shut gate, nothing that was taken back since.
 */
export function waitingSteps(list: Kept[], card: Pick<Card, 'phases' | 'gates'>): Set<string> {
  const all = card.phases.flatMap((p) => p.steps);
  const steps = new Map(all.map((s) => [s.code, s]));
  const done = new Set<string>();
  const passes = new Map<string, number>();
  /** How many steps come before the first gate that is shut, as far as is known here. */
  const reach = () =>
    Math.min(
      all.length,
      ...card.gates
        .filter((g) => !g.open)
        .filter((g) => all.some((s) => s.gate === g.kind && !s.settled && !done.has(s.code)))
        .map((g) => all.findIndex((s) => s.code === g.afterStep) + 1),
    );
  for (const { doing, refused } of list) {
    if (refused || !('entry' in doing)) continue;
    const { entry } = doing;
    if (entry.type === 'TICK_PHASE') {
      const before = all.slice(0, reach());
      card.phases
        .find((p) => p.code === entry.phase)
        ?.steps.filter((s) => s.task === 'TICK' && !s.awaitsOwner && before.includes(s))
        .forEach((s) => done.add(s.code));
      continue;
    }
    const code = stepOf(entry);
    if (!code) continue;
    if (entry.type === 'UNDO') {
      done.delete(code);
      passes.delete(code);
    } else if (entry.type === 'PASS') {
      const gone = (passes.get(code) ?? steps.get(code)?.pattern?.done ?? 0) + 1;
      passes.set(code, gone);
      if (gone >= (steps.get(code)?.pattern?.passes ?? 1)) done.add(code);
    } else if (entry.type !== 'FOUND' && entry.type !== 'CONTINGENCY') {
      done.add(code);
    }
  }
  return done;
}

const NAMES: Partial<Record<Entry['type'], string>> = {
  TICK: 'done',
  TICK_PHASE: 'plain steps done',
  TURN: 'turn done',
  PASS: 'a pass',
  MARKS: 'marks',
  UNDO: 'taken back',
  HARD_STOP: 'hard stop',
  PAUSE: 'waits',
  RESUME: 'goes on',
};

/** What waits, in a few words. */
export function inWords({ doing }: Pick<Kept, 'doing'>): string {
  if ('photo' in doing) return ['picture', doing.photo.caption].filter(Boolean).join(' ');
  if ('lines' in doing) return 'added to the job';
  if ('owner' in doing) return doing.owner.agreed ? 'the owner agreed' : 'the owner left it';
  const { entry } = doing;
  const value =
    ('value' in entry && entry.value?.toString()) ||
    ('result' in entry && entry.result) ||
    ('words' in entry && entry.words) ||
    ('count' in entry && entry.count?.toString()) ||
    undefined;
  return [NAMES[entry.type], value].filter(Boolean).join(' ') || 'entry';
}
