import { AGREED, type Code, type Codebook, type EditedCode, type Sample } from '@pebble/contract';
import { sql, type SqlBool } from 'kysely';
import type { Condition } from './messageFilter';
import type { Store } from './open';

/** Whether a coding "c" holds for its message: as it was agreed, or else as any coder has it. */
const HOLDS = `(c.coder = '${AGREED}' or not exists
  (select 1 from coded_message a where a.message_id = c.message_id and a.coder = '${AGREED}'))`;

/** The condition for messages "m" that have a code, by its name. */
export function hasCode(name: string): Condition {
  return sql<SqlBool>`m.id in (select c.message_id from coding c join code k on k.id = c.code_id where k.name = ${name} and ${sql.raw(HOLDS)})`;
}

/** The messages that have a code. */
export function messagesWithCode({ raw }: Store, code: number): number[] {
  return raw
    .prepare(`select distinct c.message_id from coding c where c.code_id = ? and ${HOLDS}`)
    .pluck()
    .all(code) as number[];
}

/** The codes that hold for messages, in the order of messages. */
export function* codesOfMessages({ raw }: Store): Generator<{
  readonly message: number;
  readonly author: number;
  readonly time: number | null;
  readonly code: string;
}> {
  const rows = raw
    .prepare(
      `select distinct m.id, m.author_id, m.time, k.name from coding c join code k on k.id = c.code_id
        join message m on m.id = c.message_id where ${HOLDS} order by m.id`,
    )
    .raw()
    .iterate();
  for (const [message, author, time, code] of rows as Iterable<[number, number, number | null, string]>)
    yield { message, author, time, code };
}

/** The last step that changed what is coded; 0 where nothing was. */
export function codingRevision({ raw }: Pick<Store, 'raw'>): number {
  const sql = `select max(id) from step where state = 'done' and kind in ('code-message', 'edit-codebook', 'import-codes')`;
  return (raw.prepare(sql).pluck().get() as number | null) ?? 0;
}

/** The codes in their order. */
export async function readCodes({ query }: Store): Promise<Code[]> {
  const rows = await query.selectFrom('code').selectAll().orderBy('place').orderBy('id').execute();
  return rows.map(({ place: _place, code_set, ...code }) => ({ ...code, set: code_set }));
}

/** The codes, who coded, and what is to be coded. */
export async function readCodebook(store: Store): Promise<Codebook> {
  const { query } = store;
  const counts = await sql<{ code_id: number; messages: number }>`
    select c.code_id, count(distinct c.message_id) as messages from coding c where ${sql.raw(HOLDS)} group by c.code_id`.execute(
    query,
  );
  const messages = new Map(counts.rows.map((row) => [row.code_id, row.messages]));
  const coders = await query
    .selectFrom('coded_message')
    .select((e) => ['coder as name', e.fn.countAll<number>().as('messages')])
    .groupBy('coder')
    .orderBy('coder')
    .execute();
  return {
    codes: (await readCodes(store)).map((code) => ({ ...code, messages: messages.get(code.id) ?? 0 })),
    coders: coders.sort((a, b) => Number(a.name === AGREED) - Number(b.name === AGREED)),
    samples: await readSamples(store),
  };
}

async function readSamples({ query }: Store): Promise<Sample[]> {
  const samples = await query
    .selectFrom('sample as s')
    .leftJoin('sample_message as m', 'm.sample_id', 's.id')
    .select((e) => ['s.id', 's.name', 's.step_id as step', e.fn.count<number>('m.message_id').as('messages')])
    .groupBy('s.id')
    .orderBy('s.id', 'desc')
    .execute();
  const coded = await query
    .selectFrom('sample_message as m')
    .innerJoin('coded_message as c', 'c.message_id', 'm.message_id')
    .select((e) => ['m.sample_id', 'c.coder', e.fn.countAll<number>().as('messages')])
    .groupBy(['m.sample_id', 'c.coder'])
    .execute();
  return samples.map((sample) => ({
    ...sample,
    coded: Object.fromEntries(
      coded.filter((row) => row.sample_id === sample.id).map((row) => [row.coder, row.messages]),
    ),
  }));
}

/** Keeps the codes as they are now. Returns how many codings went with codes that are no longer there. */
export async function keepCodes({ query }: Store, codes: readonly EditedCode[]): Promise<number> {
  const before = await query.selectFrom('code').select('id').execute();
  const kept = new Set(codes.map(({ id }) => id));
  let gone = 0;
  for (const { id } of before) {
    if (kept.has(id)) continue;
    const { numDeletedRows } = await query.deleteFrom('coding').where('code_id', '=', id).executeTakeFirst();
    gone += Number(numDeletedRows);
    await query.deleteFrom('code').where('id', '=', id).execute();
  }
  for (const [place, { id, set, ...code }] of codes.entries()) {
    const values = { ...code, code_set: set, place };
    if (id === null) await query.insertInto('code').values(values).execute();
    else await query.updateTable('code').set(values).where('id', '=', id).execute();
  }
  return gone;
}

/** Keeps what a coder gave a message; null where it is taken back. */
export async function keepCoding(
  { query }: Store,
  message: number,
  coder: string,
  codes: readonly number[] | null,
): Promise<void> {
  for (const table of ['coding', 'coded_message'] as const)
    await query.deleteFrom(table).where('message_id', '=', message).where('coder', '=', coder).execute();
  if (codes === null) return;
  await query.insertInto('coded_message').values({ message_id: message, coder }).execute();
  for (const code of new Set(codes))
    await query.insertInto('coding').values({ message_id: message, coder, code_id: code }).execute();
}

/** Keeps messages that are to be coded, in their order. */
export async function keepSample(
  { query, raw }: Store,
  step: number,
  name: string,
  messages: readonly number[],
): Promise<number> {
  const { id } = await query
    .insertInto('sample')
    .values({ step_id: step, name })
    .returning('id')
    .executeTakeFirstOrThrow();
  const insert = raw.prepare('insert into sample_message (sample_id, place, message_id) values (?, ?, ?)');
  messages.forEach((message, place) => insert.run(id, place, message));
  return id;
}

/** The messages of a sample in the order in which they are coded. */
export function messagesOfSample({ raw }: Store, sample: number): number[] {
  return raw
    .prepare('select message_id from sample_message where sample_id = ? order by place')
    .pluck()
    .all(sample) as number[];
}

/** What each coder gave each message of a sample: by coder, by message; messages that one did not code are not there. */
export function codingsOfSample(
  { raw }: Store,
  sample: number,
): ReadonlyMap<string, ReadonlyMap<number, readonly number[]>> {
  const coders = new Map<string, Map<number, number[]>>();
  const rows = raw
    .prepare(
      `select d.coder, d.message_id, c.code_id from sample_message s
        join coded_message d on d.message_id = s.message_id
        left join coding c on c.message_id = d.message_id and c.coder = d.coder
        where s.sample_id = ? order by d.coder, d.message_id, c.code_id`,
    )
    .raw()
    .iterate(sample);
  for (const [coder, message, code] of rows as Iterable<[string, number, number | null]>) {
    let own = coders.get(coder);
    if (!own) coders.set(coder, (own = new Map<number, number[]>()));
    const codes = own.get(message);
    if (!codes) own.set(message, code === null ? [] : [code]);
    else if (code !== null) codes.push(code);
  }
  return coders;
}
