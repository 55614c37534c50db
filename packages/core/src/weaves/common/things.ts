import { groupRows, pick, pickNumbers, type Numbered } from './rows';
import type { ChosenOccurrences, Occurrences } from './occurrences';
import type { Projection } from './projection';
import type { EvidenceRows, Woven } from './woven';
import { withoutIsolates } from './keepNodes';

/** Whether a thing is left out, by its number. */
export type IsLeftOut = (thing: number) => boolean;

/** When each of the rows was written. */
export function timesOf({ time }: Occurrences, rows: Uint32Array): Float64Array {
  return pickNumbers(rows, (i) => time[i]);
}

export /** Messages of each author among the rows; rows of a message follow each other. */
function usesOf({ message }: Occurrences, rows: Uint32Array, authors: Numbered): Float64Array {
  const uses = new Float64Array(authors.count);
  for (let r = 0; r < rows.length; r++)
    if (r === 0 || message[rows[r]] !== message[rows[r - 1]]) uses[authors.of[r]]++;
  return uses;
}

/** Rows of evidence, ordered by node, then unit, then message; the rows come by message. */
export function evidenceOf(
  occurrences: Occurrences,
  rows: Uint32Array,
  nodes: number,
  node: Uint32Array,
  units: number,
  unit: Uint32Array,
): EvidenceRows {
  const byUnit = groupRows(units, unit).values;
  const order = groupRows(nodes, node, byUnit).values;
  return {
    node: pick(order, (i) => node[i]),
    unit: pick(order, (i) => unit[i]),
    message: pickNumbers(order, (i) => occurrences.message[rows[i]]),
    time: pickNumbers(order, (i) => occurrences.time[rows[i]]),
  };
}

/** A network without direction from pairs that were projected. */
export function wovenOf(
  { things, uses, notes }: Pick<ChosenOccurrences, 'things' | 'uses' | 'notes'>,
  { source, target, weight, shared, first, last, days, dropped }: Projection,
  evidence: () => EvidenceRows,
  isolates: boolean,
): Woven {
  const all: Woven = {
    directed: false,
    id: things,
    mode: new Uint8Array(things.length),
    uses,
    source,
    target,
    weight,
    columns: { shared, days, first, last },
    evidence,
    droppedBelowThreshold: dropped,
    notes,
  };
  return isolates ? all : withoutIsolates(all);
}
