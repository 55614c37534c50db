import type { TwoModeWeave } from '@pebble/contract';
import { distinctDays } from '../common/days';
import { withoutIsolates } from '../common/keepNodes';
import { chooseOccurrences, type Occurrences } from '../common/occurrences';
import { PairTable } from '../common/pairTable';
import { numberKeys, pick, pickNumbers, type Numbered } from '../common/rows';
import { evidenceOf, timesOf, usesOf, type IsLeftOut } from '../common/things';
import type { EvidenceRows, Woven } from '../common/woven';

/** Accounts tied to the things they use; weight is the number of messages. Accounts come first, then things. */
export function weaveTwoMode(occurrences: Occurrences, weave: TwoModeWeave, isLeftOut: IsLeftOut): Woven {
  const chosen = chooseOccurrences(occurrences, weave, isLeftOut);
  const { rows, things, placeOf } = chosen;
  const authors = numberKeys(rows, (i) => occurrences.author[i]);
  const table = new PairTable(0);
  const pairOf = new Uint32Array(rows.length);
  for (let r = 0; r < rows.length; r++) {
    const thing = authors.count + placeOf[occurrences.thing[rows[r]]];
    pairOf[r] = table.add(authors.of[r], thing, 0, occurrences.time[rows[r]]);
  }
  const days = distinctDays(table.size, pairOf, timesOf(occurrences, rows));
  const kept = table.sorted((p) => table.count[p] >= weave.atLeast);
  const ends = (of: Uint32Array): Uint32Array => pick(kept, (p) => of[p]);
  const column = (of: ArrayLike<number>): Float64Array => pickNumbers(kept, (p) => of[p]);
  const all: Woven = {
    directed: true,
    id: join(Uint32Array.from(authors.keys), things),
    mode: new Uint8Array(authors.count + things.length).fill(1, authors.count),
    uses: joinNumbers(usesOf(occurrences, rows, authors), chosen.uses),
    source: ends(table.from),
    target: ends(table.to),
    weight: column(table.count),
    columns: { days: column(days), first: column(table.first), last: column(table.last) },
    // A message stands behind the tie of its author and a thing in it.
    evidence: () => twoSidedEvidence(occurrences, rows, authors, placeOf, things.length),
    droppedBelowThreshold: table.size - kept.length,
    notes: chosen.notes,
  };
  return withoutIsolates(all);
}

/** Each row stands once with its author and once with its thing; they share the message. */
function twoSidedEvidence(
  occurrences: Occurrences,
  rows: Uint32Array,
  authors: Numbered,
  placeOf: Int32Array,
  things: number,
): EvidenceRows {
  const messages = numberKeys(rows, (i) => occurrences.message[i]);
  const twice = join(rows, rows);
  const node = join(
    authors.of,
    pick(rows, (i) => authors.count + placeOf[occurrences.thing[i]]),
  );
  const nodes = authors.count + things;
  return evidenceOf(occurrences, twice, nodes, node, messages.count, join(messages.of, messages.of));
}

function join(a: Uint32Array, b: Uint32Array): Uint32Array {
  const both = new Uint32Array(a.length + b.length);
  both.set(a);
  both.set(b, a.length);
  return both;
}

function joinNumbers(a: Float64Array, b: Float64Array): Float64Array {
  const both = new Float64Array(a.length + b.length);
  both.set(a);
  both.set(b, a.length);
  return both;
}
