import * as z from 'zod';
import { Routine, RoutineAnswers, RoutineRequest } from './routine';

function isTimeZone(zone: string): boolean {
  try {
    new Intl.DateTimeFormat('en', { timeZone: zone });
    return true;
  } catch {
    return false;
  }
}

/** When a routine runs by itself. */
export const StandingWhen = z.discriminatedUnion('on', [
  /** After each import of messages from files. */
  z.strictObject({ on: z.literal('import') }),
  /** After each collecting run. */
  z.strictObject({ on: z.literal('collecting') }),
  z.strictObject({
    on: z.literal('time'),
    /** 0 is Sunday; null for each day. */
    weekday: z.int().min(0).max(6).nullable().default(null),
    /** By the clock of the zone, as "07:30". */
    at: z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'A time of day is written as 07:30.'),
    /** Of the IANA time zone database, as "Europe/Berlin". */
    zone: z.string().max(100).refine(isTimeZone, 'There is no such time zone.'),
    /** The collecting run that is done anew before it; null for none. */
    collect: z.string().nullable().default(null),
  }),
]);
export type StandingWhen = z.infer<typeof StandingWhen>;

/** A routine that runs by itself in a study while the application runs. */
export const StandingRoutine = z.object({
  id: z.int(),
  study: z.string(),
  routine: Routine,
  answers: RoutineAnswers,
  when: StandingWhen,
  isOn: z.boolean(),
  /** The moment of its next turn; null where it waits for something else, or is off. */
  next: z.string().nullable(),
  /** The collecting run for which it waits. */
  waitsFor: z.string().nullable(),
  /** The number of its last run. */
  lastRun: z.int().nullable(),
  /** Why its last turn did not come to a run. */
  note: z.string().nullable(),
  createdAt: z.string(),
});
export type StandingRoutine = z.infer<typeof StandingRoutine>;
/** The newest first. */
export const StandingRoutineList = z.array(StandingRoutine);

export const NewStandingRoutine = RoutineRequest.extend({ when: StandingWhen });
export type NewStandingRoutine = z.infer<typeof NewStandingRoutine>;
export const StandingChange = z.object({ isOn: z.boolean() });
