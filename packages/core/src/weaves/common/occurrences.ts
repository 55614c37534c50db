import { counted, formatCount } from '../../words/sentence';

/** Where things stand: a row for each pair of message and thing, rows of one message together. */
export interface Occurrences {
  readonly count: number;
  readonly message: ArrayLike<number>;
  /** Account that wrote the message, by its number in the study. */
  readonly author: ArrayLike<number>;
  /** Thing by its number. */
  readonly thing: ArrayLike<number>;
  /** Milliseconds since 1970; NaN when the message has no date. */
  readonly time: ArrayLike<number>;
}

/** Occurrences that say more of each row. */
export interface ThreadOccurrences extends Occurrences {
  /** The thread of the message. */
  readonly thread?: ArrayLike<number>;
  /** At which of its words the thing stands, from 0. */
  readonly at?: ArrayLike<number>;
}

export interface PlacingLimits {
  readonly usedAtLeast: number;
  readonly mostUsed: number | null;
  readonly mostInOne: number;
}

/** The rows that a weave goes by, and what was left out. */
export interface ChosenOccurrences {
  readonly rows: Uint32Array;
  /** Numbers of the things that are kept, ascending. */
  readonly things: Uint32Array;
  /** Place of a thing among those that are kept; -1 for one that is not. */
  readonly placeOf: Int32Array;
  /** Messages of each kept thing. */
  readonly uses: Float64Array;
  readonly notes: readonly string[];
}

/**
 * Leaves out messages with very many things, things that are named, things in few messages, and all but the most used. A thing that stands
 * twice in one message counts once.
 * @param isLeftOut whether a thing was named to be left out
 */
export function chooseOccurrences(
  occurrences: Occurrences,
  { usedAtLeast, mostUsed, mostInOne }: PlacingLimits,
  isLeftOut: (thing: number) => boolean,
): ChosenOccurrences {
  const { count, message, thing } = occurrences;
  let largest = -1;
  for (let i = 0; i < count; i++) if (thing[i] > largest) largest = thing[i];
  const uses = new Float64Array(largest + 1);
  const named = new Uint8Array(largest + 1);
  for (let t = 0; t <= largest; t++) if (isLeftOut(t)) named[t] = 1;
  const firstPass = new Uint32Array(count);
  let rows = 0;
  let crowded = 0;
  const lastMessage = new Float64Array(largest + 1).fill(-1);
  // Where a thing was counted last: of what stands twice in a message, or was merged into one, each counts once.
  const countedAt = new Float64Array(largest + 1).fill(-1);
  for (let i = 0; i < count;) {
    let end = i;
    let things = 0;
    for (; end < count && message[end] === message[i]; end++) {
      const t = thing[end];
      if (named[t] || countedAt[t] === i) continue;
      countedAt[t] = i;
      things++;
    }
    if (things > mostInOne) crowded++;
    else
      for (let j = i; j < end; j++) {
        const t = thing[j];
        if (named[t] || lastMessage[t] === message[j]) continue;
        lastMessage[t] = message[j];
        uses[t]++;
        firstPass[rows++] = j;
      }
    i = end;
  }
  const kept = mostUsedOf(uses, usedAtLeast, mostUsed);
  const placeOf = new Int32Array(largest + 1).fill(-1);
  kept.forEach((t, place) => (placeOf[t] = place));
  const used = uses.reduce((sum, n) => sum + (n > 0 ? 1 : 0), 0);
  let chosen = 0;
  for (let r = 0; r < rows; r++) if (placeOf[thing[firstPass[r]]] >= 0) firstPass[chosen++] = firstPass[r];
  const notes: string[] = [];
  if (crowded > 0)
    notes.push(
      `${counted(crowded, 'message')} with more than ${formatCount(mostInOne)} ${crowded === 1 ? 'was' : 'were'} left out.`,
    );
  if (used > kept.length)
    notes.push(`${formatCount(kept.length)} of ${formatCount(used)} were kept, those in most messages.`);
  return {
    rows: firstPass.slice(0, chosen),
    things: kept,
    placeOf,
    uses: Float64Array.from(kept, (t) => uses[t]),
    notes,
  };
}

/** The most used first decides who is kept; of equally used ones those with the lower number. Given back in ascending order. */
function mostUsedOf(uses: Float64Array, atLeast: number, most: number | null): Uint32Array {
  const enough: number[] = [];
  for (let t = 0; t < uses.length; t++) if (uses[t] >= Math.max(1, atLeast)) enough.push(t);
  if (most === null || enough.length <= most) return Uint32Array.from(enough);
  return Uint32Array.from(enough.sort((a, b) => uses[b] - uses[a] || a - b).slice(0, most)).sort();
}
