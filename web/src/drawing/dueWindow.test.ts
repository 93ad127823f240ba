import { describe, expect, it } from 'vitest';
import { dueWindow } from '../test/fixtures';
import { BOX, dateAt, dueWindowShapes, handleAt, ticks, type WindowView } from './dueWindow';

const view: WindowView = {
  ...dueWindow,
  track: [...dueWindow.track, { date: '2026-11-26', months: 54, km: 200_000, odometerKm: 240_000 }],
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

describe('the what-if handle', () => {
  const shapes = dueWindowShapes(view);

  it.each(['2026-11-25', '2027-03-14', '2028-02-29', '2029-05-01'])(
    'is dragged to the day it stands on, %s',
    (day) => {
      expect(dateAt(view, handleAt(view, day).at.x)).toBe(day);
    },
  );

  it('rides the 50 % line from today on', () => {
    const h = handleAt(view, '2028-05-25');
    expect(h.path[0]).toEqual(shapes.today);
    expect(h.at.x).toBeCloseTo(shapes.x(72), 0);
    // half way between 98,000 km at 54 months and 158,000 km at 90
    expect(h.at.y).toBeCloseTo(shapes.y(128_000), 0);
    expect(h.off).toBe(false);
  });

  it('stays at the edge beyond the picture and says so', () => {
    const h = handleAt(view, '2035-01-01');
    expect(h.at.x).toBeCloseTo(BOX.width - BOX.right);
    expect(h.off).toBe(true);
  });
});
