import type { AddressRows } from '@pebble/core';
import type { Store } from './open';

/** All address rows of a study in the order of messages, as typed arrays. */
export function readAddresses(store: Store, study: string): AddressRows {
  const { query, raw } = store;
  const count = query
    .selectFrom('address')
    .select((e) => e.fn.countAll<number>().as('count'))
    .where('study_id', '=', '')
    .compile();
  const { count: size } = raw.prepare(count.sql).get(study) as { count: number };
  const rows = {
    count: size,
    message: new Float64Array(size),
    from: new Uint32Array(size),
    to: new Uint32Array(size),
    kinds: new Uint8Array(size),
    time: new Float64Array(size),
  };
  const all = query
    .selectFrom('address')
    .select(['message_id', 'from_id', 'to_id', 'kinds', 'time'])
    .where('study_id', '=', '')
    .orderBy('message_id')
    .compile();
  let i = 0;
  for (const row of raw.prepare(all.sql).raw().iterate(study) as Iterable<
    [number, number, number, number, number | null]
  >) {
    rows.message[i] = row[0];
    rows.from[i] = row[1];
    rows.to[i] = row[2];
    rows.kinds[i] = row[3];
    rows.time[i++] = row[4] ?? NaN;
  }
  return rows;
}
