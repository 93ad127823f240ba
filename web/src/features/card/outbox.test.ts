import { openDB } from 'idb';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { Problem } from '../../api/client';
import type { Card, Entry } from './cardQueries';
import { inWords, mayPass, needsServer, newKey, Outbox, waitingSteps, type Kept } from './outbox';

const JOB = 7;
let me = 'Hedra Voss';
const RUNS = Number(import.meta.env.VITE_RUNS ?? 20);

const emptied = async () => (await openDB('knollfield-bench')).clear('kept');
const tick = (step: string): Entry => ({ type: 'TICK', step });
const kept = (entry: Entry, more: Partial<Kept> = {}): Kept => ({
  key: newKey(),
  job: JOB,
  by: me,
  order: 1,
  basedOn: 3,
  at: '',
  doing: { entry },
  ...more,
});

/** Numbers that are the same for the same seed (a linear congruential generator). */
function random(seed: number) {
  let x = seed * 2_654_435_761 + 1;
  return (below: number) => {
    x = (x * 1_103_515_245 + 12_345) % 2_147_483_648;
    return Math.floor((x / 2_147_483_648) * below);
  };
}

/** A server that counts a key once, behind a network that fails before it, after it, or answers that it is busy. */
class Server {
  readonly has: string[] = [];
  private readonly keys = new Set<string>();
  down = false;

  constructor(private readonly next: (below: number) => number) {}

  take = async (k: Kept): Promise<Card> => {
    const fate = this.next(10);
    if (this.next(4) === 0) await new Promise((go) => setTimeout(go, this.next(3)));
    if (this.down || fate === 0) throw new Problem(0, 'x', 'No answer', 'not sent');
    if (fate === 1) throw new Problem(503, 'x', 'Busy', 'restarts');
    if (fate === 2) throw new Problem(401, 'x', 'Signed out', 'sign in');
    if (!this.keys.has(k.key)) {
      this.keys.add(k.key);
      this.has.push(inWords(k));
    }
    if (fate === 3) throw new Problem(0, 'x', 'No answer', 'the answer was lost');
    return { seq: this.has.length } as Card;
  };
}

