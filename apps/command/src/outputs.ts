import { copyFileSync, existsSync, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { FigureQuery, type NetworkExport, type RoutineOutput, type RoutineRun } from '@pebble/contract';
import { methodsMarkdown } from '@pebble/core';
import type { Engine, ExportedFile } from '@pebble/server/engine';
import { Refused } from './errors';

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

/** What the file of an output is called. */
export function outputName(output: RoutineOutput): string {
  const { what, of } = output;
  if (what === 'methods') return `${of}.methods.md`;
  return `${of}.${what === 'figure' ? output.format : ENDINGS[output.format]}`;
}

/** Throws Refused where a file would be written over. */
export function needRoom(folder: string, names: readonly string[], mayReplace: boolean): void {
  mkdirSync(folder, { recursive: true });
  const there = names.filter((name) => existsSync(join(folder, name)));
  if (there.length > 0 && !mayReplace)
    throw new Refused(
      `${folder} holds ${there.join(', ')} already. Nothing was written; choose another folder, or replace them by --replace.`,
    );
}

/** Writes what a run gives into a folder; what rests on a step that was not done is left out. Returns the names of the files. */
export async function writeOutputs(
  engine: Engine,
  { study, routine, made }: RoutineRun,
  folder: string,
): Promise<string[]> {
  const written: string[] = [];
  for (const output of routine.outputs) {
    const thing = made[output.of];
    if (thing === undefined) continue;
    const name = outputName(output);
    await writeOutput(engine, study, output, thing, join(folder, name));
    written.push(name);
  }
  return written;
}

async function writeOutput(
  { runner }: Engine,
  study: string,
  output: RoutineOutput,
  thing: string | number,
  path: string,
): Promise<void> {
  switch (output.what) {
    case 'methods': {
      const methods = await runner.read('methods', study, { network: String(thing), length: 'long' });
      return writeFileSync(path, methodsMarkdown(output.of, methods));
    }
    case 'network':
      return take(
        await runner.read('exportNetwork', study, { network: String(thing), format: output.format }),
        path,
      );
    case 'figure': {
      const plates = await runner.read('plates', study, undefined);
      const plate = plates.find(({ id }) => id === thing);
      const network = plate?.network ?? String(thing);
      const query = FigureQuery.parse(plate ? { plate: plate.id } : {});
      const file = await runner.read('exportFigure', study, { network, format: output.format, query });
      if (!file) throw new Refused('The map was never arranged, so there is no figure of it.');
      return take(file, path);
    }
  }
}

/** A file that was written to be taken away is moved to its place. */
function take(file: ExportedFile, path: string): void {
  copyFileSync(file.path, path);
  rmSync(file.path, { force: true });
}
