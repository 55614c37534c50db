import type { Sketch } from '@pebble/contract';
import type { Woven } from './woven';

/** So many ties make a sketch. */
const MOST = 60;

/** The strongest ties of a network, with the labels of their nodes; of equally strong ones the first. */
export function sketchOf(
  { source, target, weight }: Pick<Woven, 'source' | 'target' | 'weight'>,
  labelOf: (node: number) => string,
): Sketch {
  const strongest: number[] = [];
  for (let e = 0; e < source.length; e++) {
    if (source[e] === target[e]) continue;
    if (strongest.length === MOST && weight[e] <= weight[strongest[MOST - 1]]) continue;
    let place = strongest.length;
    while (place > 0 && weight[strongest[place - 1]] < weight[e]) place--;
    strongest.splice(place, 0, e);
    if (strongest.length > MOST) strongest.pop();
  }
  const number = new Map<number, number>();
  const labels: string[] = [];
  const placeOf = (node: number): number => {
    let place = number.get(node);
    if (place === undefined) number.set(node, (place = labels.push(labelOf(node)) - 1));
    return place;
  };
  const ties = strongest.map((e) => ({
    source: placeOf(source[e]),
    target: placeOf(target[e]),
    weight: weight[e],
  }));
  return { labels, ties };
}
