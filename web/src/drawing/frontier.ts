/** A policy as a point: what a year of it costs, and how much breaks down in it. */
export interface Choice {
  amount: number;
  cost: number;
  breakdowns: number;
}

export interface Spot {
  x: number;
  y: number;
}

/** Where on the sheet a cost and a number of breakdowns lie. */
export interface Sheet {
  at(cost: number, breakdowns: number): Spot;
  costs: number[];
  breakdowns: number[];
}

/** Round figures that span `from` to `to`, about `count` of them. */
function ticks(from: number, to: number, count: number): number[] {
  const span = Math.max(to - from, 1e-9);
  const rough = span / count;
  const power = 10 ** Math.floor(Math.log10(rough));
  const step = [1, 2, 5, 10].map((m) => m * power).find((s) => s >= rough) ?? rough;
  const first = Math.floor(from / step);
  const last = Math.ceil(to / step);
  return Array.from({ length: last - first + 1 }, (_, i) => (first + i) * step);
}

/** A sheet of `width` by `height` on which all of `shown` lie; breakdowns from zero. */
export function sheetOf(shown: Omit<Choice, 'amount'>[], width: number, height: number): Sheet {
  const costs = shown.map((c) => c.cost);
  const x = ticks(Math.min(...costs), Math.max(...costs), 4);
  const y = ticks(0, Math.max(...shown.map((c) => c.breakdowns)), 4);
  const [left, right] = [x[0] ?? 0, x.at(-1) ?? 1];
  const top = y.at(-1) ?? 1;
  return {
    at: (cost, breakdowns) => ({
      x: ((cost - left) / (right - left || 1)) * width,
      y: height - (breakdowns / (top || 1)) * height,
    }),
    costs: x,
    breakdowns: y,
  };
}

/** The amount at the place of the line nearest to `spot`; between two points it goes in proportion. */
export function amountNear(line: Choice[], sheet: Sheet, spot: Spot): number {
  let best = Infinity;
  let amount = line[0]?.amount ?? 0;
  for (let i = 1; i < line.length; i++) {
    const [from, to] = [line[i - 1], line[i]];
    if (!from || !to) continue;
    const a = sheet.at(from.cost, from.breakdowns);
    const b = sheet.at(to.cost, to.breakdowns);
    const length = (b.x - a.x) ** 2 + (b.y - a.y) ** 2;
    const along =
      length === 0 ? 0 : ((spot.x - a.x) * (b.x - a.x) + (spot.y - a.y) * (b.y - a.y)) / length;
    const share = Math.min(1, Math.max(0, along));
    const away =
      (spot.x - a.x - share * (b.x - a.x)) ** 2 + (spot.y - a.y - share * (b.y - a.y)) ** 2;
    if (away < best) {
      best = away;
      amount = from.amount + share * (to.amount - from.amount);
    }
  }
  return amount;
}

/** A round amount near `amount`: two figures that count. */
export function roundAmount(amount: number): number {
  if (amount <= 0) return 0;
  const step = 10 ** Math.max(0, Math.floor(Math.log10(amount)) - 1);
  return Math.round(amount / step) * step;
}
