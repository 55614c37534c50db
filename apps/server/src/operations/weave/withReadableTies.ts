import type { MapDescription, Weave } from '@pebble/contract';
import { kindOf, readableLeast } from '@pebble/core';

/** Where so many ties are usual that all of them would hide each other, the strongest. The caption says so. */
export function withReadableTies(
  map: MapDescription,
  weave: Weave,
  weight: ArrayLike<number>,
  nodes: number,
): MapDescription {
  if (!kindOf(weave).isDense) return map;
  return { ...map, show: { ...map.show, atLeast: readableLeast(weight, nodes) } };
}
