import type { ColumnInfo, MapDescription, Network, Weave } from '@pebble/contract';
import type { TableColumns } from '@pebble/core';

/** A network to be stored. */
export interface NewNetwork {
  readonly name: string;
  /** Null for one that came finished from a file. */
  readonly weave: Weave | null;
  readonly directed: boolean;
  readonly nodes: TableColumns;
  readonly edges: TableColumns;
  /** Which messages stand behind it, where that is kept with the network. */
  readonly evidence: TableColumns | null;
  /** Columns of the nodes beside those that every network has. */
  readonly own: readonly ColumnInfo[];
  readonly sentence: string;
  readonly messages: number;
  /** Ids of the tidy decisions with which it was woven. */
  readonly decisions: readonly number[];
  /** How it is shown at first. */
  readonly map: MapDescription;
  /** Which network it is a slice of. */
  readonly slice?: Network['slice'];
  /** Which network hands changed to make it. */
  readonly changed?: Network['changed'];
}

/** What a recipe gives. */
export interface WeaveResult extends Omit<NewNetwork, 'name' | 'weave' | 'map' | 'sentence'> {
  readonly dropped: number;
  readonly notes: readonly string[];
  /** What its groups were made from, in words. */
  readonly from: string;
}
