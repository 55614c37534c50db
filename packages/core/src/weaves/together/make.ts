import type { TogetherWeave } from '@pebble/contract';
import { chooseOccurrences, type ThreadOccurrences } from '../common/occurrences';
import { project, type Memberships } from '../common/projection';
import { numberKeys, pick } from '../common/rows';
import { evidenceOf, timesOf, wovenOf, type IsLeftOut } from '../common/things';
import type { Woven } from '../common/woven';
import { weaveNear } from './near';

const DAY = 86_400_000;

/** Things tied when they stand together in a message, near each other in it, in a thread, or with one author (in all, or on one day). */
export function weaveTogether(
  occurrences: ThreadOccurrences,
  weave: TogetherWeave,
  isLeftOut: IsLeftOut,
  progress?: (share: number) => void,
): Woven {
  if (weave.unit === 'near') return weaveNear(occurrences, weave, isLeftOut);
  const chosen = chooseOccurrences(occurrences, weave, isLeftOut);
  const { rows, things, placeOf } = chosen;
  const units = numberKeys(rows, unitKey(occurrences, weave.unit));
  const node = pick(rows, (i) => placeOf[occurrences.thing[i]]);
  const byAuthors = weave.weight === 'authors';
  const memberships: Memberships = {
    nodes: things.length,
    units: units.count,
    node,
    unit: units.of,
    time: timesOf(occurrences, rows),
    ...(byAuthors ? { author: pick(rows, (i) => occurrences.author[i]) } : {}),
  };
  const ties = project(memberships, { ...weave, byAuthors, progress });
  return wovenOf(
    chosen,
    ties,
    () => evidenceOf(occurrences, rows, things.length, node, units.count, units.of),
    weave.isolates,
  );
}

function unitKey(
  occurrences: ThreadOccurrences,
  unit: Exclude<TogetherWeave['unit'], 'near'>,
): (row: number) => number {
  switch (unit) {
    case 'message':
      return (i) => occurrences.message[i];
    case 'thread':
      return (i) => occurrences.thread?.[i] ?? occurrences.message[i];
    case 'author':
      return (i) => occurrences.author[i];
    case 'author-day': {
      // Days since 1970 stay below 2^17; undated messages share one.
      const day = (time: number): number => (Number.isNaN(time) ? 0 : Math.floor(time / DAY) + 1);
      return (i) => occurrences.author[i] * 0x20000 + day(occurrences.time[i]);
    }
  }
}
