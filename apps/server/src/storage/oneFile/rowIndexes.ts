import { sql, type Kysely } from 'kysely';

/** Indexes of messages, of whom they address and of accounts, as they were when all studies were in one file. */
const ROW_INDEXES = [
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
] as const;

/** Builds the indexes that are not there. @param tables of which; of all where it is left out */
export async function buildRowIndexes(
  { schema }: Pick<Kysely<unknown>, 'schema'>,
  tables: readonly string[] = ['message', 'address', 'account'],
): Promise<void> {
  for (const { table, name, columns, unique, given } of ROW_INDEXES) {
    if (!tables.includes(table)) continue;
    const index = schema
      .createIndex(name)
      .ifNotExists()
      .on(table)
      .columns([...columns]);
    const whole = unique ? index.unique() : index;
    await (given === null ? whole : whole.where(sql.ref(given), 'is not', null)).execute();
  }
}
