import { KIND_BIT } from '@pebble/core';
import { Migrator, sql, type Kysely, type Migration } from 'kysely';
import { buildRowIndexes } from './rowIndexes';

const first: Migration = {
  async up(db: Kysely<unknown>): Promise<void> {
    const { schema } = db;
    await schema
      .createTable('study')
      .addColumn('id', 'text', (c) => c.primaryKey())
      .addColumn('name', 'text', (c) => c.notNull())
      .addColumn('created_at', 'text', (c) => c.notNull())
      .addColumn('changed_at', 'text', (c) => c.notNull())
      .addColumn('deleted_at', 'text')
      .execute();
    await schema
      .createTable('source')
      .addColumn('id', 'integer', (c) => c.primaryKey())
      .addColumn('study_id', 'text', (c) => c.notNull())
      .addColumn('step_id', 'integer', (c) => c.notNull())
      .addColumn('name', 'text', (c) => c.notNull())
      .addColumn('format', 'text', (c) => c.notNull())
      .addColumn('report', 'text', (c) => c.notNull())
      .execute();
    await schema
      .createTable('account')
      .addColumn('id', 'integer', (c) => c.primaryKey())
      .addColumn('study_id', 'text', (c) => c.notNull())
      .addColumn('handle_key', 'text', (c) => c.notNull())
      .addColumn('handle', 'text', (c) => c.notNull())
      .addColumn('name', 'text')
      .execute();
    await schema
      .createIndex('account_handle')
      .on('account')
      .columns(['study_id', 'handle_key'])
      .unique()
      .execute();
    await schema
      .createTable('message')
      .addColumn('id', 'integer', (c) => c.primaryKey())
      .addColumn('study_id', 'text', (c) => c.notNull())
      .addColumn('source_id', 'integer', (c) => c.notNull())
      .addColumn('key', 'text', (c) => c.notNull())
      .addColumn('author_id', 'integer', (c) => c.notNull())
      .addColumn('time', 'integer')
      .addColumn('kind', 'text', (c) => c.notNull())
      .addColumn('parent_key', 'text')
      .addColumn('parent_author_id', 'integer')
      .addColumn('link', 'text')
      .addColumn('text', 'text', (c) => c.notNull())
      .addColumn('more', 'text')
      .execute();
    await buildRowIndexes(db, ['message']);
    await schema
      .createTable('address')
      .addColumn('study_id', 'text', (c) => c.notNull())
      .addColumn('message_id', 'integer', (c) => c.notNull())
      .addColumn('to_id', 'integer', (c) => c.notNull())
      .addColumn('from_id', 'integer', (c) => c.notNull())
      .addColumn('kinds', 'integer', (c) => c.notNull())
      .addColumn('time', 'integer')
      .addPrimaryKeyConstraint('address_key', ['study_id', 'message_id', 'to_id'])
      .modifyEnd(sql`without rowid`)
      .execute();
    await schema
      .createTable('hashtag')
      .addColumn('id', 'integer', (c) => c.primaryKey())
      .addColumn('study_id', 'text', (c) => c.notNull())
      .addColumn('tag_key', 'text', (c) => c.notNull())
      .addColumn('tag', 'text', (c) => c.notNull())
      .execute();
    await schema.createIndex('hashtag_key').on('hashtag').columns(['study_id', 'tag_key']).unique().execute();
    await schema
      .createTable('message_hashtag')
      .addColumn('hashtag_id', 'integer', (c) => c.notNull())
      .addColumn('message_id', 'integer', (c) => c.notNull())
      .addPrimaryKeyConstraint('message_hashtag_key', ['message_id', 'hashtag_id'])
      .modifyEnd(sql`without rowid`)
      .execute();
    await schema
      .createTable('step')
      .addColumn('id', 'integer', (c) => c.primaryKey().autoIncrement())
      .addColumn('study_id', 'text', (c) => c.notNull())
      .addColumn('kind', 'text', (c) => c.notNull())
      .addColumn('state', 'text', (c) => c.notNull())
      .addColumn('parameters', 'text', (c) => c.notNull())
      .addColumn('result', 'text')
      .addColumn('sentence', 'text', (c) => c.notNull())
      .addColumn('error', 'text')
      .addColumn('seed', 'integer')
      .addColumn('started_at', 'text', (c) => c.notNull())
      .addColumn('ended_at', 'text')
      .addColumn('duration', 'integer')
      .execute();
    await schema.createIndex('step_study').on('step').columns(['study_id', 'id']).execute();
    await schema
      .createTable('network')
      .addColumn('id', 'text', (c) => c.primaryKey())
      .addColumn('study_id', 'text', (c) => c.notNull())
      .addColumn('step_id', 'integer', (c) => c.notNull())
      .addColumn('name', 'text', (c) => c.notNull())
      .addColumn('weave', 'text', (c) => c.notNull())
      .addColumn('sentence', 'text', (c) => c.notNull())
      .addColumn('nodes', 'integer', (c) => c.notNull())
      .addColumn('edges', 'integer', (c) => c.notNull())
      .addColumn('messages', 'integer', (c) => c.notNull())
      .addColumn('state', 'text', (c) => c.notNull())
      .addColumn('measures', 'text', (c) => c.notNull())
      .addColumn('created_at', 'text', (c) => c.notNull())
      .addColumn('deleted_at', 'text')
      .execute();
    await schema
      .createTable('map')
      .addColumn('network_id', 'text', (c) => c.primaryKey())
      .addColumn('description', 'text', (c) => c.notNull())
      .addColumn('layout', 'text')
      .addColumn('iterations', 'integer')
      .addColumn('moved', 'integer', (c) => c.notNull())
      .addColumn('positions', 'blob')
      .execute();
    await sql`create virtual table message_text using fts5(text, content='message', content_rowid='id', tokenize='unicode61 remove_diacritics 2')`.execute(
      db,
    );
  },
};

