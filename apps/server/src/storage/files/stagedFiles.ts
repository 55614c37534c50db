import { existsSync, mkdirSync, readdirSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { dirname, join, relative } from 'node:path';
import { toArrow, type TableColumns } from '@pebble/core';
import type { Store } from '../open';
import { networkPath, skippedPath, uploadPath, type NetworkPart } from '../../files/places';

/** How files end that wait for the end of their step. */
const WAITING = '.waiting';

/**
 * The files that a step writes and takes away. They wait beside their places until the step is committed, and what is to happen to them is
 * written down in its transaction: after a kill or a failure at any moment there is either all of the old or all of the new.
 */
export class StagedFiles {
  /** By place: whether something waits to come there, or what is there is to go. */
  private readonly waiting = new Map<string, 'comes' | 'goes'>();

  constructor(
    private readonly store: Store,
    private readonly step: number,
  ) {}

  /** A table of a network. */
  table(network: string, part: NetworkPart, columns: TableColumns): void {
    this.write(networkPath(this.store.folder, network, part), toArrow(columns));
  }

  /** The rows that the step left out, as CSV. */
  skipped(csv: string): void {
    this.write(skippedPath(this.store.folder, this.step), `\ufeff${csv}`);
  }

  /** A text in the place of another one. */
  text(path: string, text: string): void {
    this.write(path, text);
  }

  /** Where something else writes a file that is to come to a place. */
  place(path: string): string {
    mkdirSync(dirname(path), { recursive: true, mode: 0o700 });
    this.waiting.set(path, 'comes');
    return path + WAITING;
  }

  /** The same for a folder, which is there and empty. */
  folder(path: string): string {
    const waiting = this.place(path);
    rmSync(waiting, { recursive: true, force: true });
    mkdirSync(waiting, { mode: 0o700 });
    return waiting;
  }

  /** Moves a file that is there to a place. */
  move(from: string, path: string): void {
    renameSync(from, this.place(path));
  }

  /** Uploaded bytes that are used up: they stay for another try where the step is not done. */
  spend(upload: string): void {
    this.waiting.set(uploadPath(this.store.folder, upload), 'goes');
  }

  /** Takes a file or a folder away. */
  remove(path: string): void {
    this.waiting.set(path, 'goes');
  }

  /** Writes down what is to happen, in the transaction of the step. */
  async note(): Promise<void> {
    for (const [path, what] of this.waiting)
      await this.store.query
        .insertInto('staged_file')
        .values({ place: relative(this.store.folder, path), comes: what === 'comes' ? 1 : 0 })
        .onConflict((c) => c.column('place').doUpdateSet({ comes: what === 'comes' ? 1 : 0 }))
        .execute();
  }

  /** Takes away what was written, where the step is not done. */
  drop(): void {
    for (const [path, what] of this.waiting)
      if (what === 'comes') rmSync(path + WAITING, { recursive: true, force: true });
  }

  private write(path: string, bytes: Uint8Array | string): void {
    mkdirSync(dirname(path), { recursive: true });
    this.waiting.set(path, 'comes');
    writeFileSync(path + WAITING, bytes);
  }
}

/** Puts the files of a committed step in their places; done again after a kill it does what was left. */
export async function placeFiles({ query, folder }: Store): Promise<void> {
  const rows = await query.selectFrom('staged_file').selectAll().execute();
  if (rows.length === 0) return;
  for (const { place, comes } of rows) {
    const path = join(folder, place);
    if (!comes) rmSync(path, { recursive: true, force: true });
    else if (existsSync(path + WAITING)) renameSync(path + WAITING, path);
  }
  await query.deleteFrom('staged_file').execute();
}

/** Brings the files of a study to what its database says, before anything else is done with it. Returns how many belonged to nothing. */
export async function settleFiles(store: Store): Promise<number> {
  await placeFiles(store);
  const { folder } = store;
  let orphans = 0;
  const take = (path: string): void => {
    rmSync(path, { recursive: true, force: true });
    orphans++;
  };
  for (const name of readdirSync(join(folder, 'uploads')))
    if (name.endsWith(WAITING)) take(join(folder, 'uploads', name));
  const known = new Set((await store.query.selectFrom('network').select('id').execute()).map(({ id }) => id));
  for (const id of readdirSync(join(folder, 'networks'))) {
    const path = join(folder, 'networks', id);
    if (!known.has(id)) take(path);
    else for (const name of readdirSync(path)) if (/\.(?:waiting|part)$/.test(name)) take(join(path, name));
  }
  return orphans;
}
