import { describe, expect, it } from 'vitest';
import { mondayOf, plusDays } from './Booking';

describe('week', () => {
  it.each([
    ['2026-11-25', '2026-11-23'],
    ['2026-11-29', '2026-11-23'],
    ['2026-11-30', '2026-11-30'],
    ['2027-01-01', '2026-12-28'],
  ])('of %s begins on Monday %s', (day, monday) => {
    expect(mondayOf(day)).toBe(monday);
  });

  it('moves across months and years', () => {
    expect(plusDays('2026-12-28', 7)).toBe('2027-01-04');
    expect(plusDays('2028-02-28', 1)).toBe('2028-02-29');
  });
});
