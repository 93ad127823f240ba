import type { Schemas } from '../api/client';
import { inUnit, kmOf } from '../shared/format';

export type WindowView = Schemas['WindowView'];

/** The picture's box in pixels; the plot lies inside the margins. */
export const BOX = { width: 448, height: 292, left: 40, right: 62, top: 10, bottom: 46 } as const;

export interface XY {
  x: number;
  y: number;
}

export interface Shapes {
  x: (months: number) => number;
  y: (km: number) => number;
  limit?: { x?: number; y?: number };
  other?: { x?: number; y?: number };
  track: XY[];
  trackOff: { at: XY; km: number }[];
  rejected: { at: XY; reason: string; off: boolean }[];
  fan: XY[];
  median: XY[];
  today: XY;
  crossing?: {
    wall: 'DISTANCE' | 'AGE';
    from: XY;
    to: XY;
    median: XY;
    corner?: { from: XY; to: XY };
  };
  monthTicks: number[];
  kmTicks: number[];
}

const MONTH_DAYS = 365.25 / 12;

const monthsSince = (start: string, date: string) =>
  (Date.parse(date.slice(0, 10)) - Date.parse(start.slice(0, 10))) / 86_400_000 / MONTH_DAYS;

/** The calendar day at a place across the picture; the inverse of the scale. */
export function dateAt(w: WindowView, x: number): string {
  const months = ((x - BOX.left) / (BOX.width - BOX.left - BOX.right)) * w.spanMonths;
  const noon = Date.parse(`${w.start.slice(0, 10)}T12:00:00Z`) + months * MONTH_DAYS * 86_400_000;
  return new Date(noon).toISOString().slice(0, 10);
}

/** The 50 % line as far as `date`, for the handle that rides on it. */
export function handleAt(w: WindowView, date: string): { path: XY[]; at: XY; off: boolean } {
  const s = dueWindowShapes(w);
  const months = monthsSince(w.start, date);
  const before = w.fan.filter((b) => b.months < months);
  const after = w.fan.find((b) => b.months >= months);
  const last = before[before.length - 1] ?? w.today;
  const from = 'medianKm' in last ? last.medianKm : last.km;
  const km =
    after && after.months > last.months
      ? from + ((months - last.months) / (after.months - last.months)) * (after.medianKm - from)
      : from;
  const clamp = (v: number, span: number) => Math.min(Math.max(v, 0), span);
  const at = { x: s.x(clamp(months, w.spanMonths)), y: s.y(clamp(km, w.spanKm)) };
  const path = [
    s.today,
    ...before
      .filter((b) => b.medianKm <= w.spanKm && b.months <= w.spanMonths)
      .map((b) => ({ x: s.x(b.months), y: s.y(b.medianKm) })),
    at,
  ];
  return { path, at, off: months > w.spanMonths || km > w.spanKm };
}

/** Round steps that put three or four ticks on an axis. */
export function ticks(span: number, steps: readonly number[]): number[] {
  const step = steps.find((s) => span / s <= 5) ?? steps[steps.length - 1]!;
  return Array.from({ length: Math.floor(span / step) + 1 }, (_, i) => i * step);
}

