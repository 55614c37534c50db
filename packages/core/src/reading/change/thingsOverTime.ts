import type { Occurrences } from '../../weaves/common/occurrences';
import type { MessageGroups } from '../portraits/messageGroups';
import { byThing, ThingCounts } from '../portraits/thingCounts';

/** In how many messages of each slice something stands. */
export interface ThingOverTime {
  readonly label: string;
  readonly counts: number[];
  /** Authors of all slices who wrote it. */
  readonly authors: number;
}

/** Things that stand in fewer messages of all slices are not told. */
const LEAST_MESSAGES = 3;

/** What stands in the messages of slices, slice by slice. @param slices the messages of each slice, as a group */
export function thingsOverTime(
  occurrences: Occurrences,
  slices: MessageGroups,
  labelOf: (thing: number) => string,
): ThingOverTime[] {
  const counts = new ThingCounts(slices, occurrences);
  const found: ThingOverTime[] = [];
  for (const { thing, rows } of byThing(occurrences, slices)) {
    counts.count(rows);
    if (counts.all >= LEAST_MESSAGES)
      found.push({ label: labelOf(thing), counts: [...counts.messages], authors: counts.allAuthors });
  }
  return found;
}
