import type { Schemas } from '../api/client';

/** How figures and dates are written, the same on every screen. */

/** How this workshop writes: its unit of distance, what parts its thousands and begins its decimals. */
interface Style {
  unit: 'KM' | 'MILES';
  thousands: string;
  decimals: string;
  /** Digits after the point of its currency's amounts. */
  money?: { currency: string; digits: number };
}

const SIGNS: Record<Schemas['Me']['numbers'], [thousands: string, decimals: string]> = {
  COMMA_POINT: [',', '.'],
  POINT_COMMA: ['.', ','],
  SPACE_COMMA: ['\u00a0', ','],
  APOSTROPHE_POINT: ["'", '.'],
};

let style: Style = { unit: 'KM', thousands: ',', decimals: '.' };

/** A zone this device knows; else its own, as a server may run in one that has no name, such as GMT+02:00. */
function known(zone: string): string | undefined {
  try {
    return new Intl.DateTimeFormat('en-GB', { timeZone: zone }).resolvedOptions().timeZone;
  } catch {
    return undefined;
  }
}

/** Set when the server says who is signed in, before anything is drawn, and whenever Setup changes it. */
export function writeAs(
  me: Pick<Schemas['Me'], 'unit' | 'numbers' | 'zone'> &
    Partial<Pick<Schemas['Me'], 'currency' | 'currencyDigits'>>,
) {
  const [thousands, decimals] = SIGNS[me.numbers];
  style = {
    unit: me.unit,
    thousands,
    decimals,
    money:
      me.currency !== undefined && me.currencyDigits !== undefined
        ? { currency: me.currency, digits: me.currencyDigits }
        : undefined,
  };
  const zone = known(me.zone);
  time = new Intl.DateTimeFormat('en-GB', {
    hour: '2-digit',
    minute: '2-digit',
    timeZone: zone,
  });
  moment = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', timeZone: zone });
}

const signed = (parts: Intl.NumberFormatPart[]) =>
  parts
    .map((p) =>
      p.type === 'group' ? style.thousands : p.type === 'decimal' ? style.decimals : p.value,
    )
    .join('');

/** A figure with at most so many decimals, its thousands parted. */
export const formatNumber = (n: number, decimals = 0) =>
  signed(new Intl.NumberFormat('en-GB', { maximumFractionDigits: decimals }).formatToParts(n));
const day = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short' });
const dayYear = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'short',
  year: 'numeric',
});
const monthYear = new Intl.DateTimeFormat('en-GB', { month: 'short', year: 'numeric' });
const weekday = new Intl.DateTimeFormat('en-GB', {
  weekday: 'short',
  day: 'numeric',
  month: 'short',
});
let time = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' });
let moment = day;

/** A calendar day as the server writes it; noon, so that no zone moves it. */
export function dateOf(iso: string): Date {
  return new Date(`${iso.slice(0, 10)}T12:00:00`);
}

/** Never fails: a day no calendar has, from data of long ago, is written as it came, so that its page still opens. */
const written = (how: Intl.DateTimeFormat, date: Date, iso: string) =>
  Number.isNaN(date.getTime()) ? iso : how.format(date);

export const formatDay = (iso: string) => written(day, dateOf(iso), iso);
export const formatDate = (iso: string) => written(dayYear, dateOf(iso), iso);
export const formatMonth = (iso: string) => written(monthYear, dateOf(iso), iso);
export const formatWeekday = (iso: string) => written(weekday, dateOf(iso), iso);
export const formatTime = (iso: string) => written(time, new Date(iso), iso);
export const formatMoment = (iso: string) =>
  `${written(moment, new Date(iso), iso)}, ${formatTime(iso)}`;

export const formatWhole = (n: number) => formatNumber(Math.round(n));

/** One international mile is exactly 1.609344 km (NIST SP 811, appendix B). */
const MILE = 1.609344;

/** What a distance in km counts in the workshop's unit. */
export const inUnit = (km: number) => (style.unit === 'MILES' ? km / MILE : km);

/** The km of a distance in the workshop's unit, whole. */
export const kmOf = (distance: number) =>
  Math.round(style.unit === 'MILES' ? distance * MILE : distance);

/** The workshop's unit of distance, such as km. */
export const distanceUnit = () => (style.unit === 'MILES' ? 'mi' : 'km');

/** The unit an odometer is taken to count in until somebody says otherwise. */
export const usualUnit = () => style.unit;

export const formatKm = (km: number) => `${formatWhole(inUnit(km))}\u00a0${distanceUnit()}`;

/** With a capital letter at the start, as at the head of a line. */
export const capital = (s: string) => s.charAt(0).toUpperCase() + s.slice(1);

/** Minutes as hours with one decimal, such as 5.8. */
export const formatHours = (minutes: number) => (minutes / 60).toFixed(1);

/** Digits after the point of a currency's amounts: as the server has them, as browsers leave some away. */
export const digitsOf = (currency: string) =>
  style.money?.currency === currency
    ? style.money.digits
    : (new Intl.NumberFormat('en-GB', { style: 'currency', currency }).resolvedOptions()
        .maximumFractionDigits ?? 2);

/** Minor units as an amount with its symbol. */
export function formatMoney(minor: number, currency: string): string {
  const digits = digitsOf(currency);
  const format = new Intl.NumberFormat('en-GB', {
    style: 'currency',
    currency,
    minimumFractionDigits: digits,
    maximumFractionDigits: digits,
  });
  return signed(format.formatToParts(minor / minorPerUnit(currency)));
}

/** Minor units to one of a currency. */
export const minorPerUnit = (currency: string): number => 10 ** digitsOf(currency);

/** The span of two days in words that say no more than needed: "Jan to Apr 2027", "Dec 2026 to Feb 2027". */
export function formatSpan(from: string, to: string): string {
  const a = formatMonth(from);
  const b = formatMonth(to);
  if (a === b) return a;
  return from.slice(0, 4) === to.slice(0, 4) ? `${a.split(' ')[0]} to ${b}` : `${a} to ${b}`;
}

/** A calendar day as the server writes it. */
export const isoOf = (d: Date) =>
  `${d.getFullYear()}-${String(d.getMonth() + 1).padStart(2, '0')}-${String(d.getDate()).padStart(2, '0')}`;

/** The calendar day so many days on. */
export function addDays(iso: string, days: number): string {
  const d = dateOf(iso);
  d.setDate(d.getDate() + days);
  return isoOf(d);
}

/** The calendar day so many months on; the month's last day where it is shorter. */
export function addMonths(iso: string, months: number): string {
  const d = dateOf(iso);
  const day = d.getDate();
  d.setDate(1);
  d.setMonth(d.getMonth() + months);
  d.setDate(Math.min(day, new Date(d.getFullYear(), d.getMonth() + 1, 0).getDate()));
  return isoOf(d);
}

/** Whole days from one calendar day to another. */
export const daysBetween = (from: string, to: string) =>
  Math.round((dateOf(to).getTime() - dateOf(from).getTime()) / 86_400_000);

/** Such as "1 vehicle" and "1,204 vehicles". */
export const vehicleCount = (count: number) =>
  `${formatNumber(count)} ${count === 1 ? 'vehicle' : 'vehicles'}`;
