import { Injectable, type Provider } from '@angular/core';
import {
  DateAdapter,
  MAT_DATE_FORMATS,
  MAT_DATE_LOCALE,
  NativeDateAdapter,
  type MatDateFormats,
} from '@angular/material/core';
import { dateReader } from '@pebble/core/first';

const DAY = 86_400_000;
const MONDAY = 1;

/** A moment as the day of the calendar on which it falls in UTC: what the library calls a date, at midnight here. */
export function dayOf(time: number): Date {
  const moment = new Date(time);
  return new Date(moment.getUTCFullYear(), moment.getUTCMonth(), moment.getUTCDate());
}

/** When a day of the calendar begins in UTC. */
export const startOf = (day: Date): number => Date.UTC(day.getFullYear(), day.getMonth(), day.getDate());

/** When it ends there. */
export const endOf = (day: Date): number => startOf(day) + DAY;

/** Whether people who read these languages write the day before the month. */
export function isDayFirst(languages: readonly string[] = navigator.languages): boolean {
  const parts = new Intl.DateTimeFormat(languages[0] ?? 'en-GB').formatToParts(0).map(({ type }) => type);
  return parts.indexOf('day') < parts.indexOf('month');
}

/** The day that somebody means who types 2026-03-01, 1 March 2026, March 1, 2026, or its numbers in their own order; null for what is no day. */
export function readDay(typed: string, dayFirst = isDayFirst()): Date | null {
  const forms = ['iso', dayFirst ? 'day-month-year' : 'month-day-year', 'words'] as const;
  for (const form of forms) {
    const time = dateReader(form, 0)(typed);
    if (time !== null) return dayOf(time);
  }
  return null;
}

/** Days as they are written here, and read from what people type. */
@Injectable()
class DaysAdapter extends NativeDateAdapter {
  override parse(value: unknown): Date | null {
    const typed = typeof value === 'string' ? value.trim() : '';
    return typed === '' ? null : (readDay(typed) ?? this.invalid());
  }

  /** As weeks are cut into slices. */
  override getFirstDayOfWeek(): number {
    return MONDAY;
  }
}

const FORMATS: MatDateFormats = {
  parse: { dateInput: null },
  display: {
    dateInput: { day: 'numeric', month: 'long', year: 'numeric' },
    monthYearLabel: { month: 'short', year: 'numeric' },
    dateA11yLabel: { day: 'numeric', month: 'long', year: 'numeric' },
    monthYearA11yLabel: { month: 'long', year: 'numeric' },
  },
};

/** What fields for days need. */
export const DAYS: Provider[] = [
  { provide: MAT_DATE_LOCALE, useValue: 'en-GB' },
  { provide: DateAdapter, useClass: DaysAdapter },
  { provide: MAT_DATE_FORMATS, useValue: FORMATS },
];
