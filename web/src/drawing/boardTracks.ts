/** Where things stand on the board's ruler: from half-hours to pixels, and which label goes where. */

export const LABEL = 128;
export const DAY = 80;

/** Width of a half-hour, px, on a board whose days have `perDay` of them. */
export const slotWidth = (perDay: number) => DAY / perDay;

/** Left edge of a half-hour within the tracks, px. */
export const xOf = (slot: number, perDay: number) => slot * slotWidth(perDay);

/** The half-hour at `x` px from the first day's left edge; the nearest, and never before the first. */
export const slotAt = (x: number, perDay: number) => Math.max(0, Math.round(x / slotWidth(perDay)));

export interface Bar {
  start: number;
  end: number;
  holds: { from: number; to: number }[];
}

/**
 * The pieces of a bar, px from the first day: `thick` where somebody works, `thin` where the vehicle only stands; cut at
 * both ends of what is shown.
 */
export function pieces(bar: Bar, days: number, perDay: number) {
  const last = days * perDay;
  const start = Math.max(0, bar.start);
  const end = Math.min(last, bar.end);
  const out: { x: number; width: number; thin: boolean }[] = [];
  let at = start;
  const add = (to: number, thin: boolean) => {
    if (to > at) out.push({ x: xOf(at, perDay), width: xOf(to, perDay) - xOf(at, perDay), thin });
    at = Math.max(at, to);
  };
  for (const hold of bar.holds) {
    add(Math.min(end, hold.from), false);
    add(Math.min(end, hold.to), true);
  }
  add(end, false);
  return out;
}

/** The nights a bar runs over, px from the first day: where its working days meet. */
export function nights(bar: Bar, days: number, perDay: number): number[] {
  const out: number[] = [];
  for (let day = 1; day < days; day++) {
    const slot = day * perDay;
    const held = bar.holds.some((h) => h.from <= slot && slot <= h.to);
    if (bar.start < slot && slot < bar.end && !held) out.push(xOf(slot, perDay));
  }
  return out;
}

/** Width of a registration, px. */
const NAME = 76;

/** Width of so many letters under a bar with its mark, px. */
export const noteWidth = (letters: number) => 14 + letters * 6.3;

export type Label = 'both' | 'below' | 'name';

/**
 * How the labels of one track are laid so that none overlaps: the name above and the note below; where the name has no
 * room above it goes below in place of the note; where the note has none it is left out, as the name counts more.
 *
 * @param bars in the order of their starts, with the letters of their notes
 */
export function labels(bars: { start: number; letters: number }[], perDay: number): Label[] {
  const out: Label[] = [];
  let above = -Infinity;
  let below = -Infinity;
  bars.forEach((bar, i) => {
    const x = xOf(Math.max(0, bar.start), perDay);
    if (x < below && out[i - 1] === 'both') {
      // the note before would run into this bar's labels
      out[i - 1] = 'name';
      below = -Infinity;
    }
    if (x >= above) {
      out.push(x >= below ? 'both' : 'name');
      above = x + NAME;
      if (x >= below) below = x + noteWidth(bar.letters);
    } else {
      out.push('below');
      below = x + NAME;
    }
  });
  return out;
}

/** Where the names of a thin track have room: after the bar, before it, or nowhere. */
export function sideNames(
  bars: { start: number; end: number }[],
  days: number,
  perDay: number,
): ('after' | 'before' | 'none')[] {
  const last = xOf(days * perDay, perDay);
  let taken = 0;
  return bars.map((bar, i) => {
    const next = bars[i + 1];
    const end = xOf(bar.end, perDay);
    if (end + NAME <= Math.min(last, next ? xOf(next.start, perDay) : last)) {
      taken = end + NAME;
      return 'after';
    }
    const before = xOf(bar.start, perDay) - NAME >= taken;
    taken = end;
    return before ? 'before' : 'none';
  });
}

/** Days a waiting job hangs under: before the first day shown, one of them, or later. */
export function hangsAt(actBy: string | undefined, days: string[]): number | 'before' | 'later' {
  if (actBy === undefined) return 'later';
  if (days[0] !== undefined && actBy < days[0]) return 'before';
  const i = days.indexOf(actBy);
  return i >= 0 ? i : 'later';
}
