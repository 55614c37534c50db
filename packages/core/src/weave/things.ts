import type { SharedWeave, TogetherWeave, TwoModeWeave } from '@pebble/contract';
import { distinctDays } from './days';
import { PairTable } from './pairTable';
import { groupRows, numberKeys, pick, pickNumbers, type Numbered } from './rows';
import {
  chooseOccurrences,
  type ChosenOccurrences,
  type Occurrences,
  type ThreadOccurrences,
} from './occurrences';
import { project, type Memberships, type Projection } from './projection';
import type { EvidenceRows, Woven } from './woven';
import { withoutIsolates } from './keepNodes';
import { weaveNear } from './near';

type IsLeftOut = (thing: number) => boolean;
const DAY = 86_400_000;

/** Things tied when they stand together in a message, near each other in it, in a thread, or with one author (in all, or on one day). */
export function weaveTogether(
  occurrences: ThreadOccurrences,
  weave: TogetherWeave,
  isLeftOut: IsLeftOut,
  progress?: (share: number) => void,
): Woven {
  if (weave.unit === 'near') return weaveNear(occurrences, weave, isLeftOut);
  const chosen = chooseOccurrences(occurrences, weave, isLeftOut);
  const { rows, things, placeOf } = chosen;
  const units = numberKeys(rows, unitKey(occurrences, weave.unit));
  const node = pick(rows, (i) => placeOf[occurrences.thing[i]]);
  const byAuthors = weave.weight === 'authors';
  const memberships: Memberships = {
    nodes: things.length,
    units: units.count,
    node,
    unit: units.of,
    time: times(occurrences, rows),
    ...(byAuthors ? { author: pick(rows, (i) => occurrences.author[i]) } : {}),
  };
  const ties = project(memberships, { ...weave, byAuthors, progress });
  return finish(
    chosen,
    ties,
    () => evidenceOf(occurrences, rows, things.length, node, units.count, units.of),
    weave.isolates,
  );
}

/** Accounts tied by the things that they share. */
export function weaveShared(
  occurrences: Occurrences,
  weave: SharedWeave,
  isLeftOut: IsLeftOut,
  progress?: (share: number) => void,
): Woven {
  const chosen = chooseOccurrences(occurrences, weave, isLeftOut);
  const { rows, placeOf } = chosen;
  const authors = numberKeys(rows, (i) => occurrences.author[i]);
  const unit = pick(rows, (i) => placeOf[occurrences.thing[i]]);
  const ties = project(
    {
      nodes: authors.count,
      units: chosen.things.length,
      node: authors.of,
      unit,
      time: times(occurrences, rows),
    },
    { ...weave, progress },
  );
  const accounts = {
    ...chosen,
    things: Uint32Array.from(authors.keys),
    uses: usesOf(occurrences, rows, authors),
  };
  return finish(
    accounts,
    ties,
    () => evidenceOf(occurrences, rows, authors.count, authors.of, chosen.things.length, unit),
    weave.isolates,
  );
}

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
  const days = distinctDays(table.size, pairOf, times(occurrences, rows));
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

function unitKey(
  occurrences: ThreadOccurrences,
  unit: Exclude<TogetherWeave['unit'], 'near'>,
): (row: number) => number {
  switch (unit) {
    case 'message':
      return (i) => occurrences.message[i];
    case 'thread':
      return (i) => occurrences.thread?.[i] ?? occurrences.message[i];
    case 'author':
      return (i) => occurrences.author[i];
    case 'author-day': {
      // Days since 1970 stay below 2^17; undated messages share one.
      const day = (time: number): number => (Number.isNaN(time) ? 0 : Math.floor(time / DAY) + 1);
      return (i) => occurrences.author[i] * 0x20000 + day(occurrences.time[i]);
    }
  }
}

function times({ time }: Occurrences, rows: Uint32Array): Float64Array {
  return pickNumbers(rows, (i) => time[i]);
}

/** Messages of each author among the rows; rows of a message follow each other. */
function usesOf({ message }: Occurrences, rows: Uint32Array, authors: Numbered): Float64Array {
  const uses = new Float64Array(authors.count);
  for (let r = 0; r < rows.length; r++)
    if (r === 0 || message[rows[r]] !== message[rows[r - 1]]) uses[authors.of[r]]++;
  return uses;
}

/** Rows of evidence, ordered by node, then unit, then message; the rows come by message. */
function evidenceOf(
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

function finish(
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
