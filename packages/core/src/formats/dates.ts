import type { DateForm } from '@pebble/contract';
import { monthNumber } from './monthNames';

const CLOCK = String.raw`(?:[T ,]+(\d{1,2}):(\d{2})(?::(\d{2})(?:[.,](\d{1,9}))?)?\s*([AaPp])?\.?[Mm]?\.?)?`;
const ZONE = String.raw`\s*(Z|z|UTC|GMT|[+-]\d{2}:?\d{2})?`;
const YEAR_FIRST = new RegExp(String.raw`^(\d{4})[-/.](\d{1,2})[-/.](\d{1,2})${CLOCK}${ZONE}$`);
const YEAR_LAST = new RegExp(String.raw`^(\d{1,2})[-/.](\d{1,2})[-/.](\d{4}|\d{2})${CLOCK}${ZONE}$`);
const WORDS_DAY_FIRST = new RegExp(
  String.raw`^(?:\p{L}+,?\s+)?(\d{1,2})\.?\s+(?:d[eo]\s+)?(\p{L}{3,})\.?,?\s+(?:d[eo]\s+)?(\d{4})${CLOCK}${ZONE}$`,
  'u',
);
const WORDS_MONTH_FIRST = new RegExp(
  String.raw`^(?:\p{L}+,?\s+)?(\p{L}{3,})\.?\s+(\d{1,2}),?\s+(\d{4})${CLOCK}${ZONE}$`,
  'u',
);
/** "Tue Mar 31 14:05:11 +0000 2026", as the C library writes it, with a zone before the year. */
const WORDS_YEAR_END =
  /^\p{L}{3}\s+(\p{L}{3})\s+(\d{1,2})\s+(\d{1,2}):(\d{2}):(\d{2})\s+(?:([+-]\d{4})\s+)?(\d{4})$/u;
/** The basic format of ISO 8601, without marks between: 20260331T140500Z. */
const BASIC =
  /^(\d{4})(\d{2})(\d{2})(?:[T ](\d{2})(\d{2})(\d{2})?(?:[.,](\d{1,9}))?(Z|[+-]\d{2}:?\d{2})?)?$/i;
const RFC_3339 = /^\d{4}-\d{2}-\d{2}[Tt ]\d{2}:\d{2}:\d{2}(?:\.\d+)?(?:[Zz]|[+-]\d{2}:\d{2})$/;

/** A reader of one form of date: milliseconds since 1970-01-01T00:00Z, or null when the text is not such a date. */
export type DateReader = (text: string) => number | null;

/**
 * The reader for one form of date.
 * @param zoneOffsetMinutes minutes east of UTC, for dates that name no zone
 */
export function dateReader(form: DateForm, zoneOffsetMinutes: number): DateReader {
  switch (form) {
    case 'unix-seconds':
      return (text) => unix(text, 1000);
    case 'unix-milliseconds':
      return (text) => unix(text, 1);
    case 'iso':
    case 'year-month-day':
      return (text) =>
        RFC_3339.test(text)
          ? strictIso(text)
          : (yearFirst(text, zoneOffsetMinutes) ?? basic(text, zoneOffsetMinutes));
    case 'day-month-year':
      return (text) => yearLast(text, zoneOffsetMinutes, true);
    case 'month-day-year':
      return (text) => yearLast(text, zoneOffsetMinutes, false);
    case 'words':
      return (text) => inWords(text, zoneOffsetMinutes);
    case 'spreadsheet-days':
      return (text) => spreadsheetDays(text, zoneOffsetMinutes);
  }
}

/**
 * The form of date that most of the samples have; null when fewer than half of them are dates of one form. Where both
 * day-month and month-day fit every sample, day-month is taken and `ambiguous` is set.
 */
export function guessDateForm(samples: readonly string[]): { form: DateForm; ambiguous: boolean } | null {
  const given = samples.map((s) => s.trim()).filter((s) => s !== '');
  if (given.length === 0) return null;
  const forms: DateForm[] = [
    'iso',
    'day-month-year',
    'month-day-year',
    'words',
    'unix-milliseconds',
    'unix-seconds',
    'spreadsheet-days',
  ];
  const hits = new Map(
    forms.map((form) => [form, given.filter((s) => isPlausible(dateReader(form, 0)(s))).length]),
  );
  const best = forms.reduce((a, b) => (hits.get(b)! > hits.get(a)! ? b : a));
  if (hits.get(best)! * 2 < given.length) return null;
  const ambiguous = best === 'day-month-year' && hits.get('month-day-year') === hits.get(best);
  return { form: best, ambiguous };
}

/** Between 1970 and 2100. */
function isPlausible(time: number | null): boolean {
  return time !== null && time >= 0 && time < 4_102_444_800_000;
}

function unix(text: string, factor: number): number | null {
  if (!/^\d{9,14}(?:\.\d+)?$/.test(text.trim())) return null;
  const time = Math.round(Number(text) * factor);
  return isPlausible(time) ? time : null;
}

/** A date of a format that asks for RFC 3339 (ActivityStreams, JMAP), as lenient as it can be without guessing; NaN for what is none. */
export function standardDate(written: string): number {
  return dateReader('iso', 0)(written.trim()) ?? NaN;
}

