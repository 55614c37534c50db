import { PairTable, type TwoSorts } from '@pebble/core';
import { readTable } from '../../storage/files/tables';
import type { Store } from '../../storage/open';

/** The ends of the ties of a network. */
type Ties = Pick<TwoSorts, 'source' | 'target'>;

export function readTies({ folder }: Store, network: string): Ties {
  return readTable(folder, network, 'edges', ['source', 'target']) as unknown as Ties;
}

/** Finds the edge between two nodes by its ends, either way round where ties have no direction. */
export function edgeFinder(
  { source, target }: Ties,
  directed: boolean,
): (a: number, b: number) => number | undefined {
  const pairs = new PairTable(0);
  const turned = (a: number, b: number): boolean => !directed && a > b;
  // Each pair of ends is one tie, so that its number is its place.
  for (let e = 0; e < source.length; e++)
    if (turned(source[e], target[e])) pairs.find(target[e], source[e]);
    else pairs.find(source[e], target[e]);
  return (a, b) => (turned(a, b) ? pairs.at(b, a) : pairs.at(a, b));
}
