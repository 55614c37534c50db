import type { Kysely } from 'kysely';
import { buildIndexes, type Index } from '../load/rowIndexes';

/** Indexes of messages, of whom they address and of accounts, as they were when all studies were in one file. */
const ROW_INDEXES: readonly Index[] = [
  {
    table: 'message',
    name: 'message_time',
    columns: ['study_id', 'time', 'kind'],
    unique: false,
    given: null,
  },
  { table: 'message', name: 'message_author', columns: ['author_id', 'time'], unique: false, given: null },
  // Only messages that answer or pass on another one; it is read for threads.
  {
    table: 'message',
    name: 'message_parent',
    columns: ['study_id', 'parent_key'],
    unique: false,
    given: 'parent_key',
  },
  { table: 'message', name: 'message_key', columns: ['study_id', 'key'], unique: true, given: null },
  // By whom an account is addressed; whom it addresses is found by its messages.
  { table: 'address', name: 'address_to', columns: ['to_id'], unique: false, given: null },
  {
    table: 'account',
    name: 'account_handle',
    columns: ['study_id', 'handle_key'],
    unique: true,
    given: null,
  },
];

/** Builds those of some tables that are not there. */
export function buildRowIndexes(
  db: Pick<Kysely<unknown>, 'schema'>,
  tables: readonly string[],
): Promise<void> {
  return buildIndexes(db, ROW_INDEXES, tables);
}
