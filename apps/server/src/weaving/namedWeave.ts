import type { ColumnInfo } from '@pebble/contract';
import type { Woven } from '@pebble/core';

/** A column of the nodes of a network with what it says. */
export interface NodeColumn {
  readonly info: ColumnInfo;
  /** In the order of the nodes; numbers, or texts. */
  readonly values: Float64Array | readonly string[];
}

/** A network as it was counted, with what its nodes are called. */
export interface CountedWeave {
  readonly woven: Woven;
  /** What a node is called. @param mode 1 for a thing beside accounts */
  labelOf(id: number, mode: number): string;
  /** By what things are known when they are tidied; null where the nodes are accounts or messages. */
  readonly keyOf: ((thing: number) => string) | null;
  /** Columns that the weave itself gives the nodes that are left in the end. */
  ownColumns?(left: Woven): NodeColumn[];
  /** Which part of the sentence empties it, where it is empty. */
  readonly emptiedBy: string;
}

/** A woven network with what its nodes are called. */
export interface NamedWeave {
  readonly woven: Woven;
  /** How many messages make its ties. */
  readonly messages: number;
  readonly labels: readonly string[];
  readonly keyOf: CountedWeave['keyOf'];
  readonly own: readonly NodeColumn[];
  readonly emptiedBy: string;
}

/** Which of the two sorts each node of a two-mode network is. */
export function modeColumn({ mode }: Pick<Woven, 'mode'>, one: string, other: string): NodeColumn {
  const how = `Which sort of node it is: ${one} or ${other}.`;
  return {
    info: { name: 'mode', title: 'mode', type: 'category', how },
    values: Array.from(mode, (m) => (m === 0 ? one : other)),
  };
}
