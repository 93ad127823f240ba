import { expect, it } from 'vitest';
import { amountNear, roundAmount, sheetOf, type Choice } from './frontier';

const line: Choice[] = [
  { amount: 0, cost: 1_000, breakdowns: 4 },
  { amount: 10_000, cost: 1_500, breakdowns: 2 },
  { amount: 20_000, cost: 2_500, breakdowns: 1 },
];

it('lays every choice on the sheet, breakdowns from zero', () => {
  const sheet = sheetOf(line, 400, 200);
  for (const c of line) {
    const spot = sheet.at(c.cost, c.breakdowns);
    expect(spot.x).toBeGreaterThanOrEqual(0);
    expect(spot.x).toBeLessThanOrEqual(400);
    expect(spot.y).toBeGreaterThanOrEqual(0);
    expect(spot.y).toBeLessThanOrEqual(200);
  }
  expect(sheet.at(1_000, 0).y).toBe(200);
  expect(sheet.breakdowns[0]).toBe(0);
  expect(sheet.costs).toEqual([1_000, 1_500, 2_000, 2_500]);
});

it('finds the amount at the nearest place of the line', () => {
  const sheet = sheetOf(line, 400, 200);
  const half = sheet.at(1_250, 3);
  expect(amountNear(line, sheet, half)).toBeCloseTo(5_000, 0);
  // off the line: the foot of it
  expect(amountNear(line, sheet, { x: -50, y: -50 })).toBe(0);
  expect(amountNear(line, sheet, { x: 900, y: 400 })).toBe(20_000);
});

it('draws one choice alone, and nothing that breaks down', () => {
  const sheet = sheetOf([{ cost: 500, breakdowns: 0 }], 400, 200);
  const spot = sheet.at(500, 0);
  expect(Number.isFinite(spot.x) && Number.isFinite(spot.y)).toBe(true);
});

it.each([
  [0, 0],
  [9_871, 9_900],
  [12_345, 12_000],
  [7, 7],
])('rounds %d to %d', (amount, round) => expect(roundAmount(amount)).toBe(round));
