import { describe, expect, it } from 'vitest';
import { hangsAt, labels, nights, pieces, sideNames, slotAt, xOf } from './boardTracks';

describe('board tracks', () => {
  it('goes from half-hours to pixels and back', () => {
    expect(xOf(16, 16)).toBe(80);
    expect(slotAt(82, 16)).toBe(16);
    expect(slotAt(83, 16)).toBe(17);
    expect(slotAt(-30, 16)).toBe(0);
    for (let s = 0; s < 224; s++) expect(slotAt(xOf(s, 16), 16)).toBe(s);
  });

  it('draws days of any number of half-hours as wide as any other', () => {
    for (const perDay of [6, 17, 24]) {
      expect(xOf(perDay, perDay)).toBe(80);
      for (let s = 0; s < 14 * perDay; s++) expect(slotAt(xOf(s, perDay), perDay)).toBe(s);
    }
    expect(nights({ start: 10, end: 20, holds: [] }, 14, 17)).toEqual([80]);
  });

  it('draws a bar thin where the vehicle only stands', () => {
    const overWeekend = { start: 72, end: 114, holds: [{ from: 80, to: 112 }] };
    expect(pieces(overWeekend, 14, 16)).toEqual([
      { x: 360, width: 40, thin: false },
      { x: 400, width: 160, thin: true },
      { x: 560, width: 10, thin: false },
    ]);
    expect(nights(overWeekend, 14, 16)).toEqual([]);
  });

  it('cuts a bar at both ends of what is shown and marks its nights', () => {
    const bar = { start: -8, end: 24, holds: [] };
    expect(pieces(bar, 14, 16)).toEqual([{ x: 0, width: 120, thin: false }]);
    expect(nights(bar, 14, 16)).toEqual([80]);
    expect(pieces({ start: 10, end: 40, holds: [] }, 1, 16)).toEqual([
      { x: 50, width: 30, thin: false },
    ]);
  });

  it('lays labels so that none overlaps', () => {
    const at = (...starts: number[]) =>
      labels(
        starts.map((start) => ({ start, letters: 6 })),
        16,
      );
    expect(at(0, 32)).toEqual(['both', 'both']);
    // half a day apart: the second goes below, and the first gives up its note
    expect(at(0, 8)).toEqual(['name', 'below']);
    expect(at(0, 8, 16)).toEqual(['name', 'below', 'name']);
    // a day apart a long note has no room beside the next bar's
    expect(
      labels(
        [
          { start: 0, letters: 14 },
          { start: 16, letters: 6 },
        ],
        16,
      ),
    ).toEqual(['name', 'both']);
  });

  it('sets the name of a thin bar where there is room', () => {
    expect(sideNames([{ start: 0, end: 8 }], 14, 16)).toEqual(['after']);
    expect(
      sideNames(
        [
          { start: 32, end: 40 },
          { start: 41, end: 60 },
        ],
        14,
        16,
      ),
    ).toEqual(['before', 'after']);
    expect(
      sideNames(
        [
          { start: 0, end: 8 },
          { start: 9, end: 20 },
        ],
        14,
        16,
      ),
    ).toEqual(['none', 'after']);
    expect(sideNames([{ start: 200, end: 224 }], 14, 16)).toEqual(['before']);
  });

  it('hangs a waiting job at its day', () => {
    const days = ['2026-11-25', '2026-11-26'];
    expect(hangsAt('2026-11-01', days)).toBe('before');
    expect(hangsAt('2026-11-26', days)).toBe(1);
    expect(hangsAt('2027-01-01', days)).toBe('later');
    expect(hangsAt(undefined, days)).toBe('later');
  });
});
