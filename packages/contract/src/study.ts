import { z } from 'zod';

export const StudyName = z
  .string()
  .trim()
  .min(1, 'A study needs a name.')
  .max(200, 'A name may have at most 200 characters.');

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
});
export type Study = z.infer<typeof Study>;

export const StudyList = z.object({ studies: z.array(Study), deleted: z.array(Study) });
export type StudyList = z.infer<typeof StudyList>;
