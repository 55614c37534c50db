import * as z from 'zod';
import { Leaks } from './people';
import { MethodsLength } from './references';

export const REPORT_FORMATS = ['html', 'md', 'docx'] as const;
export type ReportFormat = (typeof REPORT_FORMATS)[number];

const words = z.string().trim().max(300).default('');
const choice = z.enum(['true', 'false']).default('true');

/** What stands in a report. */
export const ReportQuery = z.object({
  /** The network whose map it shows as it is, where it shows no plates. */
  network: z.string(),
  /** Numbers of plates in their order, apart by "|". */
  plates: z
    .string()
    .max(2000)
    .regex(/^(?:\d+(?:\|\d+)*)?$/, 'Plates are named by their numbers, apart by "|".')
    .default(''),
  title: words,
  author: words,
  licence: words,
  portraits: choice,
  tables: choice,
  /** How it was made, with what that cites. */
  methods: z.enum(['none', ...MethodsLength.options]).default('long'),
  limits: choice,
  /** So many nodes are named in a table. */
  most: z.coerce.number().int().min(1).max(100).default(10),
});
export type ReportQuery = z.infer<typeof ReportQuery>;

/** What a report would be, before it is saved. */
export const ReportCheck = z.object({
  /** Its headings, in their order. */
  headings: z.array(z.string()),
  words: z.int(),
  figures: z.int(),
  tables: z.int(),
  /** Why it cannot be saved; null where it can. */
  problem: z.string().nullable(),
  leaks: Leaks,
});
export type ReportCheck = z.infer<typeof ReportCheck>;
