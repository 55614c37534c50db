import type { DateForm } from '@pebble/contract';
import { dateReader, guessDateForm, mailDate, standardDate } from './dates';

const iso = (time: number | null): string | null => (time === null ? null : new Date(time).toISOString());
const read = (form: DateForm, text: string): string | null => iso(dateReader(form, 0)(text));

describe('dates', () => {
  it.each([
    ['words', '31 März 2026', '2026-03-31T00:00:00.000Z'],
    ['words', '3. Oktober 2026, 14:05', '2026-10-03T14:05:00.000Z'],
    ['words', '31 août 2026', '2026-08-31T00:00:00.000Z'],
    ['words', '1 juil. 2026', '2026-07-01T00:00:00.000Z'],
    ['words', '31 de marzo de 2026', '2026-03-31T00:00:00.000Z'],
    ['words', '15 maggio 2026', '2026-05-15T00:00:00.000Z'],
    ['words', '2 mei 2026', '2026-05-02T00:00:00.000Z'],
    ['words', '15 stycznia 2026', '2026-01-15T00:00:00.000Z'],
    ['iso', '20260331T140500Z', '2026-03-31T14:05:00.000Z'],
    ['iso', '20260331T140500+0200', '2026-03-31T12:05:00.000Z'],
    ['iso', '0001-02-03', '0001-02-03T00:00:00.000Z'],
    // Microsoft's and Lotus's day 1 was 31 December 1899; common practice counts from 30 December 1899: 46112.5 is noon on 31 March 2026.
    ['spreadsheet-days', '46112.5', '2026-03-31T12:00:00.000Z'],
  ] as const)('%s: “%s” is %s', (form, text, expected) => {
    expect(read(form, text)).toBe(expected);
  });

  it.each([
    ['words', '31 February 2026'],
    ['words', '31 Februar 2026'],
    ['words', 'room 12'],
    ['words', '12 Mondays 2026'],
    ['iso', '0000-01-01'],
    ['iso', '2026-02-30'],
    ['iso', '20260230'],
    ['iso', '12345678901'],
    ['iso', '99999-01-01'],
  ] as const)('%s: “%s” is none, and nothing is made of it', (form, text) => {
    expect(read(form, text)).toBeNull();
  });

  it('of spreadsheets are found where most of a column are such days', () => {
    expect(guessDateForm(['46112.5', '46113', '46114.25'])?.form).toBe('spreadsheet-days');
  });
});

describe('the date of an email (RFC 5322, with the examples of its appendix A)', () => {
  it.each([
    ['Fri, 21 Nov 1997 09:55:06 -0600', '1997-11-21T15:55:06.000Z'],
    ['Thu,\r\n 13\r\n Feb\r\n 1969\r\n 23:32\r\n -0330 (Newfoundland Time)', '1969-02-14T03:02:00.000Z'],
    ['21 Nov 97 09:55:06 GMT', '1997-11-21T09:55:06.000Z'],
    ['Tue, 1 Jul 2003 10:52:37 +0200', '2003-07-01T08:52:37.000Z'],
    ['1 Jul 2003 10:52 EDT', '2003-07-01T14:52:00.000Z'],
    ['Tue Mar 31 14:05:11 +0000 2026', '2026-03-31T14:05:11.000Z'],
  ])('“%s” is %s', (written, expected) => {
    expect(iso(mailDate(written))).toBe(expected);
  });

  it.each([
    'Mon, 31 Feb 2026 10:00:00 +0000',
    'room 12',
    '12',
    'Fri, 1 Jan 99999 10:00:00 +0000',
    'tomorrow',
  ])('“%s” is none', (written) => {
    expect(mailDate(written)).toBeNull();
  });
});

it('a date of a standard is none where its day is none', () => {
  expect(standardDate('2026-02-31T10:00:00Z')).toBeNaN();
  expect(standardDate('room 12')).toBeNaN();
  expect(iso(standardDate('2026-02-28T10:00:00+01:00'))).toBe('2026-02-28T09:00:00.000Z');
});
