import * as z from 'zod';
import { pageOf } from './page';

/** What a file can bring into a study. */
export const Material = z.enum([
  'messages',
  'items',
  'follows',
  'accounts',
  'network',
  'nodes',
  'two-mode',
  'groups',
]);
export type Material = z.infer<typeof Material>;

/** Roles of columns in a table of messages that only one column can have. */
const MESSAGE_ROLES = [
  'id',
  'author',
  'authorName',
  'text',
  'subject',
  'time',
  'kind',
  'parent',
  'parentAuthor',
  'to',
  'link',
  'language',
  'item',
  'itemTitle',
] as const;
/** What is known of an account beside its handle and name. */
const PROFILE_ROLES = ['followers', 'following', 'posts', 'location', 'description', 'joined'] as const;
const FOLLOW_ROLES = ['follower', 'followed', ...PROFILE_ROLES] as const;
const TIE_ROLES = ['source', 'target', 'weight'] as const;
/** A column of a matrix of people by things: its heading names the thing. */
const THING_ROLES = ['thing'] as const;
const GROUP_ROLES = ['node', 'group'] as const;
const SHARED_ROLES = ['number', 'attribute', 'leave out'] as const;

/** What a column of a table can be: of a table of messages first, then of the other materials. */
export const ColumnRole = z.enum([
  ...MESSAGE_ROLES,
  ...FOLLOW_ROLES,
  ...TIE_ROLES,
  ...THING_ROLES,
  ...GROUP_ROLES,
  ...SHARED_ROLES,
]);
export type ColumnRole = z.infer<typeof ColumnRole>;

/** Roles that any number of columns can have. */
export const MANY_ROLES: readonly ColumnRole[] = [...SHARED_ROLES, ...THING_ROLES];

/** The roles that columns of a material can have, those that only one column can have first. */
export const COLUMN_ROLES: Readonly<Record<Material, readonly ColumnRole[]>> = {
  messages: [...MESSAGE_ROLES, ...SHARED_ROLES],
  items: ['id', 'subject', 'author', 'authorName', 'text', 'time', 'link', 'language', ...SHARED_ROLES],
  follows: ['follower', 'followed', 'authorName', ...PROFILE_ROLES, ...SHARED_ROLES],
  accounts: ['author', 'authorName', ...PROFILE_ROLES, 'link', ...SHARED_ROLES],
  network: [...TIE_ROLES, 'time', ...SHARED_ROLES],
  nodes: ['node', 'authorName', ...SHARED_ROLES],
  'two-mode': [...TIE_ROLES, ...THING_ROLES, 'leave out'],
  groups: [...GROUP_ROLES, 'leave out'],
};

/** The roles that a table of a material cannot do without. */
export const NEEDED_ROLES: Readonly<Record<Material, readonly ColumnRole[]>> = {
  messages: ['author', 'text'],
  items: ['id', 'subject'],
  follows: ['follower'],
  accounts: ['author'],
  network: ['source', 'target'],
  nodes: ['node'],
  'two-mode': ['source'],
  groups: ['group'],
};

/** Materials that become a source of the study; the others become a network or change one. */
export const SOURCE_MATERIALS: readonly Material[] = ['messages', 'items', 'follows', 'accounts'];

/** Formats that hold a table, one record a row. */
export const TableFormat = z.enum(['csv', 'tsv', 'jsonl', 'json', 'xlsx']);
export type TableFormat = z.infer<typeof TableFormat>;

/** Formats with a meaning of their own, whose columns need no naming. */
export const FileFormat = z.enum([
  ...TableFormat.options,
  'activities',
  'jmap',
  'mbox',
  'eml',
  'graphml',
  'gml',
  'jgf',
  'node-link',
  'dot',
  'adjacency',
  'matrix',
  'list',
]);
export type FileFormat = z.infer<typeof FileFormat>;

/** What a file is called where it came from. */
export const FileName = z.string().min(1).max(300, 'The name of a file may have at most 300 characters.');

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
  'spreadsheet-days',
]);
export type DateForm = z.infer<typeof DateForm>;

export const Column = z.object({ name: z.string(), role: ColumnRole });
export type Column = z.infer<typeof Column>;

/** How two-mode data are written and what their cells mean. */
export const TwoModeMapping = z.object({
  /** A matrix of rows by columns, two columns of pairs, or a cell that holds several values. */
  layout: z.enum(['matrix', 'pairs', 'cells']).default('pairs'),
  /** What stands between the values of one cell. */
  between: z.string().min(1).max(3).default(';'),
  /** What an empty cell of a matrix means. */
  empty: z.enum(['zero', 'missing']).default('zero'),
  /** Repeated pairs. */
  repeats: z.enum(['sum', 'once']).default('sum'),
});
export type TwoModeMapping = z.infer<typeof TwoModeMapping>;

