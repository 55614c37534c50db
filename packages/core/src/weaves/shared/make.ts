import type { SharedWeave } from '@pebble/contract';
import { chooseOccurrences, type Occurrences } from '../common/occurrences';
import { project } from '../common/projection';
import { numberKeys, pick } from '../common/rows';
import { evidenceOf, timesOf, usesOf, wovenOf, type IsLeftOut } from '../common/things';
import type { Woven } from '../common/woven';

/** Accounts tied by the things that they share. */
export function weaveShared(
  occurrences: Occurrences,
  weave: SharedWeave,
  isLeftOut: IsLeftOut,
  progress?: (share: number) => void,
): Woven {
  const chosen = chooseOccurrences(occurrences, weave, isLeftOut);
  const { rows, placeOf } = chosen;
  const authors = numberKeys(rows, (i) => occurrences.author[i]);
  const unit = pick(rows, (i) => placeOf[occurrences.thing[i]]);
  const ties = project(
    {
      nodes: authors.count,
      units: chosen.things.length,
      node: authors.of,
      unit,
      time: timesOf(occurrences, rows),
    },
    { ...weave, progress },
  );
  const accounts = {
    ...chosen,
    things: Uint32Array.from(authors.keys),
    uses: usesOf(occurrences, rows, authors),
  };
  return wovenOf(
    accounts,
    ties,
    () => evidenceOf(occurrences, rows, authors.count, authors.of, chosen.things.length, unit),
    weave.isolates,
  );
}
