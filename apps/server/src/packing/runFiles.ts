import { randomUUID } from 'node:crypto';
import { createReadStream, createWriteStream, mkdirSync, rmSync } from 'node:fs';
import { createHash } from 'node:crypto';
import { join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import {
  FigureQuery,
  type Leak,
  type Leaks,
  type NetworkExport,
  type RoutineOutput,
  type RoutineRun,
  type RunRecord,
} from '@pebble/contract';
import { methodsMarkdown } from '@pebble/core';
import { ZipFile } from 'yazl';
import { drawFigure, exportFigure } from '../exports/exportFigure';
import { exportNetwork } from '../exports/exportNetwork';
import { fileName, writeBytes, type ExportedFile } from '../exports/writtenFile';
import { readMethods } from '../methods/readMethods';
import { hiddenPeople, NO_LEAKS, told } from '../people/identities';
import { leaksInTables } from '../people/readPeople';
import { publishedTable } from '../people/publishedTable';
import { readTable } from '../storage/files/tables';
import { findNetwork } from '../storage/networks';
import type { Store } from '../storage/open';
import { findPlate } from '../storage/plates';
import { findRun } from '../storage/routineRuns';

/** How the file of each form of a network ends. */
const ENDINGS: Readonly<Record<NetworkExport, string>> = {
  graphml: 'graphml',
  'csv-nodes': 'nodes.csv',
  'csv-ties': 'ties.csv',
  xlsx: 'xlsx',
  gml: 'gml',
  'json-graph': 'json',
  'node-link': 'node-link.json',
  dot: 'gv',
  'arrow-nodes': 'nodes.arrow',
  'arrow-ties': 'ties.arrow',
  'parquet-nodes': 'nodes.parquet',
  'parquet-ties': 'ties.parquet',
};

/** What is said of a run beside its results: the only file in which dates stand. */
export const RUN_RECORD = 'run.json';

/** What the file of an output is called. */
export function outputName(output: RoutineOutput): string {
  const { what, of } = output;
  if (what === 'methods') return `${of}.methods.md`;
  return `${of}.${what === 'figure' ? output.format : ENDINGS[output.format]}`;
}

/** One file that a run gives; it is the reader's to take away. */
export interface RunFile {
  readonly name: string;
  readonly path: string;
  readonly sha256: string;
}

/** What a run gives as files; what rests on a step that was not done, or is not there any more, is left out. Null where there is no such run. */
export async function writeRunFiles(store: Store, id: number): Promise<RunFile[] | null> {
  const run = await findRun(store, id);
  if (!run) return null;
  const files: RunFile[] = [];
  for (const output of run.routine.outputs) {
    const path = await writeOutput(store, run, output);
    if (path === null) continue;
    const hash = createHash('sha256');
    await pipeline(createReadStream(path), hash);
    const sha256 = hash.digest('hex');
    files.push({ name: outputName(output), path, sha256 });
  }
  return files;
}

/** All that is needed to know what a run was, and to make it again. */
export function runRecord(run: RoutineRun, files: readonly Pick<RunFile, 'name' | 'sha256'>[]): string {
  const { routine, version, fingerprint, inputs, state, startedAt, endedAt, made, steps } = run;
  const given = Object.entries(run.answers).filter(([name]) => !(name in inputs));
  const record: RunRecord = {
    application: version,
    fingerprint,
    state,
    startedAt,
    endedAt,
    inputs,
    answers: Object.fromEntries(given),
    files: Object.fromEntries(files.map(({ name, sha256 }) => [name, sha256])),
    made,
    steps,
    routine,
  };
  return `${JSON.stringify(record, null, 2)}\n`;
}

/** The files of a run and its record as one zip. */
export async function zipRun(store: Store, id: number): Promise<ExportedFile | { problem: string } | null> {
  const run = await findRun(store, id);
  const files = await writeRunFiles(store, id);
  if (!run || !files) return null;
  if (files.length === 0)
    return { problem: 'It gives no files, or what they would be of is not there any more.' };
  const exports = join(store.folder, 'exports');
  mkdirSync(exports, { recursive: true });
  const path = join(exports, randomUUID());
  const mtime = new Date(run.endedAt ?? run.startedAt);
  const zip = new ZipFile();
  for (const file of files) zip.addReadStream(createReadStream(file.path), file.name, { mtime });
  zip.addBuffer(Buffer.from(runRecord(run, files)), RUN_RECORD, { mtime });
  zip.end();
  try {
    await pipeline(zip.outputStream, createWriteStream(path));
  } finally {
    for (const file of files) rmSync(file.path, { force: true });
  }
  return { path, name: `${fileName(run.routine.name, 'routine')} run ${id}.zip`, type: 'application/zip' };
}

/** Where people who have pseudonyms can be found in the files of a run; null where there is no such run. */
export async function findRunLeaks(store: Store, id: number): Promise<Leaks | null> {
  const run = await findRun(store, id);
  if (!run) return null;
  const finder = await hiddenPeople(store);
  if (!finder) return NO_LEAKS;
  const leaks: Leak[] = [];
  const looked = new Set<string>();
  for (const output of run.routine.outputs) {
    const subject = await subjectOf(store, run, output);
    if (!subject) continue;
    const place = outputName(output);
    if (output.what === 'network' && !looked.has(subject.network)) {
      looked.add(subject.network);
      const network = (await findNetwork(store, subject.network))!;
      const table = await publishedTable(store, network);
      leaks.push(...leaksInTables(finder, network.name, table, readTable(store.folder, network.id, 'edges')));
    }
    for (const text of await textsOf(store, output, subject)) leaks.push(...finder.find(place, text));
  }
  return told(leaks);
}

/** What an output is of. */
interface Subject {
  readonly network: string;
  readonly query: FigureQuery;
}

async function subjectOf(store: Store, { made }: RoutineRun, { of }: RoutineOutput): Promise<Subject | null> {
  const thing = made[of];
  if (thing === undefined) return null;
  const plate = typeof thing === 'number' ? await findPlate(store, thing) : null;
  const network = typeof thing === 'string' ? thing : plate?.network;
  if (network === undefined || !(await findNetwork(store, network))) return null;
  return { network, query: FigureQuery.parse(plate ? { plate: plate.id } : {}) };
}

/** Texts that stand in a figure or in methods. */
async function textsOf(store: Store, output: RoutineOutput, { network, query }: Subject): Promise<string[]> {
  if (output.what === 'network') return [];
  if (output.what === 'methods')
    return [methodsMarkdown(output.of, await readMethods(store, { network, length: 'long' }))];
  const figure = await drawFigure(store, { network, query });
  if (!figure) return [];
  const { scene, caption, told: words } = figure;
  return [
    caption,
    words.short,
    words.long,
    ...[...scene.texts, ...scene.legend.texts].map(({ text }) => text),
  ];
}

/** Null where there is nothing of which it could be. */
async function writeOutput(store: Store, run: RoutineRun, output: RoutineOutput): Promise<string | null> {
  const subject = await subjectOf(store, run, output);
  if (!subject) return null;
  const { network, query } = subject;
  switch (output.what) {
    case 'methods': {
      const methods = await readMethods(store, { network, length: 'long' });
      return writeBytes(store.folder, Buffer.from(methodsMarkdown(output.of, methods)));
    }
    case 'network':
      return (await exportNetwork(store, { network, format: output.format })).path;
    case 'figure':
      return (await exportFigure(store, { network, format: output.format, query }))?.path ?? null;
  }
}
