import { statSync } from 'node:fs';
import type { Routine, RoutineAnswers, RoutinePlan, StepKind } from '@pebble/contract';
import { routineParagraph } from '@pebble/core';
import { uploadPath } from '../files/places';
import type { Runner } from '../runner/runner';
import type { Store } from '../storage/open';
import { filesAmong } from './readFiles';
import { checkedRun } from './runs';

/** Bytes of a file that a message is about, where nothing else is known. */
const BYTES_OF_MESSAGE = 300;

/**
 * Seconds for each kind of step: at least, and for each thousand messages. Measured on a machine with two cores with a study of 200,000
 * posts; what follows a step by itself is in it.
 */
const COSTS: Partial<Record<StepKind, readonly [least: number, perThousand: number]>> = {
  'import-source': [0.5, 0.12],
  weave: [0.5, 0.15],
  'arrange-map': [0.3, 0.12],
  'weave-slices': [1, 0.4],
  'group-nodes': [0.3, 0.1],
  'portray-groups': [0.5, 0.05],
  'answer-questions': [0.5, 0.1],
};
const USUAL = [0.2, 0.01] as const;

/** What a routine will do in a study with some answers. */
export async function planRun(
  store: Store,
  runner: Runner,
  routine: Routine,
  given: RoutineAnswers,
): Promise<RoutinePlan> {
  const { answers, problems } = await checkedRun(store, runner, routine, given);
  const bytes = filesAmong(answers).reduce(
    (sum, { upload }) =>
      sum + (statSync(uploadPath(store.folder, upload), { throwIfNoEntry: false })?.size ?? 0),
    0,
  );
  const there = await store.query
    .selectFrom('message')
    .select(({ fn }) => fn.countAll<number>().as('count'))
    .executeTakeFirstOrThrow();
  const thousands = (Number(there.count) + bytes / BYTES_OF_MESSAGE) / 1000;
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
