import { existsSync, mkdirSync, readdirSync, renameSync, rmSync, truncateSync } from 'node:fs';
import { join } from 'node:path';
import type { Study, StudyList } from '@pebble/contract';
import { Damaged, damageOf } from '../files/damage';
import { archivePath } from '../files/places';
import { settleFiles } from './files/stagedFiles';
import { clearUnusedUploads } from './files/unusedUploads';
import {
  connectCatalogue,
  listedStudies,
  listStudy,
  prepareCatalogue,
  unlistStudy,
  type Catalogue,
  type ListedStudy,
} from './catalogue';
import { takeApart } from './oneFile/takeApart';
import { goneAt } from './deleted';
import { prepareStudy, studyFile, studyFolder, type Store } from './open';
import { AnsweringStore } from './answeringStore';
import { markInterrupted } from './steps';
import { readCard, type StudyCard } from './studies';

const ID = /^[0-9a-f]{8,32}$/;

/** Milliseconds after which a connection that was not used is closed. */
const IDLE = 60_000;

/** What is said of a study whose folder or database is not there. */
const MISSING =
  'The folder of this study, or its database in it, is missing. Put a copy of the folder in its place and start the application again.';
const NO_ARCHIVE =
  'The file of this archived study is missing in the folder “archive”. Put a copy of it in its place and start the application again.';
const NOT_READ =
  'The database of this study cannot be read. Other studies are not touched. Put the last good copy of its folder in its place and start the application again.';

const EMPTY =
  'The database of this study holds no study any more. Other studies are not touched. Put the last good copy of its folder in its place and start the application again.';

/** The studies of a data folder, each a folder of its own with its own database, for the thread that answers requests. */
export class StudyFolders {
  private readonly stores = new Map<string, AnsweringStore>();
  private readonly listed = new Map<string, ListedStudy>();
  /** Studies that are just being opened from a file: they are not in the list yet. */
  private readonly opening = new Set<string>();
  /** Why a study cannot be opened. */
  private readonly broken = new Map<string, string>();
  private readonly lettingGo = setInterval(() => void this.letGo().catch(() => undefined), IDLE / 2).unref();
  /** Steps that were found as interrupted. */
  interrupted = 0;

  private constructor(
    readonly dataFolder: string,
    readonly catalogue: Catalogue,
  ) {}

  /**
   * Opens a data folder and all studies in it. One of before, when all studies were in one file, is taken apart first. A study that cannot be
   * read is kept and shown as broken; the others are opened.
   */
  static async open(
    dataFolder: string,
    told: (what: string) => void = () => undefined,
  ): Promise<StudyFolders> {
    mkdirSync(join(dataFolder, 'studies'), { recursive: true, mode: 0o700 });
    await prepareCatalogue(dataFolder, told);
    await takeApart(dataFolder, told);
    const studies = new StudyFolders(dataFolder, connectCatalogue(dataFolder, 'answers'));
    for (const study of await listedStudies(studies.catalogue)) studies.listed.set(study.id, study);
    const opened = new Set<string>();
    const openAll = async (ids: Iterable<string>): Promise<void> => {
      for (const id of ids) if (!opened.has(id)) await studies.openOne(id);
      for (const id of ids) opened.add(id);
    };
    const found = (): string[] => readdirSync(join(dataFolder, 'studies')).filter((name) => ID.test(name));
    await openAll(new Set([...found(), ...studies.listed.keys()]));
    // A duplicate may have come to its place while the study was opened that it was made of.
    await openAll(found());
    // What was being made when the application was killed.
    for (const part of ['studies', 'archive']) clearWaiting(join(dataFolder, part));
    return studies;
  }

  /** Every study that can be worked with. */
  *[Symbol.iterator](): Generator<Store> {
    for (const [id, store] of this.stores) if (this.find(id)) yield store;
  }

  /** Whether there are no studies, not even deleted ones. */
  get isEmpty(): boolean {
    return this.listed.size === 0;
  }

