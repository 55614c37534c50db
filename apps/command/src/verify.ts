import { createHash } from 'node:crypto';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { RunRecord } from '@pebble/contract';
import { counted } from '@pebble/core';
import { RUN_RECORD, type Engine } from '@pebble/server/engine';
import { readJson } from './answers';
import { EXIT, Refused } from './errors';
import { writeOutputs } from './outputs';
import { runIn } from './run';
import { newStudy, type GivenFile } from './studies';
import type { Telling } from './telling';

/** What became of a file of a run. */
type State = 'same' | 'other' | 'not made' | 'changed since';

const WORDS: Readonly<Record<State, string>> = {
  same: 'comes out again, byte by byte',
  other: 'comes out otherwise',
  'not made': 'does not come out',
  'changed since': 'comes out again as it was written, but the file is another now',
};

const sumOf = (path: string): string => createHash('sha256').update(readFileSync(path)).digest('hex');

/**
 * Makes the run again whose files lie in a folder, and compares them byte by byte. Returns what is given back to whoever started the program.
 * Throws Refused where the folder holds no run, or other files are given than it had.
 */
export async function verifyFolder(
  engine: Engine,
  folder: string,
  given: readonly string[],
  allow: string | null,
  told: Telling,
): Promise<number> {
  const read = RunRecord.safeParse(readJson(join(folder, RUN_RECORD)));
  if (!read.success)
    throw new Refused(`${join(folder, RUN_RECORD)} is no record of a run that can be made again.`);
  const record = read.data;
  const study = await newStudy(engine, record.routine.name);
  const run = await runIn(engine, study, record.routine, matched(record, given), record.answers, told);
  const again = mkdtempSync(join(tmpdir(), 'pebble-again-'));
  try {
    const written = await writeOutputs(engine, run, again, allow);
    const sums = new Map(written.map(({ name, sha256 }) => [name, sha256]));
    const states = Object.entries(record.files).map(([name, sum]): [string, State] => [
      name,
      stateOf(sum, sums.get(name), join(folder, name)),
    ]);
    for (const [name, state] of states) told.done('file', { name, state }, `${name} ${WORDS[state]}.`);
    const same = states.filter(([, state]) => state === 'same').length;
    const isSame = same === states.length;
    const why = run.fingerprint === record.fingerprint ? '' : ` ${otherwise(record, run.version)}`;
    told.done(
      'end',
      { isSame, fingerprint: run.fingerprint, before: record.fingerprint },
      `${same} of ${counted(states.length, 'file')} came out again.${why}`,
    );
    return isSame ? EXIT.done : EXIT.incomplete;
  } finally {
    rmSync(again, { recursive: true, force: true });
  }
}

function stateOf(sum: string, again: string | undefined, path: string): State {
  if (again === undefined) return 'not made';
  if (again !== sum) return 'other';
  return existsSync(path) && sumOf(path) === sum ? 'same' : 'changed since';
}

function otherwise({ application }: RunRecord, now: string): string {
  return application === now
    ? 'The study held more than these files when it ran.'
    : `It was made by version ${application} of the application; this is ${now}.`;
}

/** Files by their questions, in the order that they had: each is known by its bytes. Throws Refused. */
function matched({ inputs }: RunRecord, given: readonly string[]): ReadonlyMap<string, readonly GivenFile[]> {
  const missing = given.find((path) => !existsSync(path));
  if (missing !== undefined) throw new Refused(`There is no file ${missing}.`);
  const bySum = new Map(given.map((path) => [sumOf(path), path]));
  const wanted = Object.values(inputs).flat();
  const lacking = wanted.filter(({ sha256 }) => !bySum.has(sha256)).map(({ file }) => file);
  if (lacking.length > 0)
    throw new Refused(`The run had files that were not given with the same bytes: ${lacking.join(', ')}.`);
  const sums = new Set(wanted.map(({ sha256 }) => sha256));
  const others = [...bySum].filter(([sum]) => !sums.has(sum)).map(([, path]) => basename(path));
  if (others.length > 0) throw new Refused(`The run did not have ${others.join(', ')}.`);
  return new Map(
    Object.entries(inputs).map(([name, files]) => [
      name,
      files.map(({ file, sha256 }) => ({ path: bySum.get(sha256)!, file })),
    ]),
  );
}
