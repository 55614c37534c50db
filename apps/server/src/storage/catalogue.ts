import type SqliteDatabase from 'better-sqlite3';
import type { Kysely, Migration } from 'kysely';
import { renameSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { Damaged, damageOf } from '../files/damage';
import type { CatalogueDatabase } from './catalogueSchema';
import { migrate } from './migrations';
import { closeFile, openFile, type User } from './open';
import type { StudyCard } from './studies';

/** What all studies of a data folder share: their list, and what is kept for all of them. */
export interface Catalogue {
  readonly query: Kysely<CatalogueDatabase>;
  readonly raw: SqliteDatabase.Database;
  close(): Promise<void>;
}

/** A study as it stands in the list. */
export interface ListedStudy extends StudyCard {
  readonly id: string;
}

export const catalogueFile = (dataFolder: string): string => join(dataFolder, 'catalogue.sqlite');

/** A connection to a catalogue that is up to date. */
export function connectCatalogue(dataFolder: string, by: User = 'step'): Catalogue {
  const file = openFile<CatalogueDatabase>(catalogueFile(dataFolder), by);
  return { ...file, close: () => closeFile(file) };
}

/**
 * Makes the catalogue where there is none, and brings it up to date. One that cannot be read is put aside and made anew: what it says of
 * studies they say themselves.
 */
export async function prepareCatalogue(dataFolder: string, told: (what: string) => void): Promise<void> {
  try {
    await bringUpToDate(dataFolder);
  } catch (error) {
    if (!damageOf(error)) throw error;
    const file = catalogueFile(dataFolder);
    for (const end of ['-wal', '-shm']) rmSync(`${file}${end}`, { force: true });
    renameSync(file, `${file}.broken`);
    told(
      'The list of studies (catalogue.sqlite) could not be read, was put aside (catalogue.sqlite.broken) and made anew from the studies. Kept looks of maps, kept readings of tables and kept routines were in it alone.',
    );
    await bringUpToDate(dataFolder);
  }
}

async function bringUpToDate(dataFolder: string): Promise<void> {
  const catalogue = connectCatalogue(dataFolder);
  try {
    await migrate(catalogue.query, CATALOGUE_MIGRATIONS);
    if (catalogue.raw.pragma('quick_check', { simple: true }) !== 'ok')
      throw new Damaged('The list is damaged.');
  } finally {
    await catalogue.close();
  }
}

const first: Migration = {
  async up({ schema }: Kysely<unknown>): Promise<void> {
    await schema
      .createTable('study')
      .addColumn('id', 'text', (c) => c.primaryKey())
      .addColumn('name', 'text', (c) => c.notNull())
      .addColumn('created_at', 'text', (c) => c.notNull())
      .addColumn('changed_at', 'text', (c) => c.notNull())
      .addColumn('deleted_at', 'text')
      .addColumn('archived', 'integer', (c) => c.notNull())
      .addColumn('messages', 'integer', (c) => c.notNull())
      .addColumn('accounts', 'integer', (c) => c.notNull())
      .addColumn('networks', 'integer', (c) => c.notNull())
      .addColumn('latest_network', 'text')
      .execute();
    await schema
      .createTable('saved_reading')
      .addColumn('id', 'integer', (c) => c.primaryKey())
      .addColumn('name', 'text', (c) => c.notNull())
      .addColumn('columns', 'text', (c) => c.notNull())
      .addColumn('reading', 'text', (c) => c.notNull())
      .addUniqueConstraint('saved_reading_name', ['columns', 'name'])
      .execute();
    await schema
      .createTable('kept_look')
      .addColumn('name', 'text', (c) => c.primaryKey())
      .addColumn('look', 'text', (c) => c.notNull())
      .execute();
  },
};

const routines: Migration = {
  async up({ schema }: Kysely<unknown>): Promise<void> {
    await schema
      .createTable('routine')
      .addColumn('id', 'text', (c) => c.primaryKey())
      .addColumn('routine', 'text', (c) => c.notNull())
      .addColumn('changed_at', 'text', (c) => c.notNull())
      .execute();
  },
};

const paces: Migration = {
  async up({ schema }: Kysely<unknown>): Promise<void> {
    await schema
      .createTable('pace')
      .addColumn('id', 'integer', (c) => c.primaryKey())
      .addColumn('kind', 'text', (c) => c.notNull())
      .addColumn('expected', 'real', (c) => c.notNull())
      .addColumn('seconds', 'real', (c) => c.notNull())
      .execute();
  },
};

const CATALOGUE_MIGRATIONS: Readonly<Record<string, Migration>> = {
  '0001-first': first,
  '0002-routines': routines,
  '0003-paces': paces,
};

/** Writes down what the list says of a study. */
export async function listStudy({ query }: Catalogue, { id, ...card }: ListedStudy): Promise<void> {
  const values = {
    name: card.name,
    created_at: card.createdAt,
    changed_at: card.changedAt,
    deleted_at: card.deletedAt,
    archived: card.isArchived ? 1 : 0,
    messages: card.messages,
    accounts: card.accounts,
    networks: card.networks,
    latest_network: card.latestNetwork,
  };
  await query
    .insertInto('study')
    .values({ id, ...values })
    .onConflict((c) => c.column('id').doUpdateSet(values))
    .execute();
}

export async function unlistStudy({ query }: Catalogue, id: string): Promise<void> {
  await query.deleteFrom('study').where('id', '=', id).execute();
}

/** All studies, also the deleted ones, the one changed last first. */
export async function listedStudies({ query }: Catalogue): Promise<ListedStudy[]> {
  const rows = await query.selectFrom('study').selectAll().orderBy('changed_at', 'desc').execute();
  return rows.map(({ created_at, changed_at, deleted_at, archived, latest_network, ...row }) => ({
    ...row,
    createdAt: created_at,
    changedAt: changed_at,
    deletedAt: deleted_at,
    isArchived: archived === 1,
    latestNetwork: latest_network,
  }));
}