/** Subjects of messages, sources that are taken out, networks from files, kept readings. */
const materials: Migration = {
  async up(db: Kysely<unknown>): Promise<void> {
    const { schema } = db;
    await schema.alterTable('message').addColumn('subject', 'text').execute();
    await schema.alterTable('source').addColumn('removed_at', 'text').execute();
    await schema
      .alterTable('network')
      .addColumn('directed', 'integer', (c) => c.notNull().defaultTo(1))
      .execute();
    await schema
      .alterTable('network')
      .addColumn('own_columns', 'text', (c) => c.notNull().defaultTo('[]'))
      .execute();
    await schema
      .createTable('saved_reading')
      .addColumn('id', 'integer', (c) => c.primaryKey())
      .addColumn('name', 'text', (c) => c.notNull())
      .addColumn('columns', 'text', (c) => c.notNull())
      .addColumn('reading', 'text', (c) => c.notNull())
      .addUniqueConstraint('saved_reading_name', ['columns', 'name'])
      .execute();
    await sql`drop table message_text`.execute(db);
    await sql`create virtual table message_text using fts5(text, subject, content='message', content_rowid='id', columnsize=0, tokenize='unicode61 remove_diacritics 2')`.execute(
      db,
    );
    // Words that wait in memory before they are written out; large imports are quicker with more than the usual 1 MB.
    await sql`insert into message_text (message_text, rank) values ('hashsize', ${sql.lit(8 * 1024 ** 2)})`.execute(
      db,
    );
    await sql`insert into message_text (message_text) values ('rebuild')`.execute(db);
  },
};

