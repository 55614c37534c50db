import { copyFileSync, mkdirSync, rmSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { counted, formatCount } from '@pebble/core';
import {
  aboutCopy,
  beginDuplicate,
  copyDatabase,
  NoStudy,
  noteStep,
  TABLES,
  takeRows,
} from '../../storage/copyStudy';
import { listRuns, UNFINISHED } from '../../storage/collectRuns';
import { isAmong } from '../../storage/lists';
import { readDecisions } from '../../storage/decisions';
import { savedFilters } from '../../storage/filters';
import { newStudyId } from '../../storage/ids';
import { listNetworks, readMap } from '../../storage/networks';
import { dataFolderOf, studyFile, studyFolder, type Store } from '../../storage/open';
import { listSteps } from '../../storage/steps';
import { archivePath, savedPath, uploadPath } from '../../files/places';
import { BadPackage } from '../../files/openedZip';
import { checkPackage, unpackPackage } from '../../storage/savedStudy/readPackage';
import { studyFiles, writePackage } from '../../storage/savedStudy/writePackage';
import { StepRefused } from '../../errors/stepErrors';
import type { Progress } from '../../threads/progress';
import type { StepContext, StepDefinition } from '../step';

interface Duplicated extends Record<string, unknown> {
  /** The id of the new study. */
  readonly study: string;
  readonly files: number;
}

/** A second study with everything that this one has; what is done in one leaves the other as it is. */
export const duplicateStudy: StepDefinition<'duplicate-study', Duplicated> = {
  kind: 'duplicate-study',
  async run(context, { name }, progress) {
    const { store, files, now } = context;
    const study = newStudyId();
    const folder = files.folder(studyFolder(dataFolderOf(store), study));
    await copyDatabase(store.folder, studyFile(folder), progress);
    beginDuplicate(studyFile(folder), name, now);
    const places = studyFiles(store.folder);
    for (const [i, place] of places.entries()) {
      progress('Copying networks', i / places.length);
      mkdirSync(dirname(join(folder, place)), { recursive: true, mode: 0o700 });
      copyFileSync(join(store.folder, place), join(folder, place));
    }
    return { study, files: places.length };
  },
  afterwards: async (studies, _, result) => {
    if (result) await studies.adopt(result.study);
  },
  describe: ({ name }, result) =>
    result ? `The study was duplicated as “${name}”.` : `The study was to be duplicated as “${name}”.`,
};

interface Saved extends Record<string, unknown> {
  readonly files: number;
  readonly bytes: number;
}

/** Everything of the study in one file, to be kept, handed on and opened again. */
export const saveStudy: StepDefinition<'save-study', Saved> = {
  kind: 'save-study',
  async run(context, _, progress) {
    const { store, files, step } = context;
    return pack(context, files.place(savedPath(store.folder, step)), progress);
  },
  describe: (_, result) =>
    result
      ? `The study was saved as one file (${counted(result.files, 'file')} in it, ${megabytes(result.bytes)}).`
      : 'The study was to be saved as one file.',
};

/** The study is packed into one file beside the others and closed; it can be opened again. */
export const archiveStudy: StepDefinition<'archive-study', Saved> = {
  kind: 'archive-study',
  async run(context, _, progress) {
    const { store, files, now, step } = context;
    const target = archivePath(dataFolderOf(store), store.study);
    mkdirSync(dirname(target), { recursive: true, mode: 0o700 });
    const open = await store.query
      .selectFrom('collect_run')
      .select('name')
      .where(isAmong('state', UNFINISHED))
      .executeTakeFirst();
    if (open)
      throw new StepRefused(`The collecting run “${open.name}” is at work. End it or pause it first.`);
    const saved = await pack(context, files.place(target), progress, (copy) =>
      noteStep(copy, { id: step, kind: 'archive-study', sentence: ARCHIVED, now }),
    );
    // The folder goes after this: what is packed has to be whole.
    await checkPackage(files.place(target), progress);
    await store.query.updateTable('study').set({ archived_at: now }).execute();
    return saved;
  },
  afterwards: async (studies, study, result) => {
    if (result) await studies.putAway(study);
  },
  describe: (_, result) => (result ? ARCHIVED : 'The study was to be archived.'),
};

const ARCHIVED = 'The study was archived: packed into one file and closed.';

interface Opened extends Record<string, unknown> {
  readonly name: string;
  readonly messages: number;
}

/** A study that was saved as one file becomes one of this data folder; of a file that is not right nothing is taken. */
export const openStudy: StepDefinition<'open-study', Opened> = {
  kind: 'open-study',
  async run({ store, files, now }, { upload, file }, progress) {
    const path = uploadPath(store.folder, upload);
    const unpacked = join(store.folder, 'exports', 'unpacked');
    rmSync(unpacked, { recursive: true, force: true });
    try {
      const { name, messages, tables, files: places } = await unpackPackage(path, unpacked, progress);
      if (tables !== TABLES)
        throw new BadPackage(`Its tables are of another version (${tables}; this one reads ${TABLES}).`);
      await takeRows(store, studyFile(unpacked), progress);
      await readAll(store);
      for (const { place } of places)
        if (place !== 'study.sqlite') files.move(join(unpacked, place), join(store.folder, place));
      await store.query.updateTable('study').set({ archived_at: null, changed_at: now }).execute();
      files.spend(upload);
      return { name, messages };
    } catch (error) {
      if (error instanceof BadPackage || error instanceof NoStudy)
        throw new StepRefused(
          `${error.message} Nothing was opened.`.replace(/( Nothing was opened\.)+$/, ' Nothing was opened.'),
          { file },
        );
      throw error;
    } finally {
      rmSync(unpacked, { recursive: true, force: true });
    }
  },
  afterwards: (studies, study, result) => studies.endOpening(study, result !== null),
  describe: ({ file }, result) =>
    result
      ? `The study was opened from the file ${file} with ${counted(result.messages, 'message')}.`
      : `A study was to be opened from the file ${file}.`,
};

/** Whatever is read as something else than text has to be that: a study in which it is not could be opened, and not worked with. */
async function readAll(store: Store): Promise<void> {
  try {
    await listSteps(store);
    await readDecisions(store);
    await savedFilters(store);
    await listRuns(store);
    for (const { id } of await listNetworks(store)) await readMap(store, id);
  } catch (error) {
    throw new NoStudy(
      `Something in its database cannot be read (${error instanceof Error ? error.name : 'fault'}).`,
    );
  }
}

/** Writes the study, as it was before this step, into a file. */
async function pack(
  context: StepContext,
  target: string,
  progress: Progress,
  change: (database: string) => void = () => undefined,
): Promise<Saved> {
  const { store, now } = context;
  const database = join(store.folder, 'exports', `copy-${context.step}.sqlite`);
  mkdirSync(dirname(database), { recursive: true, mode: 0o700 });
  rmSync(database, { force: true });
  try {
    await copyDatabase(store.folder, database, progress);
    change(database);
    const about = aboutCopy(database);
    rmSync(target, { force: true });
    return await writePackage(
      store.folder,
      database,
      target,
      { ...about, tables: TABLES, savedAt: now },
      progress,
    );
  } finally {
    rmSync(database, { force: true });
  }
}

function megabytes(bytes: number): string {
  return `${formatCount(Math.max(1, Math.round(bytes / 1024 ** 2)))} MB`;
}
