import * as z from 'zod';

/** Characters of a name at most. */
export const LONGEST_NAME = 200;

/** @param missing what is said where there is none */
const named = (missing: string) =>
  z.string().trim().min(1, missing).max(LONGEST_NAME, `A name may have at most ${LONGEST_NAME} characters.`);

/** What is kept under a name. */
export const Name = named('It needs a name.');
export const StudyName = named('A study needs a name.');

/** One research project with its counts, as the list of studies shows it. */
export const Study = z.object({
  id: z.string(),
  name: StudyName,
  createdAt: z.string(),
  changedAt: z.string(),
  messages: z.int(),
  accounts: z.int(),
  networks: z.int(),
  /** The newest network, whose map stands for the study in the list. */
  latestNetwork: z.string().nullable(),
  /** Why it cannot be opened; null for one that can. The counts are those from before. */
  broken: z.string().nullable().default(null),
  /** When it is removed for good, for one that was deleted; null for any other. */
  goneAt: z.string().nullable().default(null),
});
export type Study = z.infer<typeof Study>;

/** Days for which what was deleted can be taken back. */
export const KEPT_DAYS = 30;

const deleted = { name: z.string(), deletedAt: z.string(), goneAt: z.string() };

/** Something of a study that was deleted and can be taken back until it is removed for good. */
export const Deleted = z.discriminatedUnion('what', [
  z.object({ what: z.literal('network'), id: z.string(), ...deleted }),
  z.object({ what: z.literal('source'), id: z.int(), ...deleted }),
  z.object({ what: z.literal('plate'), id: z.int(), ...deleted }),
]);
export type Deleted = z.infer<typeof Deleted>;
export const DeletedList = z.array(Deleted);

/** A study that is to be opened from a file, by the step `open-study`. */
export const OpeningStudy = z.object({
  study: z.string(),
  upload: z.string(),
  file: z.string(),
  /** The step that takes it in: of a saved study, or of a package with a map. */
  by: z.enum(['open-study', 'open-package']),
});
export type OpeningStudy = z.infer<typeof OpeningStudy>;

export const StudyList = z.object({
  studies: z.array(Study),
  deleted: z.array(Study),
  /** Packed and closed; they can be opened again. */
  archived: z.array(Study).default([]),
});
export type StudyList = z.infer<typeof StudyList>;
