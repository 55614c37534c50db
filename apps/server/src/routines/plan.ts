import { closeSync, openSync, readSync, statSync } from 'node:fs';
import type { Routine, RoutineAnswers, RoutinePlan, SentFile, StepKind } from '@pebble/contract';
import { routineParagraph } from '@pebble/core';
import { uploadPath } from '../files/places';
import type { Runner } from '../runner/runner';
import type { Store } from '../storage/open';
import { filesAmong } from './readFiles';
import { checkedRun } from './runs';

/** Bytes at the beginning of a file by which it is told how long its records are. */
const LOOKED_AT = 65_536;
/** Bytes of a record where lines do not tell records apart. */
const OTHERWISE = 1000;

/**
 * Seconds for each kind of step with what follows it: at least, and for each thousand messages. Measured with two cores on 200,000 posts by
 * 60,000 accounts that became a network of 50,000 nodes and 228,000 ties; other kinds are short beside these.
 */
const COSTS: Partial<Record<StepKind, readonly [least: number, perThousand: number]>> = {
  'import-source': [0.5, 0.045],
  weave: [1, 0.165],
  'arrange-map': [0.3, 0.115],
};
const USUAL = [0.2, 0.003] as const;

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

/** What a routine will do in a study with some answers. */
export async function planRun(
  store: Store,
  runner: Runner,
  routine: Routine,
  given: RoutineAnswers,
): Promise<RoutinePlan> {
  const { answers, problems } = await checkedRun(store, runner, routine, given);
  const sent = filesAmong(answers).reduce((sum, file) => sum + recordsIn(store, file), 0);
  const there = await store.query
    .selectFrom('message')
    .select(({ fn }) => fn.countAll<number>().as('count'))
    .executeTakeFirstOrThrow();
  const thousands = (Number(there.count) + sent) / 1000;
  const seconds = routine.steps.reduce((sum, { kind }) => {
    const [least, perThousand] = COSTS[kind] ?? USUAL;
    return sum + least + perThousand * thousands;
  }, 0);
  return {
    paragraph: routineParagraph(routine, answers),
    seconds: problems.length > 0 ? null : Math.ceil(seconds),
    problems: [...problems],
  };
}
