import type { LayoutMethod, LayoutSettings } from '@pebble/contract';
import type { Graph } from '../graph/graph';
import type { Placement } from './common/placed';
import type { Places, Running } from './common/running';

/** How far a beginning is, 0 to 1, and where the nodes of the graph would stand by now: those that are still one stand in one place. */
export interface Beginning {
  readonly share: number;
  readonly places: () => Places;
}

/** An arrangement that places all nodes at once. */
export interface AtOnce {
  readonly place: Placement;
  /** Whether nodes without a tie have their places among the others in any case, as they stand by what they are. */
  readonly takesIsolates?: true;
  /** Whether nodes stand round a middle, which they keep. */
  readonly isRound?: true;
  /** Whether nodes are never moved apart: they have room as they stand, or their places are true ones. */
  readonly isExact?: true;
}

/** An arrangement that works out every component by itself, in rounds. */
export interface InRounds {
  readonly begin: (graph: Graph, settings: LayoutSettings) => Generator<Beginning, Running>;
}

/** One way to arrange a network: how it is done, what it is called, and what it is good for. */
export interface LayoutKind {
  readonly method: LayoutMethod;
  /** After "arranged". */
  readonly phrase: string;
  readonly says: string;
  readonly source: string;
  /** The columns that it goes by. */
  readonly goesBy: 'nothing' | 'a number' | 'two numbers' | 'groups';
  /** Words for two columns; "a across and b up" where it is left out. */
  readonly byTwo?: (first: string, second: string) => string;
  /** Whether a seed decides where nodes stand. */
  readonly isByChance: boolean;
  /** What else is to be said of its settings in a methods text. */
  readonly settingWords?: (settings: LayoutSettings) => string[];
  readonly how: AtOnce | InRounds;
}