/** Items with their comments, who follows whom, profiles of accounts. */
const people: Migration = {
  async up(db: Kysely<unknown>): Promise<void> {
    const { schema } = db;
    await schema.alterTable('message').addColumn('item_key', 'text').execute();
    await sql`create index message_item on message (study_id, item_key) where item_key is not null`.execute(
      db,
    );
    await schema
      .createTable('item')
      .addColumn('id', 'integer', (c) => c.primaryKey())
      .addColumn('study_id', 'text', (c) => c.notNull())
      .addColumn('source_id', 'integer', (c) => c.notNull())
      .addColumn('key', 'text', (c) => c.notNull())
      .addColumn('title', 'text', (c) => c.notNull())
      .addColumn('account_id', 'integer')
      .addColumn('time', 'integer')
      .addColumn('link', 'text')
      .addColumn('text', 'text', (c) => c.notNull())
      .addColumn('more', 'text')
      .addUniqueConstraint('item_key', ['study_id', 'key'])
      .execute();
    await schema
      .createTable('follow')
      .addColumn('study_id', 'text', (c) => c.notNull())
      .addColumn('followed_id', 'integer', (c) => c.notNull())
      .addColumn('follower_id', 'integer', (c) => c.notNull())
      .addColumn('source_id', 'integer', (c) => c.notNull())
      .addPrimaryKeyConstraint('follow_key', ['study_id', 'followed_id', 'follower_id', 'source_id'])
      .modifyEnd(sql`without rowid`)
      .execute();
    await schema
      .createTable('profile')
      .addColumn('study_id', 'text', (c) => c.notNull())
      .addColumn('account_id', 'integer', (c) => c.notNull())
      .addColumn('source_id', 'integer', (c) => c.notNull())
      .addColumn('profile', 'text', (c) => c.notNull())
      .addPrimaryKeyConstraint('profile_key', ['study_id', 'account_id', 'source_id'])
      .modifyEnd(sql`without rowid`)
      .execute();
    await sql`update step set kind = 'import-source' where kind = 'import-messages'`.execute(db);
  },
};

/** Languages, stars and notes of messages, kept filters, and the index that threads are read by. */
const reading: Migration = {
  async up(db: Kysely<unknown>): Promise<void> {
    const { schema } = db;
    await schema
      .createTable('message_language')
      .addColumn('message_id', 'integer', (c) => c.primaryKey())
      .addColumn('language', 'text', (c) => c.notNull())
      .addColumn('how', 'text', (c) => c.notNull())
      .execute();
    await schema
      .createTable('message_mark')
      .addColumn('message_id', 'integer', (c) => c.primaryKey())
      .addColumn('starred', 'integer', (c) => c.notNull())
      .addColumn('note', 'text', (c) => c.notNull())
      .execute();
    await schema
      .createTable('saved_filter')
      .addColumn('id', 'integer', (c) => c.primaryKey())
      .addColumn('study_id', 'text', (c) => c.notNull())
      .addColumn('name', 'text', (c) => c.notNull())
      .addColumn('filter', 'text', (c) => c.notNull())
      .addUniqueConstraint('saved_filter_name', ['study_id', 'name'])
      .execute();
    await buildRowIndexes(db, ['message']);
  },
};

/** Collecting runs. */
const collecting: Migration = {
  async up(db: Kysely<unknown>): Promise<void> {
    const text = ['study_id', 'name', 'service', 'plan', 'counts', 'notes', 'state', 'created_at'];
    let table = db.schema.createTable('collect_run').addColumn('id', 'text', (c) => c.primaryKey());
    for (const name of text) table = table.addColumn(name, 'text', (c) => c.notNull());
    await table
      .addColumn('place', 'text')
      .addColumn('spool_bytes', 'integer', (c) => c.notNull())
      .addColumn('share', 'real')
      .addColumn('wait_until', 'integer')
      .addColumn('error', 'text')
      .addColumn('source_id', 'integer')
      .addColumn('previous', 'text')
      .addColumn('service_state', 'text')
      .addColumn('ended_by_hand', 'integer', (c) => c.notNull())
      .addColumn('ended_at', 'text')
      .execute();
  },
};

