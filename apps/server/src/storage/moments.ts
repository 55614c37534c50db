import type { Moment } from '@pebble/contract';
import type { Store } from './open';

/** What the researcher marked in time, the earliest first. */
export async function readMoments({ query }: Store): Promise<Moment[]> {
  return query.selectFrom('moment').selectAll().orderBy('time').orderBy('id').execute();
}