describe('what is kept on the tablet', () => {
  afterEach(async () => {
    localStorage.clear();
    await emptied();
  });

  it.each(Array.from({ length: RUNS }, (_, seed) => seed))(
    'reaches the server once and in its order through a bad network, run %i',
    async (seed) => {
      const next = random(seed);
      const server = new Server(next);
      const told = { taken: vi.fn(), changed: vi.fn() };
      let box = new Outbox(JOB, () => me, server.take, told);
      const done: string[] = [];
      for (let i = 0; i < 60; i++) {
        server.down = next(5) === 0 ? !server.down : server.down;
        const words = `entry ${i}`;
        done.push(words);
        await box.add({ entry: { type: 'SIDE_FINDING', words } }, i);
        // made while others are being sent, or after the page was opened anew
        void box.flush();
        if (next(12) === 0) box = new Outbox(JOB, () => me, server.take, told);
      }
      server.down = false;
      for (let i = 0; i < 500 && (await box.list()).length > 0; i++) await box.flush();
      expect(server.has).toEqual(done);
      expect(box.since).toBeUndefined();
    },
  );

  it('stays with what the server said where it was not taken, and lets the next one pass', async () => {
    const server = vi.fn(async (k: Kept): Promise<Card> => {
      if (inWords(k) === 'bad') throw new Problem(422, 'x', 'Refused', 'not so');
      return {} as Card;
    });
    const box = new Outbox(JOB, () => me, server, { taken: vi.fn(), changed: vi.fn() });
    const bad = await box.add({ entry: { type: 'SIDE_FINDING', words: 'bad' } }, 1);
    const good = await box.add({ entry: { type: 'SIDE_FINDING', words: 'good' } }, 1);
    await box.flush();
    expect((await box.list()).map((k) => k.key)).toEqual([bad.key]);
    expect(good.key).not.toBe(bad.key);
    await box.flush();
    expect(server).toHaveBeenCalledTimes(2);
    expect((await box.list())[0]!.refused!.message).toBe('not so');
    await box.remove(bad.key);
    expect(await box.list()).toEqual([]);
  });

  it('is kept in memory and says so where the tablet has no room', async () => {
    vi.spyOn(IDBObjectStore.prototype, 'put').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError');
    });
    const server = new Server(() => 9);
    server.down = true;
    const box = new Outbox(JOB, () => me, server.take, { taken: vi.fn(), changed: vi.fn() });
    await box.add({ entry: tick('parts') }, 1);
    await box.flush();
    expect(box.inMemoryOnly).toBe(true);
    expect(box.since).toBeDefined();
    expect(await box.list()).toHaveLength(1);
    server.down = false;
    await box.flush();
    expect(server.has).toEqual(['done']);
    expect(await box.list()).toEqual([]);
    vi.restoreAllMocks();
  });

  it('tries no refusal again that the tablet cannot write down', async () => {
    const server = vi.fn(async (): Promise<Card> => {
      throw new Problem(422, 'x', 'Refused', 'not so');
    });
    const box = new Outbox(JOB, () => me, server, { taken: vi.fn(), changed: vi.fn() });
    await box.add({ entry: tick('parts') }, 1);
    vi.spyOn(IDBObjectStore.prototype, 'put').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError');
    });
    await box.flush();
    await box.flush();
    expect(server).toHaveBeenCalledTimes(1);
    expect((await box.list()).map((k) => k.refused?.message)).toEqual(['not so']);
    vi.restoreAllMocks();
  });

  it('goes out in the name of who did it and of nobody else', async () => {
    const server = new Server(() => 9);
    server.down = true;
    const box = new Outbox(JOB, () => me, server.take, { taken: vi.fn(), changed: vi.fn() });
    await box.add({ entry: tick('parts') }, 1);
    await box.flush();
    server.down = false;
    me = 'Perran Loy';
    await box.flush();
    expect(server.has).toEqual([]);
    me = 'Hedra Voss';
    await box.flush();
    expect(server.has).toEqual(['done']);
  });

  it('is sent again where no answer comes in time', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout'] });
    const server = vi
      .fn<() => Promise<Card>>()
      .mockReturnValueOnce(new Promise(() => undefined))
      .mockResolvedValue({} as Card);
    const box = new Outbox(JOB, () => me, server, { taken: vi.fn(), changed: vi.fn() });
    await box.add({ entry: tick('parts') }, 1);
    const first = box.flush();
    await vi.waitFor(() => expect(server).toHaveBeenCalledTimes(1));
    vi.advanceTimersByTime(31_000);
    await first;
    expect(box.since).toBeDefined();
    await box.flush();
    expect(await box.list()).toEqual([]);
    vi.useRealTimers();
  });

  it('takes over what an earlier version of the page kept, and nothing that cannot be read', async () => {
    const place = `knollfield-bench-${JOB}`;
    localStorage.setItem(place, JSON.stringify([{ key: 'a', basedOn: 3, entry: tick('parts') }]));
    const box = new Outbox(JOB, () => me, new Server(() => 9).take, {
      taken: vi.fn(),
      changed: vi.fn(),
    });
    await box.takeOver();
    expect((await box.list()).map((k) => [k.key, k.basedOn])).toEqual([['a', 3]]);
    expect(localStorage.length).toBe(0);
    localStorage.setItem(place, 'not JSON');
    await box.takeOver();
    expect(await box.list()).toHaveLength(1);
  });

  it('counts as done for the eye when all of it waits, and not when it was taken back', () => {
    const step = (code: string, more = {}) => ({ code, task: 'TICK', ...more });
    const card = {
      phases: [
        {
          code: 'B13',
          steps: [step('release'), step('strip'), step('seals', { awaitsOwner: true })],
        },
        {
          code: 'B17',
          steps: [
            step('pump', { pattern: { passes: 3, done: 1 } }),
            step('drain'),
            step('gap', { task: 'CHECK', gate: 'FIT_CHECK' }),
            step('fit'),
          ],
        },
      ],
      gates: [{ kind: 'FIT_CHECK', open: false, afterStep: 'gap' }],
    } as unknown as Card;
    const of = (...entries: Entry[]) => [
      ...waitingSteps(
        entries.map((e) => kept(e)),
        card,
      ),
    ];
    expect(of({ type: 'TICK_PHASE', phase: 'B13' })).toEqual(['release', 'strip']);
    const pass: Entry = { type: 'PASS', step: 'pump' };
    expect(of(pass)).toEqual([]);
    expect(of(pass, pass)).toEqual(['pump']);
    expect(of(tick('drain'), { type: 'UNDO', step: 'drain' })).toEqual([]);
    const together: Entry = { type: 'TICK_PHASE', phase: 'B17' };
    expect(of(together)).toEqual(['pump', 'drain']);
    expect(of(together, { type: 'CHECK', step: 'gap', wrong: [] }, together)).toEqual([
      'pump',
      'drain',
      'gap',
      'fit',
    ]);
    expect(
      of({ type: 'CONTINGENCY', step: 'drain', words: 'x', minutes: 3, part: '', partMinor: 0 }),
    ).toEqual([]);
    const refused = kept(tick('drain'), {
      refused: { status: 422, type: '', title: '', message: '', errors: [] },
    });
    expect([...waitingSteps([refused], card)]).toEqual([]);
  });

  it('says itself in words', () => {
    const words = (entry: Entry) => inWords({ doing: { entry } });
    expect(words(tick('parts'))).toBe('done');
    expect(words({ type: 'MEASURE', step: 'drain', value: 5.2 })).toBe('5.2');
    expect(words({ type: 'SIDE_FINDING', words: 'hose chafed' })).toBe('hose chafed');
    const file = new Blob();
    expect(inWords({ doing: { photo: { file, step: 's', caption: 'belt' } } })).toBe(
      'picture belt',
    );
    expect(inWords({ doing: { lines: ['pump'] } })).toBe('added to the job');
  });

  it('never holds back a check-in or a signature, and gives every entry its own key', () => {
    expect(needsServer({ type: 'COMPLETE' })).toBe(true);
    expect(needsServer({ type: 'START' })).toBe(true);
    expect(needsServer({ type: 'TURN', step: 'turn1' })).toBe(false);
    expect(newKey()).not.toBe(newKey());
    vi.stubGlobal('crypto', {});
    expect(newKey()).not.toBe(newKey());
    vi.unstubAllGlobals();
  });

  it.each([
    [0, true],
    [401, true],
    [408, true],
    [409, false],
    [422, false],
    [429, true],
    [500, true],
    [503, true],
  ])('is tried again after an answer of %i: %s', (status, again) => {
    expect(mayPass(new Problem(status, '', '', ''))).toBe(again);
  });
});