  /** The connection to a study that is there and not deleted; null for any other. Throws Damaged where it cannot be read. */
  storeOf(id: string): Store | null {
    const listed = this.listed.get(id);
    const isThere = listed ? listed.deletedAt === null && !listed.isArchived : false;
    return isThere || this.opening.has(id) ? this.anyStoreOf(id) : null;
  }

  /** The same for one that may be deleted. */
  anyStoreOf(id: string): Store | null {
    const reason = this.broken.get(id);
    if (reason !== undefined) throw new Damaged(reason);
    return this.stores.get(id) ?? null;
  }

  folderOf(id: string): string {
    return studyFolder(this.dataFolder, id);
  }

  list(): StudyList {
    const all = [...this.listed.values()].sort((a, b) => (a.changedAt < b.changedAt ? 1 : -1));
    const those = (which: (study: ListedStudy) => boolean): Study[] =>
      all.filter(which).map((one) => this.toStudy(one));
    return {
      studies: those(({ deletedAt, isArchived }) => deletedAt === null && !isArchived),
      deleted: those(({ deletedAt, isArchived }) => deletedAt !== null && !isArchived),
      archived: those(({ isArchived }) => isArchived),
    };
  }

  /** The study as the list has it; null when there is none with this id or it was deleted. */
  find(id: string): Study | null {
    const listed = this.listed.get(id);
    return listed?.deletedAt === null && !listed.isArchived ? this.toStudy(listed) : null;
  }

  /** Makes the folder of a new study, in which its first step can be done. */
  async make(id: string): Promise<Store> {
    if (!ID.test(id)) throw new RangeError('This is not an id of a study.');
    const folder = this.folderOf(id);
    await prepareStudy(folder);
    const store = new AnsweringStore(folder);
    this.stores.set(id, store);
    return store;
  }

  /**
   * Makes the folder in which a study is opened from a file.
   * @param afterStep the number of the last step of the study in the file: its logbook goes on behind it
   */
  async beginOpening(id: string, afterStep: number): Promise<Store> {
    await this.removeFolder(id, 'keep in the list');
    const store = await this.make(id);
    store.raw.prepare("insert into sqlite_sequence (name, seq) values ('step', ?)").run(afterStep);
    this.opening.add(id);
    return store;
  }

  /** What is to be done once it is sure that a study was opened from its file, or was not. */
  async endOpening(id: string, isDone: boolean): Promise<void> {
    this.opening.delete(id);
    if (!isDone) await this.removeFolder(id, 'keep in the list');
    else rmSync(archivePath(this.dataFolder, id), { force: true });
  }

  /** Opens a study whose folder was made by a step. */
  adopt(id: string): Promise<void> {
    return this.openOne(id);
  }

  /** Closes a study that was packed: its folder goes. */
  async putAway(id: string): Promise<void> {
    await this.removeFolder(id, 'keep in the list');
  }

  /** Where the file of an archived study is; null for any other. */
  archiveOf(id: string): string | null {
    if (!this.listed.get(id)?.isArchived) return null;
    const path = archivePath(this.dataFolder, id);
    return existsSync(path) ? path : null;
  }

  /** Writes down what the list says of a study, after a step of it. */
  async writeCard(id: string, card: StudyCard): Promise<void> {
    const study = { id, ...card };
    this.listed.set(id, study);
    await listStudy(this.catalogue, study);
  }

  /** Closes connections that nobody has needed for a while. */
  async letGo(): Promise<void> {
    for (const store of this.stores.values()) await store.letGo(IDLE);
  }

  async close(): Promise<void> {
    clearInterval(this.lettingGo);
    for (const store of this.stores.values()) await store.close();
    await this.catalogue.close();
  }

