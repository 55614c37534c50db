import type { MapDescription, TidySort, Weave } from '@pebble/contract';

/** What one and several of something are called. */
export type OneAndMany = readonly [one: string, many: string];

/** What the nodes of a network are in its study: accounts, things of a sort, or neither. Where there are both, accounts come first. */
export interface NodeSorts {
  readonly accounts: boolean;
  readonly things: TidySort | 'item' | null;
}

/** One kind of weave: how it is spoken of, and what is to be known by those who do not ask which one it is. */
export interface Kind<W extends Weave> {
  /** What its nodes are called. */
  nodes(weave: W): OneAndMany;
  /** What ties two nodes: "one replies to another", "they stand in the same message". */
  tie(weave: W): string;
  /** Where only a part of that is what a reader changes: what stands before it, the part, and what stands behind. */
  tieParts?(weave: W): readonly [before: string, changes: string, behind: string];
  /** How much a tie needs at least: "at least twice", "in at least 3 messages"; empty where that says nothing. */
  least(weave: W, least: number): string;
  /** What else holds, beside what ties its nodes; each without a full stop. */
  conditions(weave: W): string[];
  /** What a tie means, in plain words. */
  meaning(weave: W): string;
  /** What a network is called where nobody gave it a name. */
  title(weave: W): string;
  sorts(weave: W): NodeSorts;
  /** The sorts of things whose tidy decisions change what it gives. */
  tidied(weave: W): readonly TidySort[];
  /** How its network is shown at first. */
  firstMap(weave: W, directed: boolean): MapDescription;
  /** Whether it often gives so many ties that a map shows only the strongest at first. */
  readonly isDense: boolean;
  /** Whether messages stand behind its ties. */
  readonly hasMessages: boolean;
  /** Whether its ties are messages from one account to another. */
  readonly isByAddress: boolean;
}
