import type { Direction } from '@pebble/contract';
import { weakComponents } from '../../graph/components';
import { counted, formatCount } from '../../words/sentence';
import { keepNodes, keepTies, withoutIsolates } from './keepNodes';
import { undirected } from './undirected';
import { besidePlain, disparity, thinnedPhrase } from './backbone';
import { numberKeys } from './rows';
import type { Woven } from './woven';

/** What is done with a network when its ties are counted. */
export interface After {
  readonly direction?: Direction;
  readonly backbone: number | null;
  readonly neighboursAtLeast?: number | null;
  readonly largestOnly: boolean;
  /** Nodes without a tie stay, also those that lose their last one here. */
  readonly isolates: boolean;
}

/** Drops directions, keeps the backbone, then nodes tied to enough others, then the largest component, as far as they are asked for. */
export function finishWeave(
  woven: Woven,
  { direction = 'kept', backbone, neighboursAtLeast = null, largestOnly, isolates }: After,
): Woven {
  let made = direction === 'kept' || !woven.directed ? woven : undirected(woven, direction);
  if (backbone !== null) {
    const kept = disparity(made, backbone);
    const thinned = besidePlain(made, kept);
    made = { ...keepTies(made, kept, thinnedPhrase(thinned, backbone)), thinned };
    if (!isolates) made = withoutIsolates(made);
  }
  if (neighboursAtLeast !== null) {
    made = wellTied(made, neighboursAtLeast);
    if (!isolates) made = withoutIsolates(made);
  }
  return largestOnly ? largestPart(made) : made;
}

/** Nodes tied to at least so many others. They are counted once: of those that stay some may have fewer then. */
function wellTied(woven: Woven, atLeast: number): Woven {
  const { id, source, target } = woven;
  const between = Uint32Array.from(source.keys()).filter((e) => source[e] !== target[e]);
  const { keys } = numberKeys(
    between,
    (e) => Math.min(source[e], target[e]) * id.length + Math.max(source[e], target[e]),
  );
  const others = new Uint32Array(id.length);
  for (const key of keys) {
    others[Math.floor(key / id.length)]++;
    others[key % id.length]++;
  }
  const kept = Uint32Array.from(id.keys()).filter((v) => others[v] >= atLeast);
  const inside = Uint32Array.from(source.keys()).filter(
    (e) => others[source[e]] >= atLeast && others[target[e]] >= atLeast,
  );
  const note = `${formatCount(kept.length)} of ${counted(id.length, 'node')} are tied to ${counted(atLeast, 'other')} or more and were kept, with ${formatCount(inside.length)} of ${counted(source.length, 'tie')}.`;
  return keepNodes(keepTies(woven, inside, note), kept);
}

function largestPart(woven: Woven): Woven {
  const { id, source, target, weight } = woven;
  const { of, count } = weakComponents({ nodeCount: id.length, source, target, weight });
  if (count < 2) return woven;
  const kept = Uint32Array.from(of.keys()).filter((v) => of[v] === 0);
  const inside = Uint32Array.from(source.keys()).filter((e) => of[source[e]] === 0);
  const note = `Only the largest of ${formatCount(count)} components was kept: ${formatCount(kept.length)} of ${counted(id.length, 'node')}.`;
  return keepNodes(keepTies(woven, inside, note), kept);
}
