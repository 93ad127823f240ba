import { describe, expect, it } from 'vitest';
import { BOX, dueWindowShapes, ticks, type WindowView } from './dueWindow';

const view: WindowView = {
  item: 'Timing belt',
  start: '2022-05-25',
  startKm: 40_000,
  known: true,
  severe: false,
  limit: { km: 120_000, months: 72 },
  other: { km: 70_000, months: 60 },
  spanMonths: 90,
  spanKm: 150_000,
  track: [
    { date: '2022-05-25', months: 0, km: 0, odometerKm: 40_000 },
    { date: '2026-11-25', months: 54, km: 98_000, odometerKm: 138_000 },
    { date: '2026-11-26', months: 54, km: 200_000, odometerKm: 240_000 },
  ],
  rejected: [],
  fan: [
    { date: '2026-11-25', months: 54, lowKm: 98_000, medianKm: 98_000, highKm: 98_000 },
    { date: '2029-11-25', months: 90, lowKm: 140_000, medianKm: 158_000, highKm: 176_000 },
  ],
  today: { date: '2026-11-25', months: 54, km: 98_000, odometerKm: 138_000 },
  crossing: {
    wall: 'DISTANCE',
    from: '2027-10-01',
    median: '2027-12-31',
    to: '2028-04-01',
    corner: false,
  },
};

describe('due window', () => {
  const shapes = dueWindowShapes(view);

  it('begins at the lower left corner and keeps the limits inside', () => {
    expect(shapes.track[0]).toEqual({ x: BOX.left, y: BOX.height - BOX.bottom });
    expect(shapes.limit!.x).toBeCloseTo(BOX.left + 0.8 * (BOX.width - BOX.left - BOX.right));
    expect(shapes.limit!.y).toBeLessThan(shapes.other!.y!);
  });

  it('turns a reading beyond the scale into an edge tick with its value', () => {
    expect(shapes.track).toHaveLength(2);
    expect(shapes.trackOff).toEqual([{ at: { x: shapes.today.x, y: BOX.top }, km: 240_000 }]);
  });

  it('lays the crossing on the wall it crosses', () => {
    const c = shapes.crossing!;
    expect(c.wall).toBe('DISTANCE');
    expect(c.from.y).toBe(shapes.limit!.y);
    expect(c.from.x).toBeLessThan(c.median.x);
    expect(c.median.x).toBeLessThan(c.to.x);
  });

  it('puts an age crossing on the right wall', () => {
    const c = dueWindowShapes({
      ...view,
      crossing: { wall: 'AGE', median: '2028-05-25', to: '2028-05-25', corner: false },
    }).crossing!;
    expect(c.median.x).toBe(shapes.limit!.x);
    expect(c.from.y).toBeLessThan(c.to.y);
  });

  it('chooses round ticks', () => {
    expect(ticks(90, [6, 12, 24, 36])).toEqual([0, 24, 48, 72]);
    expect(ticks(150_000, [10_000, 20_000, 30_000])).toHaveLength(6);
  });
});
