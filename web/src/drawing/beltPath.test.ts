import { describe, expect, it } from 'vitest';
import { tangent } from './beltPath';

const wheel = (x: number, y: number, radiusMm: number, outside = false) => ({
  x,
  y,
  radiusMm,
  outside,
});

describe('belt loop', () => {
  it('runs along the top from left to right when it turns clockwise', () => {
    expect(tangent(wheel(0, 0, 10), wheel(100, 0, 10), 1)).toEqual({
      from: { x: expect.closeTo(0), y: expect.closeTo(10) },
      to: { x: expect.closeTo(100), y: expect.closeTo(10) },
    });
  });

  it.each([
    [wheel(0, 0, 30), wheel(100, 40, 60)],
    [wheel(0, 0, 30), wheel(20, 120, 25, true)],
    [wheel(-50, 0, 25, true), wheel(90, -30, 40)],
  ])('touches each wheel at a right angle', (a, b) => {
    const t = tangent(a, b, 1);
    const run = { x: t.to.x - t.from.x, y: t.to.y - t.from.y };
    for (const [at, w] of [
      [t.from, a],
      [t.to, b],
    ] as const) {
      expect(Math.hypot(at.x - w.x, at.y - w.y)).toBeCloseTo(w.radiusMm);
      expect((at.x - w.x) * run.x + (at.y - w.y) * run.y).toBeCloseTo(0);
    }
  });
});
