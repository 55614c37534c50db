import type { LayoutSettings } from '@pebble/contract';
import { neighbourRows, withoutSelfLoops, type Csr } from '../../graph/csr';
import type { Graph } from '../../graph/graph';

/** What is known of the nodes beside their ties, by node; null where it is not there. */
export interface LayoutData {
  /** Numbers of the chosen columns; NaN where there is none. */
  readonly first: ArrayLike<number> | null;
  readonly second: ArrayLike<number> | null;
  /** Groups, numbered from 0, the largest first. */
  readonly groups: Uint32Array | null;
  /** Which of the sorts of a two-mode network each node is. */
  readonly sides: Uint8Array | null;
  /** Whether ties have a direction. */
  readonly directed: boolean;
  /** Where the nodes are, for an arrangement that goes on. */
  readonly now: Present | null;
}

/** Where the nodes are now, and those among them that are not to move. */
export interface Present {
  readonly x: ArrayLike<number>;
  readonly y: ArrayLike<number>;
  readonly held: readonly number[];
}

export const NO_DATA: LayoutData = {
  first: null,
  second: null,
  groups: null,
  sides: null,
  directed: true,
  now: null,
};

/** What an arrangement that is placed at once is given. */
export interface PlacedInput {
  readonly graph: Graph;
  readonly radius: ArrayLike<number>;
  /** The nodes that are to be placed. */
  readonly nodes: readonly number[];
  readonly data: LayoutData;
  readonly settings: LayoutSettings;
  /** Called now and then; may throw to stop. */
  progress?(share: number): void;
}

/** Writes the places of its nodes, in pixels at scale 1. */
export type Placement = (input: PlacedInput, x: Float64Array, y: Float64Array) => void;

/** Distance between neighbouring nodes that leaves room for the larger ones. */
export function pitchOf({ nodes, radius }: PlacedInput, gap: number): number {
  let largest = 0;
  for (const v of nodes) largest = Math.max(largest, radius[v]);
  return 2 * largest + gap;
}

export function rowsOf({ graph }: PlacedInput): Csr {
  return withoutSelfLoops(neighbourRows(graph));
}

/** Values by which nodes are ordered: of the chosen column; where there is none, how many ties a node has. */
export function valuesOf(input: PlacedInput): ArrayLike<number> {
  if (input.data.first) return input.data.first;
  const { offset, nodeCount } = rowsOf(input);
  return Float64Array.from({ length: nodeCount }, (_, v) => offset[v + 1] - offset[v]);
}