/** Turns a due window into points and lines; no judgement, only scale. */
export function dueWindowShapes(w: WindowView): Shapes {
  const plotWidth = BOX.width - BOX.left - BOX.right;
  const plotHeight = BOX.height - BOX.top - BOX.bottom;
  const x = (months: number) => BOX.left + (months / w.spanMonths) * plotWidth;
  const y = (km: number) => BOX.top + (1 - km / w.spanKm) * plotHeight;
  const clampX = (months: number) => x(Math.min(Math.max(months, 0), w.spanMonths));
  const clampY = (km: number) => y(Math.min(Math.max(km, 0), w.spanKm));
  const point = (p: { months: number; km: number }): XY => ({
    x: clampX(p.months),
    y: clampY(p.km),
  });
  const corner = (l?: Schemas['LimitView']) =>
    l && {
      x: l.months === undefined ? undefined : x(l.months),
      y: l.km === undefined ? undefined : y(l.km),
    };

  const offScale = (p: { km: number }) => p.km < 0 || p.km > w.spanKm;
  const inside = w.track.filter((p) => !offScale(p));
  const fan = [
    ...w.fan.map((b) => ({ x: clampX(b.months), y: clampY(b.highKm) })),
    ...w.fan
      .slice()
      .reverse()
      .map((b) => ({ x: clampX(b.months), y: clampY(b.lowKm) })),
  ];
  return {
    x,
    y,
    limit: corner(w.limit),
    other: corner(w.other),
    track: inside.map(point),
    trackOff: w.track.filter(offScale).map((p) => ({ at: point(p), km: p.odometerKm })),
    rejected: w.rejected.map((r) => ({
      at: point(r.point),
      reason: r.reason,
      off: offScale(r.point),
    })),
    fan,
    median: w.fan
      .filter((b) => b.medianKm <= w.spanKm)
      .map((b) => ({ x: clampX(b.months), y: clampY(b.medianKm) })),
    today: point(w.today),
    crossing: crossing(w, x, y, clampX, clampY),
    monthTicks: ticks(w.spanMonths, [6, 12, 24, 36, 48, 60, 120]),
    // round figures of the workshop's unit
    kmTicks: ticks(inUnit(w.spanKm), [10_000, 20_000, 30_000, 40_000, 50_000, 60_000, 100_000]).map(
      kmOf,
    ),
  };
}

function crossing(
  w: WindowView,
  x: (m: number) => number,
  y: (km: number) => number,
  clampX: (m: number) => number,
  clampY: (km: number) => number,
): Shapes['crossing'] {
  const c = w.crossing;
  if (!c || !w.limit) return undefined;
  const at = (months: number, pick: 'lowKm' | 'medianKm' | 'highKm') => {
    const after = w.fan.findIndex((b) => b.months >= months);
    const b = w.fan[Math.max(after, 0)];
    const a = w.fan[Math.max(after - 1, 0)];
    if (!a || !b) return w.today.km;
    const share = b.months === a.months ? 0 : (months - a.months) / (b.months - a.months);
    return a[pick] + share * (b[pick] - a[pick]);
  };
  const limitKm = w.limit.km;
  const limitMonths = w.limit.months;
  if (c.wall === 'DISTANCE' && limitKm !== undefined) {
    const top = y(limitKm);
    const from = clampX(monthsSince(w.start, c.from ?? c.median));
    const to = clampX(c.to ? monthsSince(w.start, c.to) : w.spanMonths);
    const corner =
      c.corner && limitMonths !== undefined
        ? {
            from: { x: x(limitMonths), y: top },
            to: { x: x(limitMonths), y: clampY(Math.min(limitKm, at(limitMonths, 'lowKm'))) },
          }
        : undefined;
    return {
      wall: 'DISTANCE',
      from: { x: from, y: top },
      to: { x: Math.max(to, from + 4), y: top },
      median: { x: clampX(monthsSince(w.start, c.median)), y: top },
      corner,
    };
  }
  if (c.wall === 'AGE' && limitMonths !== undefined) {
    const right = x(limitMonths);
    const ceiling = limitKm ?? w.spanKm;
    const passed = w.today.months > limitMonths;
    const middle = passed ? trackAt(w, limitMonths) : at(limitMonths, 'medianKm');
    const low = passed ? middle : at(limitMonths, 'lowKm');
    const high = passed ? middle : at(limitMonths, 'highKm');
    const corner =
      c.corner && c.from && limitKm !== undefined
        ? {
            from: { x: clampX(monthsSince(w.start, c.from)), y: y(limitKm) },
            to: { x: right, y: y(limitKm) },
          }
        : undefined;
    return {
      wall: 'AGE',
      from: { x: right, y: clampY(Math.min(ceiling, high)) - 2 },
      to: { x: right, y: clampY(Math.max(0, low)) + 2 },
      median: { x: right, y: clampY(Math.min(ceiling, middle)) },
      corner,
    };
  }
  return undefined;
}

/** Distance on the track of readings at `months`, in a straight line between neighbours. */
function trackAt(w: WindowView, months: number): number {
  const points = [...w.track, w.today];
  const after = points.findIndex((p) => p.months >= months);
  const b = points[after] ?? w.today;
  const a = points[Math.max(0, after - 1)] ?? b;
  const share = b.months === a.months ? 0 : (months - a.months) / (b.months - a.months);
  return a.km + share * (b.km - a.km);
}
