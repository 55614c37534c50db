import { closeSync, openSync, readSync, statSync } from 'node:fs';
import type { Routine, RoutineAnswers, RoutinePlan, SentFile } from '@pebble/contract';
import { routineParagraph } from '@pebble/core';
import { uploadPath } from '../files/places';
import type { Runner } from '../runner/runner';
import type { Catalogue } from '../storage/catalogue';
import type { Store } from '../storage/open';
import { learnedPaces } from '../storage/paces';
import { countMessages, expectedSeconds } from './expected';
import { filesAmong } from './readFiles';
import { checkedRun } from './runs';

/** Bytes at the beginning of a file by which it is told how long its records are. */
const LOOKED_AT = 65_536;
/** Bytes of a record where lines do not tell records apart. */
const OTHERWISE = 1000;

/** About how many records a file that was sent has. */
function recordsIn({ folder }: Store, { upload, reading }: SentFile): number {
  const path = uploadPath(folder, upload);
  const { size } = statSync(path, { throwIfNoEntry: false }) ?? { size: 0 };
  if (size === 0 || !['csv', 'tsv', 'jsonl'].includes(reading?.format ?? '')) return size / OTHERWISE;
  const beginning = Buffer.alloc(Math.min(size, LOOKED_AT));
  const file = openSync(path, 'r');
  readSync(file, beginning);
  closeSync(file);
  const lines = beginning.filter((byte) => byte === 10).length;
  return (size * Math.max(1, lines)) / beginning.length;
}

interface Planning {
  readonly store: Store;
  readonly runner: Runner;
  /** Where it stands how long steps take on this machine. */
  readonly catalogue: Catalogue;
}

/** What a routine will do in a study with some answers, and how long that takes about, by what was measured on this machine. */
export async function planRun(
  { store, runner, catalogue }: Planning,
  routine: Routine,
  given: RoutineAnswers,
): Promise<RoutinePlan> {
  const { answers, problems } = await checkedRun(store, runner, routine, given);
  const sent = filesAmong(answers).reduce((sum, file) => sum + recordsIn(store, file), 0);
  const messages = (await countMessages(store)) + sent;
  const paces = await learnedPaces(catalogue);
  const seconds = routine.steps.reduce(
    (sum, { kind }) => sum + expectedSeconds(kind, messages) * (paces.get(kind) ?? 1),
    0,
  );
  return {
    paragraph: routineParagraph(routine, answers),
    seconds: problems.length > 0 ? null : Math.ceil(seconds),
    problems: [...problems],
  };
}
