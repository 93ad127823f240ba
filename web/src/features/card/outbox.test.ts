import { afterEach, describe, expect, it, vi } from 'vitest';
import { inWords, keep, keptFor, needsServer, newKey, waitingSteps, type Kept } from './outbox';

const kept = (key: string, entry: Kept['entry']): Kept => ({ key, basedOn: 3, at: '', entry });

describe('what is kept on the tablet', () => {
  afterEach(() => localStorage.clear());

  it('stays in its order, job by job, and leaves nothing when it has gone', () => {
    const list = [
      kept('a', { type: 'TICK', step: 'parts' }),
      kept('b', { type: 'MEASURE', step: 'drain', value: 5.2 }),
    ];
    keep(7, list);
    expect(keptFor(7)).toEqual(list);
    expect(keptFor(8)).toEqual([]);
    keep(7, []);
    expect(localStorage.length).toBe(0);
  });

  it('is nothing where the store holds something else', () => {
    localStorage.setItem('knollfield-bench-7', 'not JSON');
    expect(keptFor(7)).toEqual([]);
  });

  it('knows its steps and says itself in words', () => {
    const list = [
      kept('a', { type: 'TICK', step: 'parts' }),
      kept('b', { type: 'MEASURE', step: 'drain', value: 5.2 }),
      kept('c', { type: 'SIDE_FINDING', words: 'hose chafed' }),
    ];
    const plain = kept('d', { type: 'TICK_PHASE', phase: 'B13' });
    expect([...waitingSteps([...list, plain], () => ['release', 'strip'])]).toEqual([
      'parts',
      'drain',
      'release',
      'strip',
    ]);
    expect(list.map(inWords)).toEqual(['done', '5.2', 'hose chafed']);
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
});
