import type { ColumnInfo, QuestionId, QuestionSettings } from '@pebble/contract';
import type { Csr } from '../graph/csr';
import type { Graph } from '../graph/graph';
import type { FoundBridge } from './bridges/bridgePlans';

/** A measure as a column of the nodes. */
export interface MeasureColumn extends ColumnInfo {
  /** What a high value means, of the node that has it: "reaches the others in few steps". */
  readonly high: string;
}

export function measure(name: string, title: string, how: string, high: string): MeasureColumn {
  return { name, title, type: 'number', how, high };
}

/** The network that is asked about; self-loops have no part in its rows. */
export interface Asked extends Omit<QuestionSettings, 'groups'> {
  readonly graph: Graph;
  readonly directed: boolean;
  /** Ties taken without direction. */
  readonly either: Csr;
  /** Ties along their direction; without direction the same as `either`. */
  readonly out: Csr;
  /** The group of each node; null where there are none. */
  readonly groups: ArrayLike<number> | null;
  /** The sort of each node of a two-mode network; null for another. */
  readonly sorts: readonly string[] | null;
  /** Betweenness where it was computed already, in several threads. */
  readonly bridges?: readonly FoundBridge[] | undefined;
  /** Is told how far the answer is, 0 to 1; may throw to stop. */
  readonly progress: (share: number) => void;
}

/** The answer: columns of the nodes and of the ties, and what is to be said of how they were computed, in sentences. */
export interface Answer {
  readonly columns?: Readonly<Record<string, Float64Array | Uint32Array>>;
  readonly ties?: Readonly<Record<string, readonly string[]>>;
  readonly notes?: readonly string[];
}

/** A question about the nodes of a network, with the measures that answer it. */
export interface Question {
  readonly id: QuestionId;
  readonly asks: string;
  readonly says: string;
  /** When the answer leads astray. */
  readonly misleads: string;
  /** Whether ties must have a direction. */
  readonly directedOnly: boolean;
  /** Whether it is asked of two-mode networks alone; or why it makes no sense there. */
  readonly twoMode?: { readonly only: true } | { readonly not: string };
  readonly columns: readonly MeasureColumn[];
  /** About how many seconds an answer takes. */
  readonly seconds: (nodes: number, ties: number) => number;
  readonly answer: (asked: Asked) => Answer;
}
