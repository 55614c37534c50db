import { TidySort, type SharedWeave, type TogetherWeave, type TwoModeWeave } from '@pebble/contract';
import {
  leftNote,
  takenOccurrences,
  THING_WORDS,
  tidyOccurrences,
  type ThreadOccurrences,
  type Woven,
} from '@pebble/core';
import { readNearOccurrences } from '../storage/nearOccurrences';
import { readOccurrences } from '../storage/occurrences';
import { readTaken } from '../storage/taken';
import type { StudyAsked } from './kinds/kind';
import type { CountedWeave } from './namedWeave';
import { ofSort, tidyThings } from './tidied';

/** Where the things of a weave stand, after tidying, and what they are called. */
interface Things {
  readonly occurrences: ThreadOccurrences;
  /** Whether a thing is left out by name. */
  readonly isLeftOut: (thing: number) => boolean;
  readonly labelOf: (thing: number) => string;
  /** What an account is called. */
  readonly account: (id: number) => string;
  /** The network with what is to be said of it. */
  readonly done: (woven: Woven, labelOf: CountedWeave['labelOf']) => CountedWeave;
}

/** Reads where things stand. @param how whether they are read with where in the text they stand */
export function readThings(
  { store, weave, tidy, decisions }: StudyAsked<TogetherWeave | SharedWeave | TwoModeWeave>,
  how: 'in messages' | 'in texts' = 'in messages',
): Things {
  const read = how === 'in texts' ? readNearOccurrences : readOccurrences;
  const found = read(store, weave, weave.things);
  const isTaken = readTaken(store, weave);
  const { rows, left } = isTaken
    ? takenOccurrences(found.occurrences, isTaken)
    : { rows: found.occurrences, left: 0 };
  const sort = TidySort.safeParse(weave.things);
  const { now, named } = tidyThings(
    { ...found, occurrences: rows },
    sort.success ? ofSort(decisions, sort.data) : [],
    weave.things === 'mention' ? tidy : null,
  );
  const occurrences = tidyOccurrences(rows, now, tidy.now);
  const without = new Set(weave.without.map(named.typedKey));
  return {
    occurrences,
    isLeftOut: (thing) => without.size > 0 && without.has(named.keyOf(thing)),
    labelOf: named.labelOf,
    account: (id) => tidy.labels.get(id) ?? '',
    done: (woven, labelOf) => ({
      woven: { ...woven, notes: [...leftNote(left), ...woven.notes] },
      labelOf,
      keyOf: named.keyOf,
      emptiedBy:
        occurrences.count === 0 && left > 0
          ? 'No message is left by the choice of messages.'
          : whatEmpties(occurrences.count, weave, woven),
    }),
  };
}

function whatEmpties(
  rows: number,
  { things, from, until, atLeast, usedAtLeast }: TogetherWeave | SharedWeave | TwoModeWeave,
  woven: Woven,
): string {
  const [, many] = THING_WORDS[things];
  if (rows === 0)
    return from === null && until === null
      ? `The messages of this study hold no ${many}.`
      : `No message of this period holds ${many}.`;
  if (woven.droppedBelowThreshold > 0) return `No tie has a strength of ${atLeast}. Ask for less.`;
  if (usedAtLeast > 1)
    return `None of the ${many} that stand in ${usedAtLeast} messages or more meet. Ask for fewer.`;
  return `No two of the ${many} that are kept meet.`;
}
