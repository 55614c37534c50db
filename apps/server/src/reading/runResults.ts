import { createHash, type Hash } from 'node:crypto';
import type { RoutineRun } from '@pebble/contract';
import { madeThing, textsIn, type TableColumns } from '@pebble/core';
import { readTable } from '../storage/files/tables';
import { findNetwork, readPositions } from '../storage/networks';
import type { Store } from '../storage/open';
import { findPlate, platePositions } from '../storage/plates';
import { findRun } from '../storage/routineRuns';

/** SHA-256 of each network and plate of a run that is there, by the step that made it; null where there is no such run. */
export async function runResults(store: Store, id: number): Promise<Record<string, string> | null> {
  const run = await findRun(store, id);
  return run && resultsOf(store, run);
}

async function resultsOf(store: Store, { routine, made }: RoutineRun): Promise<Record<string, string>> {
  const results: Record<string, string> = {};
  for (const step of routine.steps) {
    const thing = made[step.name];
    if (thing === undefined || madeThing(step) === 'source') continue;
    const sum = typeof thing === 'string' ? await networkSum(store, thing) : await plateSum(store, thing);
    if (sum !== null) results[step.name] = sum;
  }
  return results;
}

/** Of its tables and where its nodes are, as they are before people are called otherwise. */
async function networkSum(store: Store, id: string): Promise<string | null> {
  const network = await findNetwork(store, id);
  if (network?.state !== 'measured') return null;
  const hash = createHash('sha256');
  for (const part of ['nodes', 'edges'] as const) addTable(hash, readTable(store.folder, id, part));
  hash.update((await readPositions(store, id)) ?? 'nowhere');
  return hash.digest('hex');
}

/** Of what it shows and where nodes are, whatever it is called. */
async function plateSum(store: Store, id: number): Promise<string | null> {
  const plate = await findPlate(store, id);
  if (!plate) return null;
  return createHash('sha256')
    .update(JSON.stringify(plate.map))
    .update((await platePositions(store, id)) ?? 'nowhere')
    .digest('hex');
}

function addTable(hash: Hash, table: TableColumns): void {
  for (const [name, values] of Object.entries(table).sort(([a], [b]) => (a < b ? -1 : 1))) {
    hash.update(`\u0001${name}\u0001`);
    if (ArrayBuffer.isView(values))
      hash.update(new Uint8Array(values.buffer, values.byteOffset, values.byteLength));
    else for (const text of textsIn(values)) hash.update(`${text}\u0000`);
  }
}