/** There are other weaves than those of accounts: each says what it is. */
const weaves: Migration = {
  async up(db: Kysely<unknown>): Promise<void> {
    const whole = `'$.what', 'accounts', '$.mostReceivers', null, '$.share', 'whole'`;
    await sql`update network set weave = json_set(weave, ${sql.raw(whole)}) where weave <> 'null'`.execute(
      db,
    );
    await sql`update step set parameters = json_set(parameters, '$.weave', json_set(json_extract(parameters, '$.weave'), ${sql.raw(whole)})),
      kind = 'weave' where kind = 'weave-accounts'`.execute(db);
  },
};

/** What was decided of things, and the names that were found in texts. */
const tidy: Migration = {
  async up(db: Kysely<unknown>): Promise<void> {
    const { schema } = db;
    await schema
      .createTable('tidy_decision')
      .addColumn('id', 'integer', (c) => c.primaryKey().autoIncrement())
      .addColumn('study_id', 'text', (c) => c.notNull())
      .addColumn('step_id', 'integer', (c) => c.notNull())
      .addColumn('sort', 'text', (c) => c.notNull())
      .addColumn('key', 'text', (c) => c.notNull())
      .addColumn('verdict', 'text', (c) => c.notNull())
      .addColumn('taken_back', 'integer', (c) => c.notNull())
      .execute();
    await schema
      .createIndex('tidy_decision_study')
      .on('tidy_decision')
      .columns(['study_id', 'sort'])
      .execute();
    await schema
      .createTable('name')
      .addColumn('id', 'integer', (c) => c.primaryKey())
      .addColumn('study_id', 'text', (c) => c.notNull())
      .addColumn('name_key', 'text', (c) => c.notNull())
      .addColumn('label', 'text', (c) => c.notNull())
      .addColumn('kind', 'text', (c) => c.notNull())
      .addUniqueConstraint('name_key', ['study_id', 'name_key'])
      .execute();
    await schema
      .createTable('message_name')
      .addColumn('name_id', 'integer', (c) => c.notNull())
      .addColumn('message_id', 'integer', (c) => c.notNull())
      .addPrimaryKeyConstraint('message_name_pair', ['name_id', 'message_id'])
      .execute();
    await schema
      .createTable('message_score')
      .addColumn('message_id', 'integer', (c) => c.notNull())
      .addColumn('scorer', 'text', (c) => c.notNull())
      .addColumn('value', 'real', (c) => c.notNull())
      .addPrimaryKeyConstraint('message_score_pair', ['message_id', 'scorer'])
      .execute();
    await schema
      .alterTable('network')
      .addColumn('decisions', 'text', (c) => c.notNull().defaultTo('[]'))
      .execute();
  },
};

/** Networks that are slices in time of another one. */
const slices: Migration = {
  async up(db: Kysely<unknown>) {
    await db.schema.alterTable('network').addColumn('slice', 'text').execute();
  },
};

/** What whole networks are like. */
const whole: Migration = {
  async up(db: Kysely<unknown>) {
    await db.schema.alterTable('network').addColumn('whole', 'text').execute();
  },
};

/** Quotes and answers to comments are ways of addressing of their own; weaves that counted them as replies name them now. */
const ownAddresses: Migration = {
  async up(db: Kysely<unknown>) {
    for (const kind of ['quote', 'comment'] as const) {
      await sql`update address set kinds = (kinds & ~${sql.lit(KIND_BIT.reply)}) | ${sql.lit(KIND_BIT[kind])}
        where kinds & ${sql.lit(KIND_BIT.reply)} and exists (select 1 from message m
          where m.id = address.message_id and m.kind = ${kind} and m.parent_author_id = address.to_id)`.execute(
        db,
      );
      const occurs = (table: string) => sql`exists (select 1 from message m
        where m.study_id = ${sql.ref(`${table}.study_id`)} and m.kind = ${kind} and m.parent_author_id is not null)`;
      const has = (json: string, path: string) =>
        sql`exists (select 1 from json_each(${sql.ref(json)}, ${path}) where value = 'reply')`;
      await sql`update network set weave = json_insert(weave, '$.kinds[#]', ${kind})
        where ${has('network.weave', '$.kinds')} and ${occurs('network')}`.execute(db);
      await sql`update step set parameters = json_insert(parameters, '$.weave.kinds[#]', ${kind})
        where ${has('step.parameters', '$.weave.kinds')} and ${occurs('step')}`.execute(db);
    }
  },
};

