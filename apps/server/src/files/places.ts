import { randomUUID } from 'node:crypto';
import { join } from 'node:path';

const ID = /^[0-9a-f-]{8,50}$/;

/** Paths in the data folder; ids are checked, so that no name from outside becomes a path. */
export function uploadPath(folder: string, id: string): string {
  return join(folder, 'uploads', checked(id));
}

/** The id of a file that is sent to a study. */
export function newUploadId(study: string): string {
  return `${study}-${randomUUID()}`;
}

/** The id of a file that comes out of another one, which was sent to the same study. */
export function uploadIdBeside(id: string): string {
  return `${id.slice(0, -UUID_LENGTH)}${randomUUID()}`;
}

const UUID_LENGTH = 36;

/** Whether a file was sent to a study; files that were sent by an earlier version do not say to which. */
export function isUploadOf(study: string, id: string): boolean {
  return ID.test(id) && (id.length <= UUID_LENGTH || id.startsWith(`${study}-`));
}

export function networkPath(folder: string, id: string, table: NetworkPart): string {
  return join(folder, 'networks', checked(id), `${table}.arrow`);
}

/** What is kept of a network: its nodes, its ties, and which messages stand behind them. */
export type NetworkPart = 'nodes' | 'edges' | 'evidence';

/** What a collecting run brought so far. */
export function spoolPath(folder: string, run: string): string {
  return join(folder, 'collecting', `${checked(run)}.jsonl`);
}

export function skippedPath(folder: string, step: number): string {
  return join(folder, 'uploads', `skipped-${Math.trunc(step)}.csv`);
}

function checked(id: string): string {
  if (!ID.test(id)) throw new RangeError('This is not an id of a file.');
  return id;
}
