import type { AddressRows } from '@pebble/core';
import { columnsOf, stretches } from './bulk';
import type { Store } from './open';

/** Messages whose rows are read together. */
const TOGETHER = 20_000;

/** All address rows of a study in the order of messages, as typed arrays. */
export function readAddresses(store: Store): AddressRows {
  const [size, first, last] = store.raw
    .prepare('select count(*), min(message_id), max(message_id) from address')
    .raw()
    .get() as [number, number | null, number | null];
  const rows = {
    count: size,
    message: new Float64Array(size),
    from: new Uint32Array(size),
    to: new Uint32Array(size),
    kinds: new Uint8Array(size),
    time: new Float64Array(size),
  };
  let at = 0;
  for (const stretch of stretches(first, last, TOGETHER)) {
    const [message, from, to, kinds, time] = columnsOf(
      store,
      5,
      `select message_id, from_id, to_id, kinds, time from address
        where message_id >= ? and message_id < ? order by message_id`,
      stretch,
    );
    rows.message.set(message as number[], at);
    rows.from.set(from as number[], at);
    rows.to.set(to as number[], at);
    rows.kinds.set(kinds as number[], at);
    for (let i = 0; i < time.length; i++) rows.time[at + i] = (time[i] as number | null) ?? NaN;
    at += message.length;
  }
  return rows;
}
