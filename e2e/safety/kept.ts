import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import SqliteDatabase from 'better-sqlite3';

/** What an application keeps: how many rows each table has, and what does not fit together. */
export interface Kept {
  readonly rows: Readonly<Record<string, number>>;
  readonly faults: readonly string[];
  /** Files that belong to nothing: they are cleared away at the next start. */
  readonly orphans: readonly string[];
}

/** Steps are told by themselves, the index of the texts has tables of its own, and thumbnails are made when somebody looks. */
const LEFT_OUT = /^(?:step|sqlite_.*|.*_fts.*|thumbnail.*)$/;

/** Looks into the data folder of an application that is not running: all its studies together. */
export function keptIn(folder: string): Kept {
  const studies = join(folder, 'studies');
  const all = readdirSync(studies)
    .filter((id) => /^[0-9a-f]+$/.test(id))
    .map((id) => keptInStudy(join(studies, id)));
  const unfinished = readdirSync(studies).filter((id) => !/^[0-9a-f]+$/.test(id));
  const rows: Record<string, number> = {};
  for (const one of all)
    for (const [name, count] of Object.entries(one.rows)) rows[name] = (rows[name] ?? 0) + count;
  return {
    rows,
    faults: all.flatMap(({ faults }) => faults),
    orphans: [...all.flatMap(({ orphans }) => orphans), ...unfinished],
  };
}

function keptInStudy(folder: string): Kept {
  const database = new SqliteDatabase(join(folder, 'study.sqlite'));
  try {
    const names = database
      .prepare("select name from sqlite_master where type = 'table'")
      .pluck()
      .all() as string[];
    const rows = Object.fromEntries(
      names
        .filter((name) => !LEFT_OUT.test(name))
        .map((name) => [name, database.prepare(`select count(*) from "${name}"`).pluck().get() as number]),
    );
    const integrity = database.pragma('integrity_check', { simple: true }) as string;
    const networks = database.prepare('select id from network').pluck().all() as string[];
    const folders = existsSync(join(folder, 'networks')) ? readdirSync(join(folder, 'networks')) : [];
    return {
      rows,
      faults: [
        ...(integrity === 'ok' ? [] : [`integrity: ${integrity}`]),
        ...networks.filter((id) => !folders.includes(id)).map((id) => `network ${id} has no files`),
      ],
      orphans: [
        ...folders.filter((id) => !networks.includes(id)).map((id) => `the files ${id} are of no network`),
        ...waitingIn(folder),
      ],
    };
  } finally {
    database.close();
  }
}

function waitingIn(folder: string): string[] {
  return readdirSync(folder, { recursive: true })
    .map(String)
    .filter((name) => /\.(?:waiting|part)$/.test(name));
}

/** Tables whose rows differ, "message 1500 instead of 1499". */
export function difference(found: Kept, expected: Kept): string[] {
  return Object.keys({ ...found.rows, ...expected.rows })
    .filter((name) => found.rows[name] !== expected.rows[name])
    .map((name) => `${name} ${found.rows[name]} instead of ${expected.rows[name]}`);
}
