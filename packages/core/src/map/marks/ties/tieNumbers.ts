import type { Ramp } from '@pebble/contract';
import type { TableColumns } from '../../../network/tables';
import { OTHER_COLOUR, RAMP_STEPS, rampColour } from '../../style/palette';
import { middledShare, rangeOf, risingShare } from '../../style/shares';

/** How strong ties are that have least of it, and most, beside what is usual. */
const LEAST = 0.6;
const MOST = 8;

/** The colours of ties by a number that they have. */
export interface TieNumbers {
  readonly column: string;
  /** The ramp from little to much. */
  readonly ramp: readonly string[];
  /** From what lies at the bottom to what lies on top: of ties without the number, with little, with much. */
  readonly colours: readonly string[];
  /** How much stronger than usual ties of each colour are drawn: few that have much would not be seen among many that have none. */
  readonly standsOut: readonly number[];
  /** Index into `colours`, by tie. */
  readonly of: Uint8Array;
  /** Least and highest number of the ties that are shown. */
  readonly range: readonly [number, number];
}

/**
 * Colours ties by a number column of theirs. Where some numbers are below 0 the two-sided ramp has its middle at 0.
 * @param shown ties whose least and highest number are the ends of the ramp
 * @returns null where ties have no such numbers
 */
export function colourTies(
  edges: TableColumns,
  shown: Uint32Array,
  { column, ramp }: { readonly column: string; readonly ramp: Ramp },
): TieNumbers | null {
  const value = edges[column];
  if (!ArrayBuffer.isView(value)) return null;
  const numbers = value as unknown as ArrayLike<number>;
  const range = rangeOf(numbers, shown);
  const share = ramp === 'two-sided' ? middledShare(range, 0) : risingShare(range);
  const shares = Array.from({ length: RAMP_STEPS }, (_, i) => i / (RAMP_STEPS - 1));
  const colours = shares.map((at) => rampColour(at, ramp));
  const much = (step: number): number =>
    ramp === 'two-sided' ? Math.abs(2 * shares[step] - 1) : shares[step];
  const rising = [...shares.keys()].sort((a, b) => much(a) - much(b));
  const place = rising.map((_, step) => 1 + rising.indexOf(step));
  const of = new Uint8Array(numbers.length);
  for (const e of shown) {
    const own = share.of(numbers[e]);
    of[e] = Number.isNaN(own) ? 0 : place[Math.round(own * (RAMP_STEPS - 1))];
  }
  return {
    column,
    ramp: colours,
    colours: [OTHER_COLOUR, ...rising.map((step) => colours[step])],
    standsOut: [LEAST, ...rising.map((step) => LEAST + (MOST - LEAST) * much(step))],
    of,
    range: share.ends,
  };
}
