import { describe, expect, it } from 'vitest';
import {
  addDays,
  addMonths,
  daysBetween,
  formatDate,
  formatHours,
  formatKm,
  formatMoment,
  formatMoney,
  formatSpan,
  writeAs,
} from './format';
import { amountOf, minorOf } from './money';

describe('figures', () => {
  it('carry their units', () => {
    expect(formatKm(137_999.6)).toBe('138,000\u00a0km');
    expect(formatHours(348)).toBe('5.8');
    expect(formatMoney(3_800, 'EUR')).toBe('€38.00');
    expect(formatMoney(3_800, 'JPY')).toBe('JP¥3,800');
    // Source: ISO 4217, minor units: IQD three, which browsers leave away
    writeAs({
      unit: 'KM',
      numbers: 'COMMA_POINT',
      zone: 'UTC',
      currency: 'IQD',
      currencyDigits: 3,
    });
    expect(formatMoney(3_800, 'IQD').replace('\u00a0', ' ')).toBe('IQD 3.800');
    expect(minorOf('3.8', 'IQD')).toBe(3_800);
    writeAs({ unit: 'KM', numbers: 'COMMA_POINT', zone: 'UTC' });
  });

  it('are typed as amounts and kept in minor units', () => {
    expect(amountOf(1_250, 'EUR')).toBe('12.50');
    expect(minorOf(' 12,5 ', 'EUR')).toBe(1_250);
    expect(minorOf('38', 'JPY')).toBe(38);
    expect(minorOf('a lot', 'EUR')).toBeNaN();
  });

  it.each([
    ['2027-01-10', '2027-04-02', 'Jan to Apr 2027'],
    ['2026-12-10', '2027-02-02', 'Dec 2026 to Feb 2027'],
    ['2027-01-10', '2027-01-20', 'Jan 2027'],
  ])('span %s to %s reads %s', (from, to, words) => {
    expect(formatSpan(from, to)).toBe(words);
  });
});

describe('calendar days', () => {
  it('that no calendar has are written as they came', () => {
    expect(formatDate('+999999999-12-31')).toBe('+999999999-12-31');
    expect(formatMoment('nonsense')).toBe('nonsense, nonsense');
  });

  it('move by days and months without a zone in the way', () => {
    expect(addDays('2026-03-28', 2)).toBe('2026-03-30');
    expect(addDays('2026-01-03', -7)).toBe('2025-12-27');
    expect(addMonths('2027-01-31', 1)).toBe('2027-02-28');
    expect(addMonths('2028-01-31', 1)).toBe('2028-02-29');
    expect(addMonths('2026-03-15', -3)).toBe('2025-12-15');
    expect(daysBetween('2026-11-25', '2027-11-25')).toBe(365);
    expect(daysBetween('2026-03-28', '2026-03-30')).toBe(2);
  });
});