/** How a file is read: everything the importer needs beside its bytes. */
export const ImportMapping = z.object({
  material: Material.default('messages'),
  format: FileFormat,
  /** Name of the sheet of a workbook; null where there are no sheets. */
  sheet: z.string().nullable().default(null),
  encoding: TextEncoding,
  delimiter: z.string().max(1),
  dateForm: DateForm,
  /** Hours east of UTC, used for dates that name no zone. */
  zoneOffsetMinutes: z.int().min(-840).max(840).default(0),
  columns: z.array(Column),
  /** The account whose followers a file lists, where no column says it. */
  followed: z.string().max(200).default(''),
  twoMode: TwoModeMapping.prefault({}),
});
export type ImportMapping = z.infer<typeof ImportMapping>;

/** A way to read a table that was kept under a name; it is offered again for files with the same columns. */
export const SavedMapping = z.object({ id: z.int(), name: z.string(), reading: ImportMapping });
export type SavedMapping = z.infer<typeof SavedMapping>;
export const SavedMappingList = z.array(SavedMapping);
export const NewMapping = z.object({
  name: z.string().trim().min(1, 'Give the reading a name.').max(100),
  reading: ImportMapping,
});

/** A table of the nodes of a network: a file, or a sheet of the workbook in which the ties stand. */
export const NodeTable = z.object({ upload: z.string(), file: FileName, reading: ImportMapping });
export type NodeTable = z.infer<typeof NodeTable>;

/** What a finished network in a file looks like. */
export const NetworkSketch = z.object({
  nodes: z.int(),
  edges: z.int(),
  directed: z.boolean(),
  weighted: z.boolean(),
  /** Columns of the nodes and of the ties beside their ends and weight. */
  nodeColumns: z.array(z.string()),
  edgeColumns: z.array(z.string()),
});
export type NetworkSketch = z.infer<typeof NetworkSketch>;

/** A first look at a file: how it would be read, its first rows, and what is missing. */
export const Preview = z.object({
  file: z.string(),
  bytes: z.int(),
  reading: ImportMapping,
  /** Whether the columns are those of the format, and cannot be corrected. */
  fixed: z.boolean(),
  /** What it can be read as. */
  materials: z.array(Material),
  /** Sheets of a workbook; empty for other files. */
  sheets: z.array(z.string()),
  /** Of a workbook with a sheet of ties: the sheet that seems to hold their nodes. */
  nodeSheet: z.string().nullable().default(null),
  /** What is in it when it is a network that can be looked at whole. */
  network: NetworkSketch.nullable(),
  /** One sentence for each thing that was detected, and from what. */
  reasons: z.array(z.string()),
  rows: z.array(z.array(z.string())),
  /** Lines of the file on which the rows begin, where they are those of a table. */
  lines: z.array(z.int()).default([]),
  /** What comes of the first rows, or of all of them, in a sentence. */
  outcome: z.string().nullable().default(null),
  missing: z.array(z.string()),
  problems: z.array(z.object({ row: z.int(), field: z.string().nullable(), reason: z.string() })),
  /** Readings that were kept for files with these columns. */
  saved: z.array(SavedMapping).default([]),
});
export type Preview = z.infer<typeof Preview>;

export const Upload = z.object({ id: z.string(), preview: Preview });
export type Upload = z.infer<typeof Upload>;

/** A file of a drop that cannot be read, and why; the other files are not concerned. */
export const RefusedFile = z.object({ file: z.string(), reason: z.string(), row: z.int().nullable() });
export type RefusedFile = z.infer<typeof RefusedFile>;

/** What came of sending a file: itself, or every file of an archive. */
export const UploadAnswer = z.object({ uploads: z.array(Upload), refused: z.array(RefusedFile) });
export type UploadAnswer = z.infer<typeof UploadAnswer>;

export const SkippedRow = z.object({
  row: z.int(),
  field: z.string().nullable(),
  reason: z.string(),
  /** The file, where a source came from several. */
  file: z.string().optional(),
});
export type SkippedRow = z.infer<typeof SkippedRow>;

/** The report of an import; rows are counted as lines of the file, the first is 1. */
export const ImportReport = z.object({
  source: z.int(),
  file: z.string(),
  /** What a row of the file was: "row", "email", "activity". */
  unit: z.string().default('row'),
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
  items: z.int().default(0),
  itemsAgain: z.int().default(0),
  /** Comments under items that are not in the study. */
  itemsMissing: z.int().default(0),
  follows: z.int().default(0),
  followsAgain: z.int().default(0),
  /** Accounts of which something beside the name was told. */
  profiles: z.int().default(0),
  notes: z.array(z.string()),
});
export type ImportReport = z.infer<typeof ImportReport>;

export const Source = z.object({
  id: z.int(),
  name: z.string(),
  format: z.string(),
  step: z.int(),
  report: ImportReport,
  /** When it was taken out again; its messages are gone from the study until it is taken back. */
  removedAt: z.string().nullable(),
});
export type Source = z.infer<typeof Source>;
export const SourcePage = pageOf('sources', Source);
export type SourcePage = z.infer<typeof SourcePage>;

/** The id of bytes that were sent to be used by a step. */
export const SentBytes = z.object({ id: z.string() });
