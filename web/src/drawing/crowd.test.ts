import { describe, expect, it } from 'vitest';
import type { Schemas } from '../api/client';
import {
  alongWall,
  closest,
  contoursOf,
  CROWD,
  crowdX,
  crowdY,
  grainOf,
  marksOf,
  shareX,
  shareY,
} from './crowd';

type View = Schemas['AheadView'];

/** Marks as `[age, distance, crossing]`, in shares of the limits. */
function view(marks: [number, number, number][], more: Partial<View> = {}): View {
  const column = (pick: (m: [number, number, number]) => number) => marks.map(pick);
  return {
    today: '2026-11-25',
    date: '2027-02-23',
    vehicles: marks.length,
    without: 0,
    past: 0,
    atDistance: 0,
    atAge: 0,
    minutes: 0,
    moneyMinor: 0,
    words: [],
    marks: {
      vehicleId: marks.map((_, i) => i + 1),
      registration: marks.map((_, i) => `SKR ${i}`),
      age: column((m) => Math.round(1000 * m[0])),
      distance: column((m) => Math.round(1000 * m[1])),
      ageToday: column(() => 0),
      distanceToday: column(() => 0),
      interference: column(() => 1),
      crossing: column((m) => m[2]),
      wall: column((m) => (m[1] >= m[0] ? 0 : 1)),
    },
    ...more,
  };
}

describe('the crowd', () => {
  it('stands where its shares say, and beyond the window at its edge', () => {
    const [a, b] = marksOf(
      view([
        [1, 0.5, 0],
        [3, 0, 2],
      ]),
    );
    expect(shareX(a!.x)).toBeCloseTo(1);
    expect(shareY(a!.y)).toBeCloseTo(0.5);
    expect(b!.x).toBe(CROWD.width - CROWD.right);
    expect(b!.y).toBe(CROWD.height - CROWD.bottom);
  });

  it('counts those that cross along the wall they cross, and nobody else', () => {
    const marks = marksOf(
      view([
        [0.55, 1.02, 1],
        [0.58, 1.1, 1],
        [1.05, 0.31, 1],
        [0.5, 1.2, 2],
        [0.2, 0.2, 0],
      ]),
    );
    expect(alongWall(marks, 'DISTANCE')).toEqual([0, 0, 0, 0, 0, 2, 0, 0, 0, 0]);
    expect(alongWall(marks, 'AGE')).toEqual([0, 0, 0, 1, 0, 0, 0, 0, 0, 0]);
  });

  it('is drawn finer or coarser by its size', () => {
    const many = Array.from({ length: 1501 }, (): [number, number, number] => [0.5, 0.5, 0]);
    expect(grainOf(view(many.slice(1)))).toBe('tails');
    expect(grainOf(view(many))).toBe('marks');
    expect(grainOf(view([], { density: { cells: 2, reach: 1.25, counts: [0, 0, 0, 9] } }))).toBe(
      'density',
    );
  });

  it('has its contours where the vehicles are', () => {
    const cells = 50;
    const counts = Array.from({ length: cells * cells }, () => 0);
    counts[30 * cells + 10] = 400;
    const innermost = contoursOf({ cells, reach: 1.25, counts }).at(-1)!;
    const ring = innermost.coordinates[0]![0]!;
    const x = ring.reduce((sum, p) => sum + p[0]!, 0) / ring.length;
    const y = ring.reduce((sum, p) => sum + p[1]!, 0) / ring.length;
    expect(Math.abs(x - crowdX((10.5 / 50) * 1.25))).toBeLessThan(4);
    expect(Math.abs(y - crowdY((30.5 / 50) * 1.25))).toBeLessThan(4);
  });

  it('answers which mark is closest, within reach', () => {
    const marks = marksOf(
      view([
        [0.5, 0.5, 0],
        [0.52, 0.5, 0],
      ]),
    );
    expect(closest(marks, crowdX(0.519), crowdY(0.5), 9)!.id).toBe(2);
    expect(closest(marks, crowdX(0.8), crowdY(0.5), 9)).toBeUndefined();
  });
});
