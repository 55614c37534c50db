import type { ProjectionWeave, Weave, WeaveEstimate } from '@pebble/contract';
import {
  contract,
  nodeLabels,
  sizeOf,
  sketchOf,
  textsIn,
  tooManyPhrase,
  TooManyTies,
  type Woven,
} from '@pebble/core';
import { decisionsFor } from '../storage/decisions';
import { findNetwork } from '../storage/networks';
import type { Store } from '../storage/open';
import { readTable } from '../storage/files/tables';
import { messagesOfGroups } from './fromGroups';
import { messagesOfOneSort, projection } from './fromProjection';
import { weaveStudy } from './weaveStudy';

/** How large a weave would be; nothing is stored. */
export async function estimateWeave(
  store: Store,
  weave: Weave,
  progress?: (share: number) => void,
): Promise<WeaveEstimate> {
  if (weave.what === 'groups') return estimateGroups(store, weave);
  try {
    if (weave.what === 'projection') return await estimateOneSort(store, weave);
    const decisions = await decisionsFor(store, weave);
    const { woven, messages, labels, emptiedBy } = weaveStudy(store, weave, decisions, progress);
    return sizeOf(
      woven,
      messages,
      emptiedBy,
      sketchOf(woven, (node) => labels[node]),
    );
  } catch (error) {
    if (!(error instanceof TooManyTies)) throw error;
    const note = tooManyPhrase(error.ties, error.wouldFit);
    return { ...sizeOf(NOTHING, 0, note), emptiedBy: note, tooLarge: true };
  }
}

const NOTHING: Woven = {
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

async function estimateGroups(
  store: Store,
  weave: Extract<Weave, { what: 'groups' }>,
): Promise<WeaveEstimate> {
  const network = await findNetwork(store, weave.network);
  const nodes = network && readTable(store.folder, network.id, 'nodes');
  if (!nodes || nodes[weave.column] === undefined)
    return sizeOf(NOTHING, 0, 'Choose a network and a column that gives its nodes groups.');
  const { source, target, weight } = readTable(store.folder, network.id, 'edges') as Record<string, never>;
  const groups = textsIn(nodes[weave.column]);
  const made = contract({ source, target, weight }, nodeLabels(nodes), groups, network.directed, weave);
  const woven: Woven = {
    ...NOTHING,
    id: new Uint32Array(made.names.length),
    source: made.source,
    target: made.target,
    weight: made.weight,
    droppedBelowThreshold: made.dropped,
  };
  const empty = 'No tie between groups is so strong. Ask for less.';
  return sizeOf(
    woven,
    await messagesOfGroups(store, network, made),
    empty,
    sketchOf(woven, (group) => made.names[group]),
  );
}

async function estimateOneSort(store: Store, weave: ProjectionWeave): Promise<WeaveEstimate> {
  const found = await projection(store, weave);
  if (typeof found === 'string') return sizeOf(NOTHING, 0, found);
  const labels = nodeLabels(found.nodes);
  const { woven } = found;
  return sizeOf(
    woven,
    await messagesOfOneSort(store, found.inner, woven),
    'No two of them share so many. Ask for fewer.',
    sketchOf(woven, (node) => labels[woven.id[node]]),
  );
}