/** How groupings of nodes were found. */
const groupings: Migration = {
  async up(db: Kysely<unknown>) {
    await db.schema
      .alterTable('network')
      .addColumn('groupings', 'text', (c) => c.notNull().defaultTo('{}'))
      .execute();
  },
};

/** Looks of maps that were kept by name. */
const looks: Migration = {
  async up(db: Kysely<unknown>) {
    await db.schema
      .createTable('kept_look')
      .addColumn('name', 'text', (c) => c.primaryKey())
      .addColumn('look', 'text', (c) => c.notNull())
      .execute();
  },
};

/** Networks that hands made of other ones by changes. */
const changedNetworks: Migration = {
  async up(db: Kysely<unknown>) {
    await db.schema.alterTable('network').addColumn('changed', 'text').execute();
  },
};

/** Pictures for nodes. */
const pictures: Migration = {
  async up(db: Kysely<unknown>) {
    await db.schema
      .createTable('node_picture')
      .addColumn('study_id', 'text', (c) => c.notNull().references('study.id'))
      .addColumn('name', 'text', (c) => c.notNull())
      .addColumn('image', 'text', (c) => c.notNull())
      .addPrimaryKeyConstraint('node_picture_key', ['study_id', 'name'])
      .execute();
  },
};

/** Maps that showed ties of weight 1 or more show all: where weights lie below 1, none were left. */
const allTies: Migration = {
  async up(db: Kysely<unknown>) {
    const least = sql`json_extract(description, '$.show.atLeast')`;
    await sql`update map set description = json_set(description, '$.show.atLeast', 0) where ${least} = 1`.execute(
      db,
    );
  },
};

/** By whom an account is addressed is found without going through all messages. */
const addressIndex: Migration = {
  up: (db: Kysely<unknown>) => buildRowIndexes(db, ['address']),
};

/** What follows a step is kept until it has ended. */
const followUps: Migration = {
  async up(db: Kysely<unknown>) {
    await db.schema
      .createTable('follow_up')
      .addColumn('id', 'integer', (c) => c.primaryKey())
      .addColumn('study_id', 'text', (c) => c.notNull().references('study.id'))
      .addColumn('kind', 'text', (c) => c.notNull())
      .addColumn('parameters', 'text', (c) => c.notNull())
      .addColumn('beginnings', 'integer', (c) => c.notNull())
      .execute();
  },
};

/**
 * Every change of the tables of a data folder that held all studies in one file, in its order. Such a folder is brought to its last form,
 * and then taken apart.
 */
export const MIGRATIONS: Readonly<Record<string, Migration>> = {
  '0001-first': first,
  '0002-materials': materials,
  '0003-people': people,
  '0004-reading': reading,
  '0005-collecting': collecting,
  '0006-weaves': weaves,
  '0007-tidy': tidy,
  '0008-slices': slices,
  '0009-whole': whole,
  '0010-own-addresses': ownAddresses,
  '0011-groupings': groupings,
  '0012-looks': looks,
  '0013-changed-networks': changedNetworks,
  '0014-pictures': pictures,
  '0015-all-ties': allTies,
  '0016-address-index': addressIndex,
  '0017-follow-ups': followUps,
};

/** Brings the tables of one file to their last form; each migration runs once. */
export async function migrateOneFile(db: unknown): Promise<void> {
  const migrator = new Migrator({
    db: db as Kysely<unknown>,
    provider: { getMigrations: () => Promise.resolve({ ...MIGRATIONS }) },
  });
  const { error } = await migrator.migrateToLatest();
  if (error) throw error instanceof Error ? error : new Error(String(error));
}
