import { numberOf } from './ui/spelling';

/** How figures and dates are written, the same on every screen. */

const whole = new Intl.NumberFormat('en-GB', { maximumFractionDigits: 0 });
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
const time = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' });

/** A calendar day as the server writes it; noon, so that no zone moves it. */
export function dateOf(iso: string): Date {
  return new Date(`${iso.slice(0, 10)}T12:00:00`);
}

export const formatDay = (iso: string) => day.format(dateOf(iso));
export const formatDate = (iso: string) => dayYear.format(dateOf(iso));
export const formatMonth = (iso: string) => monthYear.format(dateOf(iso));
export const formatWeekday = (iso: string) => weekday.format(dateOf(iso));
export const formatTime = (iso: string) => time.format(new Date(iso));
export const formatMoment = (iso: string) =>
  `${day.format(new Date(iso))}, ${time.format(new Date(iso))}`;

export const formatWhole = (n: number) => whole.format(n);
export const formatKm = (km: number) => `${whole.format(Math.round(km))}\u00a0km`;

/** With a capital letter at the start, as at the head of a line. */
export const capital = (s: string) => s.charAt(0).toUpperCase() + s.slice(1);

/** Minutes as hours with one decimal, such as 5.8. */
export const formatHours = (minutes: number) => (minutes / 60).toFixed(1);

/** Digits after the point of a currency's amounts. */
const digitsOf = (currency: string) =>
  new Intl.NumberFormat('en-GB', { style: 'currency', currency }).resolvedOptions()
    .maximumFractionDigits ?? 2;

/** Minor units as a plain amount to be typed over, such as 12.50. */
export const amountOf = (minor: number, currency: string) =>
  (minor / 10 ** digitsOf(currency)).toFixed(digitsOf(currency));

/** A typed amount in minor units; NaN where it is no number; read as every number is. */
export const minorOf = (text: string, currency: string) =>
  text.trim() === ''
    ? 0
    : Math.round(numberOf(text, digitsOf(currency)) * 10 ** digitsOf(currency));

/** Minor units as an amount with its symbol. */
export function formatMoney(minor: number, currency: string): string {
  const format = new Intl.NumberFormat('en-GB', { style: 'currency', currency });
  return format.format(minor / 10 ** (format.resolvedOptions().maximumFractionDigits ?? 2));
}

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
