/** Numbers and dates as people type them: understood, asked about, or refused, never guessed in silence. */

export type Understood<T> =
  | { kind: 'empty' }
  | { kind: 'is'; value: T; unit?: string }
  /** it can be read in two ways */
  | { kind: 'ask'; values: [T, T] }
  | { kind: 'not'; words: string };

const SPACES = /[\s\u00a0\u2009\u202f'’_]/g;

/** Words that may stand round a number, and the unit each says. */
const UNITS: Record<string, string> = {
  km: 'km',
  kms: 'km',
  kilometres: 'km',
  kilometers: 'km',
  mi: 'mi',
  miles: 'mi',
  mile: 'mi',
  '€': 'money',
  eur: 'money',
  $: 'money',
  usd: 'money',
  '£': 'money',
  gbp: 'money',
  chf: 'money',
  nok: 'money',
  sek: 'money',
  dkk: 'money',
  kr: 'money',
  nm: 'N·m',
  'n·m': 'N·m',
  'n.m': 'N·m',
  l: 'l',
  litre: 'l',
  litres: 'l',
  min: 'min',
  minutes: 'min',
  h: 'h',
  hours: 'h',
  hour: 'h',
  '%': '%',
  '°': '°',
  mm: 'mm',
  months: 'months',
  month: 'months',
  years: 'years',
  year: 'years',
  hz: 'Hz',
  days: 'days',
  day: 'days',
};

/**
 * The number that `text` says. Point and comma both stand before decimals or between thousands: where only one of them
 * stands and three digits follow, it parts thousands in a field of fewer decimals, and is asked about in one of more.
 */
export function readNumber(text: string, decimals = 0): Understood<number> {
  if (text.trim() === '') return { kind: 'empty' };
  let rest = text.trim().toLowerCase();
  let unit: string | undefined;
  const around = /^([^\d+\-.,]*)(.*?)([^\d.,]*)$/su.exec(rest);
  if (!around) return notNumber(text);
  for (const word of [around[1]!, around[3]!]) {
    const bare = word.replace(SPACES, '');
    if (bare === '') continue;
    const per = bare.replace(/(\/|per|an?)(h|hour|year|y)$/, '');
    const known = UNITS[bare] ?? UNITS[per];
    if (!known) return notNumber(text);
    unit = known;
  }
  rest = around[2]!.replace(SPACES, '');
  const sign = /^[+-]/.exec(rest)?.[0] === '-' ? -1 : 1;
  rest = rest.replace(/^[+-]/, '');
  if (!/^[\d.,]*\d[\d.,]*$/.test(rest)) return notNumber(text);
  const is = (plain: string): Understood<number> => {
    const value = sign * Number(plain);
    const digits = plain.split('.')[1]?.replace(/0+$/, '').length ?? 0;
    if (digits > decimals)
      return {
        kind: 'not',
        words:
          decimals === 0
            ? `“${text.trim()}” is not a whole number.`
            : `“${text.trim()}” has more than ${decimals} decimals.`,
      };
    return { kind: 'is', value, unit };
  };
  const marks = [...rest].filter((c) => c === '.' || c === ',');
  if (marks.length === 0) return is(rest);
  const last = marks.at(-1)!;
  const other = last === '.' ? ',' : '.';
  const grouped = (whole: string, mark: string) =>
    new RegExp(`^\\d{1,3}(\\${mark}\\d{3})+$`).test(whole) && !whole.startsWith('0');
  if (marks.includes(other)) {
    const [whole, fraction, ...more] = rest.split(last);
    return more.length === 0 && grouped(whole!, other) && fraction !== ''
      ? is(`${whole!.replaceAll(other, '')}.${fraction}`)
      : notNumber(text);
  }
  if (marks.length > 1)
    return grouped(rest, last) ? is(rest.replaceAll(last, '')) : notNumber(text);
  const [before, after] = rest.split(last) as [string, string];
  if (after === '') return notNumber(text);
  if (grouped(rest, last)) {
    const thousands = Number(before + after) * sign;
    return decimals >= 3
      ? { kind: 'ask', values: [Number(`${before}.${after}`) * sign, thousands] }
      : { kind: 'is', value: thousands, unit };
  }
  return is(`${before || '0'}.${after}`);
}

/** The plain number that `text` says; NaN where it says none, or could say two. */
export function numberOf(text: string, decimals = 0): number {
  const read = readNumber(text, decimals);
  return read.kind === 'is' ? read.value : Number.NaN;
}

const notNumber = (text: string) =>
  ({ kind: 'not', words: `“${text.trim()}” is not a number.` }) as const;

const MONTHS = [
  'january',
  'february',
  'march',
  'april',
  'may',
  'june',
  'july',
  'august',
  'september',
  'october',
  'november',
  'december',
];

const month = (word: string) =>
  word.length >= 3 ? MONTHS.findIndex((m) => m.startsWith(word.replace(/\.$/, ''))) + 1 : 0;

/** Two digits of a year are of this century up to ten years from now, else of the one before. */
function fullYear(digits: string, today: string): number {
  const year = Number(digits);
  if (digits.length === 4) return year;
  const now = Number(today.slice(0, 4));
  const here = now - (now % 100) + year;
  return here > now + 10 ? here - 100 : here;
}

function iso(year: number, monthOfYear: number, day: number): string | undefined {
  if (monthOfYear < 1 || monthOfYear > 12 || day < 1 || year < 1900 || year > 2199) return;
  const d = new Date(Date.UTC(year, monthOfYear - 1, day));
  return d.getUTCMonth() === monthOfYear - 1 ? d.toISOString().slice(0, 10) : undefined;
}

/**
 * The day that `text` says. With points the day stands first; with strokes or dashes it is asked where both could be
 * the month.
 */
export function readDate(text: string, today: string): Understood<string> {
  const t = text.trim().toLowerCase().replace(/\s+/g, ' ');
  if (t === '') return { kind: 'empty' };
  if (t === 'today') return { kind: 'is', value: today };
  const of = (value: string | undefined): Understood<string> =>
    value ? { kind: 'is', value } : { kind: 'not', words: `There is no day “${text.trim()}”.` };
  let m = /^(\d{4})[-/. ](\d{1,2})[-/. ](\d{1,2})$/.exec(t);
  if (m) return of(iso(Number(m[1]), Number(m[2]), Number(m[3])));
  m = /^(\d{4})(\d{2})(\d{2})$/.exec(t);
  if (m) return of(iso(Number(m[1]), Number(m[2]), Number(m[3])));
  m = /^(\d{1,2})(?:st|nd|rd|th|\.)?[ -]?([a-z]{3,}\.?)[ ,-]*(\d{4}|\d{2})?$/.exec(t);
  const named = m ?? /^([a-z]{3,}\.?) (\d{1,2})(?:st|nd|rd|th)?,? ?(\d{4}|\d{2})?$/.exec(t);
  if (named) {
    const [day, word] = m ? [named[1]!, named[2]!] : [named[2]!, named[1]!];
    const of12 = month(word);
    if (of12 === 0) return notDate(text);
    return of(
      iso(named[3] ? fullYear(named[3], today) : Number(today.slice(0, 4)), of12, Number(day)),
    );
  }
  m = /^(\d{1,2})([./ -]) ?(\d{1,2})(?:\2 ?(\d{4}|\d{2})?)?$/.exec(t);
  if (!m) return notDate(text);
  const year = m[4] ? fullYear(m[4], today) : Number(today.slice(0, 4));
  const dayFirst = iso(year, Number(m[3]), Number(m[1]));
  if (m[2] === '.') return of(dayFirst);
  const monthFirst = iso(year, Number(m[1]), Number(m[3]));
  if (dayFirst && monthFirst && dayFirst !== monthFirst)
    return { kind: 'ask', values: [dayFirst, monthFirst] };
  return of(dayFirst ?? monthFirst);
}

const notDate = (text: string) =>
  ({ kind: 'not', words: `“${text.trim()}” is not a date like 25 Nov 2026.` }) as const;
