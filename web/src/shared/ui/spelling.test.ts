import { describe, expect, it } from 'vitest';
import { readDate, readNumber } from './spelling';
import spellings from './spellings.json';

interface Case<T> {
  text: string;
  decimals?: number;
  is?: T;
  ask?: T[];
  not?: boolean;
}

describe('numbers as people type them', () => {
  // Common practice, no source: the spellings are those of the garages' own lists; the same file is read by the import.
  it.each(spellings.numbers as Case<number>[])('reads “$text”', ({ text, decimals, is, ask }) => {
    const read = readNumber(text, decimals);
    if (is !== undefined) expect(read).toMatchObject({ kind: 'is', value: is });
    else if (ask) expect(read).toEqual({ kind: 'ask', values: ask });
    else expect(read.kind).toBe('not');
  });

  it('hands on the unit that was typed', () => {
    expect(readNumber('64 785 mi')).toMatchObject({ value: 64785, unit: 'mi' });
    expect(readNumber('5 years')).toMatchObject({ value: 5, unit: 'years' });
    expect(readNumber('  ')).toEqual({ kind: 'empty' });
  });
});

describe('dates as people type them', () => {
  it.each(spellings.dates as Case<string>[])('reads “$text”', ({ text, is, ask }) => {
    const read = readDate(text, '2026-11-28');
    if (is !== undefined) expect(read).toEqual({ kind: 'is', value: is });
    else if (ask) expect(read).toEqual({ kind: 'ask', values: ask });
    else expect(read.kind).toBe('not');
  });

  it('takes this year where none is typed', () => {
    expect(readDate('3.4.', '2026-11-28')).toEqual({ kind: 'is', value: '2026-04-03' });
    expect(readDate('3 Apr', '2026-11-28')).toEqual({ kind: 'is', value: '2026-04-03' });
    expect(readDate('today', '2026-11-28')).toEqual({ kind: 'is', value: '2026-11-28' });
  });
});
