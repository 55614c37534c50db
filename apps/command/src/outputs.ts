import { copyFileSync, existsSync, mkdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import type { Leaks, Network, NetworkExport, RoutineRun } from '@pebble/contract';
import { counted } from '@pebble/core';
import type { Engine, RunFile } from '@pebble/server/engine';
import { Refused } from './errors';
import { step } from './studies';

/** Throws Refused where a file would be written over. */
export function needRoom(folder: string, names: readonly string[], mayReplace: boolean): void {
  mkdirSync(folder, { recursive: true });
  const there = names.filter((name) => existsSync(join(folder, name)));
  if (there.length > 0 && !mayReplace)
    throw new Refused(
      `${folder} holds ${there.join(', ')} already. Nothing was written; choose another folder, or replace them by --replace.`,
    );
}

/**
 * Writes what a run gives into a folder. Throws Refused where people who have pseudonyms can be found in it.
 * @param allow why it may be written all the same; null for no reason
 */
export async function writeOutputs(
  { runner }: Engine,
  { study, id, routine }: RoutineRun,
  folder: string,
  allow: string | null,
): Promise<readonly Omit<RunFile, 'path'>[]> {
  const allowed = allowedIn((await runner.read('runLeaks', study, id))!, allow);
  const files = (await runner.read('runFiles', study, id))!;
  for (const { name, path } of files) take(path, join(folder, name));
  if (routine.outputs.length > 0 && files.length > 0) {
    const parameters = { routineRun: id, files: files.length, allowed };
    await runner.submit(study, { kind: 'export-run', parameters });
  }
  return files.map(({ name, sha256 }) => ({ name, sha256 }));
}

/** Writes a network as a file. Throws Refused as above. */
export async function writeNetwork(
  engine: Engine,
  { study, id: network }: Network,
  format: NetworkExport,
  path: string,
  allow: string | null,
): Promise<void> {
  const { runner } = engine;
  const allowed = allowedIn(await runner.read('networkLeaks', study, network), allow);
  await step(engine, study, 'export-network', { network, format, allowed });
  const file = await runner.read('exportNetwork', study, { network, format });
  take(file.path, path);
}

/** A file that was written to be taken away is moved to its place. */
function take(from: string, to: string): void {
  copyFileSync(from, to);
  rmSync(from, { force: true });
}

/** Why something may be written in which people can be found; null where nobody can. Throws Refused. */
function allowedIn(leaks: Leaks, reason: string | null): { reason: string; found: number } | null {
  if (leaks.total === 0) return null;
  if (reason === null) throw new Refused(foundIn(leaks));
  return { reason, found: leaks.total };
}

/** Of so many places. */
const MOST_TOLD = 5;

function foundIn({ leaks, total }: Leaks): string {
  const first = leaks.slice(0, MOST_TOLD).map(({ place, kind, text }) => `${place}: ${kind} “${text}”`);
  const more = total > first.length ? `, and ${total - first.length} more` : '';
  return `People who have pseudonyms can be found in ${counted(total, 'place')} of what it gives (${first.join('; ')}${more}). Nothing was written; say why it may be by --allow "REASON".`;
}