  private async openOne(id: string): Promise<void> {
    const folder = this.folderOf(id);
    if (this.listed.get(id)?.isArchived && !existsSync(studyFile(folder))) {
      if (!this.archiveOf(id)) this.showBroken(id, NO_ARCHIVE);
      return;
    }
    if (!existsSync(studyFile(folder))) {
      if (this.listed.has(id) || !isBarelyBegun(folder)) this.showBroken(id, MISSING);
      else rmSync(folder, { recursive: true, force: true });
      return;
    }
    try {
      await prepareStudy(folder);
      const store = new AnsweringStore(folder);
      this.stores.set(id, store);
      const card = await readCard(store);
      if (!card && this.archiveOf(id)) return await this.putAway(id);
      if (!card && !this.listed.has(id) && isBarelyBegun(folder)) return await this.removeFolder(id);
      if (!card) throw new Damaged(EMPTY);
      await settleFiles(store);
      this.interrupted += await markInterrupted(store);
      await clearUnusedUploads(store);
      await this.writeCard(id, card);
      // It was packed, and the application was killed before its folder went.
      if (this.archiveOf(id)) return await this.putAway(id);
      // Hundreds of studies are not held open at once.
      await store.letGo(0);
    } catch (error) {
      await this.stores.get(id)?.close();
      this.stores.delete(id);
      // What is left of its folder is not needed: everything is in the archive.
      if (this.archiveOf(id)) return await this.putAway(id);
      this.showBroken(id, damageOf(error)?.message ?? NOT_READ);
    }
  }

  private showBroken(id: string, reason: string): void {
    this.broken.set(id, reason);
    if (!this.listed.has(id)) this.listed.set(id, unknownStudy(id));
  }

  /** Whether it can be removed for good: it was deleted, or cannot be opened. */
  isRemovable(id: string): boolean {
    const listed = this.listed.get(id);
    return this.broken.has(id) || (listed !== undefined && (listed.deletedAt !== null || listed.isArchived));
  }

  /** Studies that have been deleted for long enough. */
  overdue(now = new Date()): string[] {
    return [...this.listed.values()]
      .filter(({ deletedAt }) => deletedAt !== null && Date.parse(goneAt(deletedAt)) <= now.getTime())
      .map(({ id }) => id);
  }

  /** Takes a study away for good: its folder is gone, and what it took on the disk is free, also where a thread has it open still. */
  async removeFolder(id: string, list: 'keep in the list' | 'take out' = 'take out'): Promise<void> {
    const store = this.stores.get(id);
    this.stores.delete(id);
    await store?.end();
    this.broken.delete(id);
    const folder = this.folderOf(id);
    // Under its own name it is whole or not there, also where the application is killed in the middle.
    const going = `${folder}.waiting`;
    rmSync(going, { recursive: true, force: true });
    if (existsSync(folder)) renameSync(folder, going);
    for (const file of filesIn(going)) truncateSync(file);
    rmSync(going, { recursive: true, force: true });
    if (list === 'keep in the list') return;
    rmSync(archivePath(this.dataFolder, id), { force: true });
    if (this.listed.delete(id)) await unlistStudy(this.catalogue, id);
  }

  private toStudy({ deletedAt, isArchived: _, ...study }: ListedStudy): Study {
    return {
      ...study,
      broken: this.broken.get(study.id) ?? null,
      goneAt: deletedAt === null ? null : goneAt(deletedAt),
    };
  }
}

/** Whether a folder holds nothing that somebody made: its study was just being begun when the application was killed. */
function isBarelyBegun(folder: string): boolean {
  return !['networks', 'collecting'].some((part) => [...filesIn(join(folder, part))].length > 0);
}

/** Takes away what was being made in a folder. */
function clearWaiting(folder: string): void {
  if (!existsSync(folder)) return;
  for (const name of readdirSync(folder))
    if (/\.(?:waiting|part)$/.test(name)) rmSync(join(folder, name), { recursive: true, force: true });
}

function* filesIn(folder: string): Generator<string> {
  if (!existsSync(folder)) return;
  for (const entry of readdirSync(folder, { withFileTypes: true, recursive: true }))
    if (entry.isFile()) yield join(entry.parentPath, entry.name);
}

/** A study of which nothing is known but that its folder is there. */
function unknownStudy(id: string): ListedStudy {
  const never = new Date(0).toISOString();
  return {
    id,
    name: `Study ${id}`,
    createdAt: never,
    changedAt: never,
    deletedAt: null,
    isArchived: false,
    messages: 0,
    accounts: 0,
    networks: 0,
    latestNetwork: null,
  };
}
