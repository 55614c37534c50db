import * as z from 'zod';

/** What a study that was saved as one file is; further versions add to it. */
export const PACKAGE_FORMAT = 'pebble-thread-study';
export const PACKAGE_VERSION = 1;
export const MANIFEST = 'manifest.json';

/** Places that a package may have files at; nothing else is taken from one. */
const UUID = '[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}';
const PLACE = new RegExp(
  `^(?:study\\.sqlite|networks/${UUID}/(?:nodes|edges|evidence|days)\\.arrow|uploads/skipped-\\d{1,15}\\.csv|collecting/${UUID}\\.jsonl)$`,
);

/** What stands in a package beside its files: what it is, and how each file can be checked. */
export const Manifest = z.object({
  format: z.literal(PACKAGE_FORMAT),
  version: z.int().min(1),
  /** The form of the tables in study.sqlite: the last change that was made to it. */
  tables: z.string(),
  name: z.string().min(1).max(200),
  /** RFC 3339. */
  savedAt: z.string(),
  messages: z.int().min(0),
  /** The number of its last step. */
  lastStep: z.int().min(0).max(Number.MAX_SAFE_INTEGER),
  files: z
    .array(
      z.object({
        place: z.string().regex(PLACE),
        bytes: z.int().min(0),
        /** SHA-256 (FIPS 180-4), hexadecimal. */
        sha256: z.string().regex(/^[0-9a-f]{64}$/),
      }),
    )
    .max(100_000),
});
export type Manifest = z.infer<typeof Manifest>;
