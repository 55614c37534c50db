import type { MapDescription, TitlesByColumn } from '@pebble/contract';
import type { WidthBounds } from '../map/marks/ties/tieWidths';

/** A column of a table, as JSON can hold it; null where there is no value. */
export type HeldColumn = readonly (number | null)[] | readonly string[];

/** What a column says, in words. */
export interface HeldInfo {
  readonly title: string;
  readonly how: string;
}

/** A message behind ties, as a page holds it. */
export interface HeldMessage {
  /** Who wrote it, as nodes are called. */
  readonly by: string;
  /** Milliseconds since 1970; null where it is not dated. */
  readonly time: number | null;
  readonly text: string;
}

/** A group, as its portrait says. */
export interface HeldPortrait {
  readonly title: string;
  /** Its value in the column. */
  readonly group: string;
  readonly sentence: string;
  /** What is typical for it, under its heading. */
  readonly lists: readonly { readonly heading: string; readonly terms: readonly string[] }[];
}

/** A map that stands in a page of its own: only what is shown, and only the columns that were chosen. As JSON. */
export interface HeldMap {
  readonly nodeCount: number;
  readonly directed: boolean;
  /** One node, and several. */
  readonly nodeWords: readonly [one: string, many: string];
  /** What a tie says. */
  readonly tieMeaning: string;
  readonly description: MapDescription;
  /** The nodes that are there, by their places in the network; every list of nodes is in this order. */
  readonly nodes: readonly number[];
  readonly pale: readonly number[];
  readonly labels: readonly string[];
  readonly columns: Readonly<Record<string, HeldColumn>>;
  readonly infos: Readonly<Record<string, HeldInfo>>;
  readonly x: readonly number[];
  readonly y: readonly number[];
  /** Ends by the places of nodes in the network. */
  readonly source: readonly number[];
  readonly target: readonly number[];
  readonly tieColumns: Readonly<Record<string, HeldColumn>>;
  readonly widthBounds: WidthBounds;
  readonly titles: TitlesByColumn;
  /** Messages of ties by day: the first day, and for each row its tie, the days since then, and how many. */
  readonly days: {
    readonly first: number;
    readonly tie: readonly number[];
    readonly day: readonly number[];
    readonly messages: readonly number[];
  } | null;
  /** Messages, and which of them stand behind each tie; null where none are held. */
  readonly messages: {
    readonly all: readonly HeldMessage[];
    readonly behind: readonly (readonly number[])[];
  } | null;
}

/** A page with a map, and all that is told with it. */
export interface HeldPage {
  readonly title: string;
  readonly author: string;
  readonly licence: string;
  readonly caption: string;
  /** What is told of the map to those who cannot see it. */
  readonly told: { readonly short: string; readonly long: string };
  /** How it was made, by paragraphs. */
  readonly methods: readonly string[];
  /** What these cite, one work each. */
  readonly references: readonly string[];
  readonly cite: string;
  /** When it was made, RFC 3339. */
  readonly made: string;
  readonly portraits: readonly HeldPortrait[];
  readonly map: HeldMap;
}