/** Days since 30 December 1899, as spreadsheets count them; of the years 1954 to 2119, so that few other numbers are taken for dates. */
function spreadsheetDays(text: string, zone: number): number | null {
  if (!/^\d{5}(?:\.\d+)?$/.test(text.trim())) return null;
  const days = Number(text);
  if (days < 20_000 || days > 80_000) return null;
  return Math.round((days - 25_569) * 86_400) * 1000 - zone * 60_000;
}

function basic(text: string, zone: number): number | null {
  const m = BASIC.exec(text.trim());
  if (!m) return null;
  const [, year, month, day, h, min, s, fraction, offset] = m;
  return moment(+year, +month, +day, [h, min, s, fraction, undefined, offset], zone);
}

/** Zones by name that RFC 5322 (section 4.3) knows; all others say nothing, and count as UTC by that section. */
const NAMED_ZONES: Readonly<Record<string, number>> = {
  EST: -5,
  EDT: -4,
  CST: -6,
  CDT: -5,
  MST: -7,
  MDT: -6,
  PST: -8,
  PDT: -7,
};
const MAIL =
  /^(?:\p{L}{3,}\.?,?\s+)?(\d{1,2})\s+(\p{L}{3,})\s+(\d{2,4})\s+(\d{1,2}):(\d{2})(?::(\d{2}))?(?:\s*([+-]\d{4})|\s+([A-Z]{1,5}))?$/iu;

/** The date of an email: RFC 5322, with the old forms of its section 4.3; else one of the usual forms. Null for what is no date. */
export function mailDate(written: string): number | null {
  const text = written
    .replace(/\([^()]*\)/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();
  const m = MAIL.exec(text);
  if (!m) return inWords(text, 0) ?? dateReader('iso', 0)(text);
  const [, day, month, y, h, min, s, offset, named] = m;
  const year = y.length === 2 ? +y + (+y < 50 ? 2000 : 1900) : y.length === 3 ? +y + 1900 : +y;
  const zone = named === undefined ? 0 : 60 * (NAMED_ZONES[named.toUpperCase()] ?? 0);
  return moment(year, monthNumber(month), +day, [h, min, s, undefined, undefined, offset], zone);
}

function strictIso(text: string): number | null {
  const [, y, m, d, h] = /^(\d{4})-(\d{2})-(\d{2}).(\d{2})/.exec(text)!;
  if (!isDay(+y, +m, +d) || +h > 23) return null;
  const time = Date.parse(text);
  return Number.isNaN(time) ? null : time;
}

function yearFirst(text: string, zone: number): number | null {
  const m = YEAR_FIRST.exec(text.trim());
  return m ? moment(+m[1], +m[2], +m[3], m.slice(4), zone) : null;
}

function yearLast(text: string, zone: number, dayFirst: boolean): number | null {
  const m = YEAR_LAST.exec(text.trim());
  if (!m) return null;
  const year = m[3].length === 2 ? 2000 + +m[3] : +m[3];
  return dayFirst
    ? moment(year, +m[2], +m[1], m.slice(4), zone)
    : moment(year, +m[1], +m[2], m.slice(4), zone);
}

function inWords(text: string, zone: number): number | null {
  const trimmed = text.trim();
  const first = WORDS_DAY_FIRST.exec(trimmed);
  if (first) return moment(+first[3], monthNumber(first[2]), +first[1], first.slice(4), zone);
  const second = WORDS_MONTH_FIRST.exec(trimmed);
  if (second) return moment(+second[3], monthNumber(second[1]), +second[2], second.slice(4), zone);
  const third = WORDS_YEAR_END.exec(trimmed);
  if (!third) return null;
  const [, month, day, h, min, s, offset, year] = third;
  return moment(+year, monthNumber(month), +day, [h, min, s, '', '', offset ?? 'Z'], zone);
}

function isDay(year: number, month: number, day: number): boolean {
  // There is no year 0, and Date.UTC takes years below 100 for those of another century.
  if (year < 1 || month < 1 || month > 12 || day < 1) return false;
  return day <= new Date(new Date(0).setUTCFullYear(year, month, 0)).getUTCDate();
}

/** @param clock hours, minutes, seconds, fraction, a or p, zone; each may be missing */
function moment(
  year: number,
  month: number,
  day: number,
  clock: (string | undefined)[],
  zone: number,
): number | null {
  if (!isDay(year, month, day)) return null;
  const [h, min, s, fraction, half, offset] = clock;
  let hour = Number(h ?? 0);
  if (half) {
    if (hour < 1 || hour > 12) return null;
    hour = (hour % 12) + (half.toLowerCase() === 'p' ? 12 : 0);
  }
  if (hour > 23 || Number(min ?? 0) > 59 || Number(s ?? 0) > 60) return null;
  const milliseconds = fraction ? Math.floor(Number(`0.${fraction}`) * 1000) : 0;
  const midnight = new Date(0).setUTCFullYear(year, month - 1, day);
  const local = midnight + ((hour * 60 + Number(min ?? 0)) * 60 + Number(s ?? 0)) * 1000 + milliseconds;
  return local - (offset ? offsetMinutes(offset) : zone) * 60_000;
}

function offsetMinutes(zone: string): number {
  const m = /^([+-])(\d{2}):?(\d{2})$/.exec(zone);
  return m ? (m[1] === '-' ? -1 : 1) * (Number(m[2]) * 60 + Number(m[3])) : 0;
}
