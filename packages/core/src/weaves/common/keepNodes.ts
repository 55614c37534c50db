import { pick, pickNumbers } from './rows';
import { counted } from '../../words/sentence';
import type { EvidenceRows, Woven } from './woven';

/** The same network without nodes that have no tie; their evidence goes with them. */
export function withoutIsolates(woven: Woven): Woven {
  const { id, source, target } = woven;
  const isTied = new Uint8Array(id.length);
  for (const ends of [source, target]) for (const v of ends) isTied[v] = 1;
  const kept = Uint32Array.from(id.keys()).filter((v) => isTied[v] === 1);
  if (kept.length === id.length) return woven;
  const gone = id.length - kept.length;
  const note = `${counted(gone, 'node')} without a tie left out.`;
  return keepNodes({ ...woven, notes: [...woven.notes, note] }, kept);
}

/** The same network with some of its nodes; no tie may lead to another one. @param kept places of the nodes, ascending */
export function keepNodes(woven: Woven, kept: Uint32Array): Woven {
  const { id, mode, uses, days, source, target, evidence } = woven;
  const place = new Int32Array(id.length).fill(-1);
  kept.forEach((v, i) => (place[v] = i));
  return {
    ...woven,
    id: pick(kept, (v) => id[v]),
    mode: Uint8Array.from(kept, (v) => mode[v]),
    uses: Float64Array.from(kept, (v) => uses[v]),
    ...(days
      ? {
          days: () => {
            const all = days();
            return Float64Array.from(kept, (v) => all[v]);
          },
        }
      : {}),
    source: pick(source, (v) => place[v]),
    target: pick(target, (v) => place[v]),
    evidence: evidence && (() => evidenceOfKept(evidence(), place)),
  };
}

/** The same network with some of its ties. @param kept places of the ties, ascending @param note what is to be said of it */
export function keepTies(woven: Woven, kept: Uint32Array, note: string | null): Woven {
  const of = (values: Float64Array): Float64Array => Float64Array.from(kept, (e) => values[e]);
  return {
    ...woven,
    source: Uint32Array.from(kept, (e) => woven.source[e]),
    target: Uint32Array.from(kept, (e) => woven.target[e]),
    weight: of(woven.weight),
    columns: Object.fromEntries(Object.entries(woven.columns).map(([name, values]) => [name, of(values)])),
    notes: note === null ? woven.notes : [...woven.notes, note],
  };
}

/** Rows of the nodes that are kept, by their new places. */
function evidenceOfKept({ node, unit, message, time }: EvidenceRows, place: Int32Array): EvidenceRows {
  const rows = Uint32Array.from(node.keys()).filter((i) => place[node[i]] >= 0);
  return {
    node: pick(rows, (i) => place[node[i]]),
    unit: pick(rows, (i) => unit[i]),
    message: pickNumbers(rows, (i) => message[i]),
    time: pickNumbers(rows, (i) => time[i]),
  };
}
