import { describe, expect, it } from 'vitest';
import { formatHours, formatKm, formatMoney, formatSpan } from './format';

describe('figures', () => {
  it('carry their units', () => {
    expect(formatKm(137_999.6)).toBe('138,000\u00a0km');
    expect(formatHours(348)).toBe('5.8');
    expect(formatMoney(3_800, 'EUR')).toBe('€38.00');
    expect(formatMoney(3_800, 'JPY')).toBe('JP¥3,800');
  });

  it.each([
    ['2027-01-10', '2027-04-02', 'Jan to Apr 2027'],
    ['2026-12-10', '2027-02-02', 'Dec 2026 to Feb 2027'],
    ['2027-01-10', '2027-01-20', 'Jan 2027'],
  ])('span %s to %s reads %s', (from, to, words) => {
    expect(formatSpan(from, to)).toBe(words);
  });
});
