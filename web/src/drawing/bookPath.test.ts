import { expect, it } from 'vitest';
import { freeRuns, lengthOf, loopPoints, teethOf } from './bookPath';

const two = [
  { x: 0, y: 0, radiusMm: 30, outside: false },
  { x: 0, y: 200, radiusMm: 30, outside: false },
];

it.each([true, false])('is as long as two runs and two half circles, clockwise %s', (clockwise) => {
  // Common practice, no source: 2 · 200 + 2π · 30, worked by hand
  expect(lengthOf(loopPoints(two, clockwise, 0.2))).toBeCloseTo(400 + 2 * Math.PI * 30, 1);
  const runs = freeRuns(two, clockwise);
  expect(Math.abs(runs[0]!.line[0].x)).toBeCloseTo(30);
  expect(runs[0]!.line[0].x).toBeCloseTo(-runs[1]!.line[0].x);
});

it('passes a wheel at the back of the belt on its other side', () => {
  const three = [...two, { x: 40, y: 100, radiusMm: 20, outside: true }];
  const points = loopPoints(three, true, 1);
  // the loop stays left of the wheel that presses on it from the right
  const near = points.filter((p) => Math.abs(p.y - 100) < 1 && p.x > 0);
  expect(Math.max(...near.map((p) => p.x))).toBeLessThanOrEqual(20.05);
});

it.each([true, false])(
  'sets every tooth, evenly and on the inner side, clockwise %s',
  (clockwise) => {
    const points = loopPoints(two, clockwise, 0.5);
    const teeth = teethOf(points, 61, clockwise);
    expect(teeth).toHaveLength(61);
    const pitch = lengthOf(points) / 61;
    const gap = Math.hypot(teeth[1]!.x - teeth[0]!.x, teeth[1]!.y - teeth[0]!.y);
    expect(gap).toBeGreaterThan(0.9 * pitch);
    expect(gap).toBeLessThanOrEqual(pitch + 0.001);
    for (const t of teeth) {
      const inward = { x: t.x + 5 * t.nx, y: t.y + 5 * t.ny };
      const middle = Math.min(Math.max(t.y, 0), 200);
      expect(Math.hypot(inward.x, inward.y - middle)).toBeLessThan(
        Math.hypot(t.x, t.y - middle) + 0.001,
      );
    }
  },
);
