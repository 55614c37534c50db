import * as z from 'zod';

/** A point in time that the researcher marks, so that it stands on every axis of time. */
export const Moment = z.object({
  id: z.int(),
  /** Milliseconds since 1970. */
  time: z.number(),
  name: z.string(),
});
export type Moment = z.infer<typeof Moment>;

export const NewMoment = z.object({
  time: z.number().min(-62_135_596_800_000).max(253_402_300_799_999),
  name: z.string().trim().min(1, 'Give the moment a name.').max(80),
});
