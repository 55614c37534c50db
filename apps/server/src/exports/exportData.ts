import type { Code, DataExport, DataFormat, Profile } from '@pebble/contract';
import { safeCsvRow } from '@pebble/core';
import { readCodes } from '../storage/codings';
import { readAccounts } from '../storage/accounts';
import { readDecisions } from '../storage/decisions';
import { readItems } from '../storage/items';
import type { Store } from '../storage/open';
import { listSteps } from '../storage/steps';
import { exportedMessages } from '../storage/exportedMessages';
import { furtherColumns, isoTime, renamed, type Row, type Rows } from '../storage/tableRows';
import { fileName, writeParts, type ExportedFile } from './writtenFile';

const TYPE: Readonly<Record<DataFormat, string>> = {
  csv: 'text/csv; charset=utf-8',
  jsonl: 'application/jsonl; charset=utf-8',
};

/**
 * Writes messages, accounts, items, decisions or the logbook of a study to a file: in CSV (RFC 4180; a cell that a spreadsheet would run as
 * a formula begins with an apostrophe) or in JSON Lines, which has texts as they are.
 */
export async function exportData(store: Store, asks: DataExport): Promise<ExportedFile> {
  const rows = await rowsOf(store, asks);
  const parts = asks.format === 'csv' ? csv(rows) : jsonLines(rows);
  return {
    path: writeParts(store.folder, parts),
    name: `${fileName(await nameOf(store), 'study')} ${asks.what}.${asks.format}`,
    type: TYPE[asks.format],
  };
}

async function nameOf({ query }: Store): Promise<string> {
  const row = await query.selectFrom('study').select('name').executeTakeFirst();
  return row?.name ?? '';
}

function* csv({ columns, rows }: Rows): Generator<string> {
  yield safeCsvRow(columns);
  for (const row of rows) yield safeCsvRow(columns.map((column) => row[column] ?? null));
}

/** Only what there is. */
function* jsonLines({ columns, rows }: Rows): Generator<string> {
  for (const row of rows) {
    const there = columns.filter((column) => (row[column] ?? '') !== '');
    yield `${JSON.stringify(Object.fromEntries(there.map((column) => [column, row[column]])))}\n`;
  }
}

/** More than there can be of anything. */
const ALL = { offset: 0, limit: Number.MAX_SAFE_INTEGER };

async function rowsOf(store: Store, asks: DataExport): Promise<Rows> {
  switch (asks.what) {
    case 'messages':
      return exportedMessages(store, asks.filter);
    case 'accounts':
      return accounts((await readAccounts(store, { ...asks.filter, ...ALL })).accounts);
    case 'items':
      return items((await readItems(store, { ...asks.filter, ...ALL })).items);
    case 'decisions': {
      const { sort } = asks.filter;
      return decisions(await readDecisions(store, sort ? [sort] : undefined));
    }
    case 'codebook':
      return codebook(await readCodes(store));
    case 'codings':
      return codings(store);
    case 'pseudonyms':
      return pseudonyms(store);
    case 'logbook':
      return logbook(await listSteps(store));
  }
}

/** Handles as they are now, where the account is still there. */
function pseudonyms({ raw }: Store): Rows {
  const rows = raw
    .prepare(
      `select coalesce(a.handle, iif(p.person like '=%', substr(p.person, 2), p.person)) as handle, a.name as name, p.words as words, p.number as number
       from pseudonym p left join account a on a.handle_key = p.person order by p.number`,
    )
    .all() as Row[];
  return { columns: ['handle', 'name', 'words', 'number'], rows };
}

function codebook(codes: readonly Code[]): Rows {
  const columns = ['name', 'set', 'definition', 'examples', 'colour'];
  return { columns, rows: codes.map(({ id: _, ...code }) => code) };
}

/** A row for each code that a coder gave a message, and one without a code where none holds. */
function codings({ raw }: Store): Rows {
  const rows = raw
    .prepare(
      `select m.key, d.coder, k.name, k.code_set, a.handle, m.time, m.text from coded_message d
        join message m on m.id = d.message_id join account a on a.id = m.author_id
        left join coding c on c.message_id = d.message_id and c.coder = d.coder left join code k on k.id = c.code_id
        order by m.id, d.coder, k.place`,
    )
    .raw()
    .all() as [string, string, string | null, string | null, string, number | null, string][];
  return {
    columns: ['message', 'coder', 'code', 'set', 'author', 'time', 'text'],
    rows: rows.map(([message, coder, code, set, author, time, text]) => ({
      message,
      coder,
      code,
      set,
      author,
      time: isoTime(time),
      text,
    })),
  };
}

type Accounts = Awaited<ReturnType<typeof readAccounts>>['accounts'];

function accounts(all: Accounts): Rows {
  const own = [
    'handle',
    'name',
    'messages',
    'addressed',
    'followers here',
    'following here',
    'first',
    'last',
    'joined',
    'location',
    'description',
  ];
  return withFurther(
    own,
    all.map((account) => ({
      row: {
        handle: account.handle,
        name: account.name,
        messages: account.messages,
        addressed: account.addressed,
        'followers here': account.followersHere,
        'following here': account.followingHere,
        first: isoTime(account.first),
        last: isoTime(account.last),
        ...ofProfile(account.profile),
      },
      further: { ...account.profile.numbers, ...account.profile.attributes },
    })),
  );
}

function ofProfile({ joined, location, description }: Profile): Row {
  return { joined: isoTime(joined), location, description };
}

type Items = Awaited<ReturnType<typeof readItems>>['items'];

function items(all: Items): Rows {
  return withFurther(
    ['item', 'title', 'channel', 'time', 'link', 'messages', 'authors'],
    all.map(({ key, title, channel, time, link, messages, authors, numbers }) => ({
      row: { item: key, title, channel, time: isoTime(time), link, messages, authors },
      further: numbers,
    })),
  );
}

type Decisions = Awaited<ReturnType<typeof readDecisions>>;

function decisions(all: Decisions): Rows {
  return {
    columns: ['decision', 'sort', 'key', 'verdict', 'into', 'label', 'kind', 'category', 'value', 'step'],
    rows: all.map(({ id, sort, key, step, verdict: { verdict, ...settings } }) => {
      const { name, ...others } = settings as Record<string, string>;
      return { decision: id, sort, key, verdict, ...others, category: name ?? null, step };
    }),
  };
}

type Steps = Awaited<ReturnType<typeof listSteps>>;

function logbook(all: Steps): Rows {
  return {
    columns: [
      'step',
      'kind',
      'state',
      'sentence',
      'error',
      'seed',
      'began',
      'ended',
      'milliseconds',
      'settings',
      'counts',
    ],
    rows: all.map((step) => ({
      step: step.id,
      kind: step.kind,
      state: step.state,
      sentence: step.sentence,
      error: step.error,
      seed: step.seed,
      began: step.startedAt,
      ended: step.endedAt,
      milliseconds: step.duration,
      settings: JSON.stringify(step.parameters),
      counts: step.result && JSON.stringify(step.result),
    })),
  };
}

/** Rows with what else is told of some of them, in columns of their own behind the others. */
function withFurther(
  own: readonly string[],
  all: readonly { readonly row: Row; readonly further: Row }[],
): Rows {
  const names = furtherColumns(own, new Set(all.flatMap(({ further }) => Object.keys(further))));
  return {
    columns: [...own, ...names.values()],
    rows: all.map(({ row, further }) => ({ ...row, ...renamed(further, names) })),
  };
}
