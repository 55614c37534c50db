import type { Thinned } from '@pebble/contract';
import { formatCount } from '../../words/sentence';

/** Ties are more than this: they are not made. */
export const MOST_TIES = 5_000_000;

/** Which messages stand behind nodes and ties: a node's rows follow each other, by unit and then by message. */
export interface EvidenceRows {
  readonly node: Uint32Array;
  /** What two nodes must have in common for a message to stand behind their tie: a message, a thread, an author, a thing. */
  readonly unit: Uint32Array;
  readonly message: Float64Array;
  /** Milliseconds since 1970, NaN where undated. */
  readonly time: Float64Array;
}

/** A network of any kind of weave, as columns; node and tie rows in their order. */
export interface Woven {
  readonly directed: boolean;
  /** Numbers by which the study knows the nodes, and of which of the two sorts each is: 0, or 1 for things beside accounts. */
  readonly id: Uint32Array;
  readonly mode: Uint8Array;
  /** Messages of each node. */
  readonly uses: Float64Array;
  /** Days (UTC) on which each node wrote; where it is left out, those on which messages of its evidence fall. */
  readonly days?: () => Float64Array;
  readonly source: Uint32Array;
  readonly target: Uint32Array;
  readonly weight: Float64Array;
  /** Further columns of the ties: first, last, days, counts. */
  readonly columns: Readonly<Record<string, Float64Array>>;
  /** Makes the rows of evidence, which an estimate need not have; null where no messages stand behind the ties. */
  readonly evidence: (() => EvidenceRows) | null;
  /** How long two messages of a unit may lie apart to stand behind a tie, in milliseconds; any time where it is left out. */
  readonly window?: number;
  /** Of a network whose evidence is found elsewhere: how many messages make its ties. */
  readonly countMessages?: (ties: Pick<Woven, 'id' | 'source' | 'target'>) => number;
  readonly droppedBelowThreshold: number;
  /** What the backbone kept, where it was asked for. */
  readonly thinned?: Thinned;
  /** What was left out beside, in sentences. */
  readonly notes: readonly string[];
}

/** "This would give 6,000,000 ties; at most 5,000,000 can be held. …" */
export function tooManyPhrase(ties: number, wouldFit: number | null): string {
  const would = wouldFit === null ? `more than ${formatCount(MOST_TIES)}` : formatCount(ties);
  const advice =
    wouldFit === null
      ? 'Ask for more of each tie.'
      : `With at least ${formatCount(wouldFit)} for each tie it would fit.`;
  return `This would give ${would} ties; at most ${formatCount(MOST_TIES)} can be held. ${advice}`;
}

/** A weave that would give more ties than can be held. */
export class TooManyTies extends Error {
  constructor(
    readonly ties: number,
    /** What the ties would need at least for as many as can be held; null where counting was ended before that is known. */
    readonly wouldFit: number | null,
  ) {
    super();
  }
}

/** @param strengths of the ties that would be made. Throws TooManyTies. */
export function refuseTooMany(strengths: Float64Array): void {
  if (strengths.length <= MOST_TIES) return;
  const falling = strengths.slice().sort().reverse();
  throw new TooManyTies(strengths.length, Math.floor(falling[MOST_TIES]) + 1);
}

/** A network without nodes. */
export const NOTHING_WOVEN: Woven = {
  directed: false,
  id: new Uint32Array(0),
  mode: new Uint8Array(0),
  uses: new Float64Array(0),
  source: new Uint32Array(0),
  target: new Uint32Array(0),
  weight: new Float64Array(0),
  columns: {},
  evidence: null,
  droppedBelowThreshold: 0,
  notes: [],
};
