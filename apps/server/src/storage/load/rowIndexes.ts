import { sql, type Kysely } from 'kysely';

/** Indexes of messages, of whom they address and of accounts that can be built after the rows are there, which is several times quicker for many rows. */
const ROW_INDEXES: readonly Index[] = [
  {
    table: 'message',
    name: 'message_time',
    columns: ['time', 'kind'],
    unique: false,
    given: null,
  },
  { table: 'message', name: 'message_author', columns: ['author_id', 'time'], unique: false, given: null },
  // Only messages that answer or pass on another one; it is read for threads.
  {
    table: 'message',
    name: 'message_parent',
    columns: ['parent_key'],
    unique: false,
    given: 'parent_key',
  },
  { table: 'message', name: 'message_key', columns: ['key'], unique: true, given: null },
  // By whom an account is addressed; whom it addresses is found by its messages.
  { table: 'address', name: 'address_to', columns: ['to_id'], unique: false, given: null },
  {
    table: 'account',
    name: 'account_handle',
    columns: ['handle_key'],
    unique: true,
    given: null,
  },
];

/** Takes the indexes away; `buildRowIndexes` brings them back, and both happen in the transaction of the step. */
export async function dropRowIndexes({ schema }: Pick<Kysely<unknown>, 'schema'>): Promise<void> {
  for (const { name } of ROW_INDEXES) await schema.dropIndex(name).ifExists().execute();
}

/** Builds the indexes that are not there. @param tables of which; of all where it is left out */
export function buildRowIndexes(db: Schema, tables?: readonly string[]): Promise<void> {
  return buildIndexes(db, ROW_INDEXES, tables);
}

type Schema = Pick<Kysely<unknown>, 'schema'>;

/** An index of a table; with `given` of those rows alone in which that column is not null. */
export interface Index {
  readonly table: string;
  readonly name: string;
  readonly columns: readonly string[];
  readonly unique: boolean;
  readonly given: string | null;
}

export async function buildIndexes(
  { schema }: Schema,
  indexes: readonly Index[],
  tables?: readonly string[],
): Promise<void> {
  for (const { table, name, columns, unique, given } of indexes) {
    if (tables && !tables.includes(table)) continue;
    const index = schema
      .createIndex(name)
      .ifNotExists()
      .on(table)
      .columns([...columns]);
    const whole = unique ? index.unique() : index;
    await (given === null ? whole : whole.where(sql.ref(given), 'is not', null)).execute();
  }
}
