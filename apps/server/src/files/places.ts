import { readdirSync } from 'node:fs';
import { join } from 'node:path';

const ID = /^[0-9a-f-]{8,50}$/;

/** Paths in the folder of a study; ids are checked, so that no name from outside becomes a path. */
export function uploadPath(folder: string, id: string): string {
  return join(folder, 'uploads', checked(id));
}

/** Whether this is an id that a file can have. */
export const isFileId = (id: string): boolean => ID.test(id);

export function networkPath(folder: string, id: string, table: NetworkPart): string {
  return join(folder, 'networks', checked(id), `${table}.arrow`);
}

/** What is kept of a network: its nodes, its ties, which messages stand behind them, and of one that a package brought their numbers by day. */
export type NetworkPart = 'nodes' | 'edges' | 'evidence' | 'days';

/** What a collecting run brought so far. */
export function spoolPath(folder: string, run: string): string {
  return join(folder, 'collecting', `${checked(run)}.jsonl`);
}

export function skippedPath(folder: string, step: number): string {
  return join(folder, 'uploads', `skipped-${Math.trunc(step)}.csv`);
}

/** The lists of rows that were left out, of all steps. */
export function skippedLists(folder: string): string[] {
  const uploads = join(folder, 'uploads');
  return readdirSync(uploads)
    .filter((name) => /^skipped-\d+\.csv$/.test(name))
    .sort()
    .map((name) => join(uploads, name));
}

/** A study that was saved as one file, by the number of the step. */
export function savedPath(folder: string, step: number): string {
  return join(folder, 'saved', `${Math.trunc(step)}.zip`);
}

/** Where an archived study lies in the data folder. */
export function archivePath(dataFolder: string, study: string): string {
  return join(dataFolder, 'archive', `${checked(study)}.zip`);
}

function checked(id: string): string {
  if (!ID.test(id)) throw new RangeError('This is not an id of a file.');
  return id;
}
