import type { Sketch, WeaveEstimate } from '@pebble/contract';
import { weakComponents } from '../../graph/components';
import type { Woven } from './woven';

/** How large a woven network is. @param messages that make its ties */
export function sizeOf(
  woven: Woven,
  messages: number,
  emptiedBy: string | null,
  sketch: Sketch = { labels: [], ties: [] },
): WeaveEstimate {
  const nodes = woven.id.length;
  const { source, target, weight } = woven;
  const { count, size } = weakComponents({ nodeCount: nodes, source, target, weight });
  let selfTies = 0;
  const tied = new Uint8Array(nodes);
  for (let e = 0; e < source.length; e++) {
    if (source[e] === target[e]) selfTies++;
    else tied[source[e]] = tied[target[e]] = 1;
  }
  return {
    messages,
    nodes,
    edges: source.length,
    selfTies,
    isolates: tied.reduce((sum, t) => sum + (t ? 0 : 1), 0),
    components: count,
    largest: size[0] ?? 0,
    largestShare: nodes ? size[0] / nodes : 0,
    droppedBelowThreshold: woven.droppedBelowThreshold,
    notes: [...woven.notes],
    thinned: woven.thinned ?? null,
    emptiedBy: source.length > 0 ? null : emptiedBy,
    tooLarge: false,
    wouldFit: null,
    sketch,
  };
}
