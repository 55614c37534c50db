import { z } from 'zod';

/** What a column of a file of posts can be. */
export const ColumnRole = z.enum([
  'id',
  'author',
  'authorName',
  'text',
  'time',
  'kind',
  'parent',
  'parentAuthor',
  'link',
  'number',
  'attribute',
  'leave out',
]);
export type ColumnRole = z.infer<typeof ColumnRole>;

export const FileFormat = z.enum(['csv', 'tsv', 'jsonl']);
export type FileFormat = z.infer<typeof FileFormat>;

export const TextEncoding = z.enum(['utf-8', 'utf-16le', 'utf-16be', 'windows-1252']);
export type TextEncoding = z.infer<typeof TextEncoding>;

/** How the dates of a column are written. */
export const DateForm = z.enum([
  'iso',
  'unix-seconds',
  'unix-milliseconds',
  'day-month-year',
  'month-day-year',
  'year-month-day',
  'words',
]);
export type DateForm = z.infer<typeof DateForm>;

export const Column = z.object({ name: z.string(), role: ColumnRole });
export type Column = z.infer<typeof Column>;

/** How a file is read: everything the importer needs beside its bytes. */
export const Reading = z.object({
  format: FileFormat,
  encoding: TextEncoding,
  delimiter: z.string().max(1),
  dateForm: DateForm,
  /** Hours east of UTC, used for dates that name no zone. */
  zoneOffsetMinutes: z.int().min(-840).max(840).default(0),
  columns: z.array(Column),
});
export type Reading = z.infer<typeof Reading>;

/** A first look at a file: how it would be read, its first rows, and what is missing. */
export const Preview = z.object({
  file: z.string(),
  bytes: z.int(),
  reading: Reading,
  /** One sentence for each thing that was detected, and from what. */
  reasons: z.array(z.string()),
  rows: z.array(z.array(z.string())),
  missing: z.array(z.string()),
  problems: z.array(z.object({ row: z.int(), field: z.string().nullable(), reason: z.string() })),
});
export type Preview = z.infer<typeof Preview>;

export const Upload = z.object({ id: z.string(), preview: Preview });
export type Upload = z.infer<typeof Upload>;

export const SkippedRow = z.object({ row: z.int(), field: z.string().nullable(), reason: z.string() });
export type SkippedRow = z.infer<typeof SkippedRow>;

/** The report of an import; rows are counted as lines of the file, the first is 1. */
export const ImportReport = z.object({
  source: z.int(),
  file: z.string(),
  read: z.int(),
  kept: z.int(),
  skipped: z.int(),
  skippedByReason: z.array(z.object({ reason: z.string(), rows: z.int() })),
  duplicates: z.int(),
  duplicatesInFile: z.int(),
  undated: z.int(),
  accountsNew: z.int(),
  accountsKnown: z.int(),
  authors: z.int(),
  mentions: z.int(),
  hashtags: z.int(),
  links: z.int(),
  /** Messages that answer or pass on a message which is not in the study. */
  parentsMissing: z.int(),
  from: z.number().nullable(),
  until: z.number().nullable(),
  notes: z.array(z.string()),
});
export type ImportReport = z.infer<typeof ImportReport>;

export const Source = z.object({
  id: z.int(),
  name: z.string(),
  format: z.string(),
  step: z.int(),
  report: ImportReport,
});
export type Source = z.infer<typeof Source>;
export const SourceList = z.array(Source);

/** The id of bytes that were sent to be used by a step. */
export const SentBytes = z.object({ id: z.string() });
