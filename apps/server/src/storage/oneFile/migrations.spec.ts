import SqliteDatabase from 'better-sqlite3';
import { Kysely, SqliteDialect, sql } from 'kysely';
import { KIND_BIT } from '@pebble/core';
import { migrateOneFile as migrate, MIGRATIONS } from './migrations';

describe('the migrations of a data folder with one file', () => {
  let db: Kysely<unknown>;

  beforeEach(() => {
    db = new Kysely({ dialect: new SqliteDialect({ database: new SqliteDatabase(':memory:') }) });
  });
  afterEach(() => db.destroy());

  const columnsOf = async (table: string): Promise<string[]> =>
    (await sql<{ name: string }>`select name from pragma_table_info(${table})`.execute(db)).rows.map(
      ({ name }) => name,
    );
  const found = async (word: string): Promise<number[]> =>
    (
      await sql<{
        id: number;
      }>`select rowid as id from message_text where message_text match ${word}`.execute(db)
    ).rows.map(({ id }) => id);

  it('bring a data folder of the first form to the newest, with everything in it', async () => {
    await MIGRATIONS['0001-first'].up(db);
    await sql`insert into message (id, study_id, source_id, key, author_id, kind, text)
      values (7, 's', 1, 'k', 1, 'post', 'The lamps are dimmed')`.execute(db);
    await sql`insert into network (id, study_id, step_id, name, weave, sentence, nodes, edges, messages, state, measures, created_at)
      values ('n', 's', 1, 'N', '{"kinds":["reply"]}', '', 1, 1, 1, 'woven', '{}', '')`.execute(db);
    await sql`insert into step (id, study_id, kind, state, parameters, sentence, started_at)
      values (1, 's', 'weave-accounts', 'done', '{"name":"N","weave":{"kinds":["reply"]}}', '', '')`.execute(
      db,
    );
    await sql`create table kysely_migration (name varchar(255) primary key, timestamp varchar(255) not null)`.execute(
      db,
    );
    await sql`insert into kysely_migration values ('0001-first', '2026-03-01T00:00:00.000Z')`.execute(db);

    await sql`insert into map (network_id, description, moved) values ('n', '{"show":{"atLeast":1}}', 0), ('o', '{"show":{"atLeast":3}}', 0)`.execute(
      db,
    );
    await migrate(db);
    const maps = await sql<{ description: string }>`select description from map order by network_id`.execute(
      db,
    );
    expect(maps.rows.map(({ description }) => (JSON.parse(description) as { show: unknown }).show)).toEqual([
      { atLeast: 0 },
      { atLeast: 3 },
    ]);
    expect(await found('lamps')).toEqual([7]);
    expect(await columnsOf('message')).toContain('subject');
    expect(await columnsOf('source')).toContain('removed_at');
    const { rows } = await sql<{
      directed: number;
      own_columns: string;
      weave: string;
    }>`select directed, own_columns, weave from network`.execute(db);
    expect(rows).toMatchObject([{ directed: 1, own_columns: '[]' }]);
    expect(JSON.parse(rows[0].weave)).toEqual({
      kinds: ['reply'],
      what: 'accounts',
      mostReceivers: null,
      share: 'whole',
    });
    const { rows: steps } = await sql<{
      kind: string;
      parameters: string;
    }>`select kind, parameters from step`.execute(db);
    expect(steps.map(({ kind }) => kind)).toEqual(['weave']);
    expect(JSON.parse(steps[0].parameters)).toMatchObject({ name: 'N', weave: { what: 'accounts' } });
  });

  it('tell quotes from replies in what was stored before, and keep the weaves that counted both', async () => {
    await migrate(db);
    await sql`insert into message (id, study_id, source_id, key, author_id, parent_author_id, kind, text)
      values (1, 's', 1, 'a', 1, 2, 'reply', ''), (2, 's', 1, 'b', 1, 2, 'quote', '@x'), (3, 's', 1, 'c', 3, 1, 'comment', '')`.execute(
      db,
    );
    await sql`insert into address (study_id, message_id, to_id, from_id, kinds, time)
      values ('s', 1, 2, 1, 1, 0), ('s', 2, 2, 1, 3, 0), ('s', 2, 4, 1, 2, 0), ('s', 3, 1, 3, 1, 0)`.execute(
      db,
    );
    const network = (id: string, study: string, weave: string) =>
      sql`insert into network (id, study_id, step_id, name, weave, sentence, nodes, edges, messages, state, measures, created_at)
        values (${id}, ${study}, 1, 'N', ${weave}, '', 1, 1, 1, 'woven', '{}', '')`.execute(db);
    await network('n', 's', '{"kinds":["reply","mention"]}');
    await network('mentions', 's', '{"kinds":["mention"]}');
    await network('other', 'without quotes', '{"kinds":["reply"]}');
    await network('file', 's', 'null');
    await MIGRATIONS['0010-own-addresses'].up(db);
    const { rows: kinds } = await sql<{
      kinds: number;
    }>`select kinds from address order by message_id, to_id`.execute(db);
    const { reply, mention, quote, comment } = KIND_BIT;
    expect(kinds.map((row) => row.kinds)).toEqual([reply, quote | mention, mention, comment]);
    const { rows } = await sql<{ id: string; weave: string }>`select id, weave from network`.execute(db);
    const woven = rows.map(({ id, weave }) => [id, (JSON.parse(weave) as { kinds: string[] } | null)?.kinds]);
    expect(Object.fromEntries(woven)).toEqual({
      n: ['reply', 'mention', 'quote', 'comment'],
      mentions: ['mention'],
      other: ['reply'],
      file: undefined,
    });
  });

  it('can be run again without harm, and give the same tables to a new folder', async () => {
    await migrate(db);
    await migrate(db);
    expect(await columnsOf('saved_reading')).toEqual(['id', 'name', 'columns', 'reading']);
    expect(await found('lamps')).toEqual([]);
  });
});
