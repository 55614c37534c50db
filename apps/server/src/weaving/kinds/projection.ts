import type { Network, ProjectionWeave, WeaveEstimate } from '@pebble/contract';
import {
  finishWeave,
  isTakenColumn,
  isTwoMode,
  nodeLabels,
  NOTHING_WOVEN,
  sizeOf,
  sketchOf,
  textsIn,
  tiesBehind,
  TooManyTies,
  tooManyPhrase,
  weaveOneSort,
  type TableColumns,
  type TwoSorts,
  type Woven,
} from '@pebble/core';
import { StepRefused } from '../../errors/stepErrors';
import { readTable } from '../../storage/files/tables';
import { findNetwork } from '../../storage/networks';
import type { Store } from '../../storage/open';
import { throughInner, type EvidenceOf } from '../evidence/evidence';
import { oneSortEvidence } from '../evidence/ofOneSort';
import type { WeaveResult } from '../weaveResult';
import type { NetworkKind } from './kind';

/** One sort of nodes of a two-mode network, tied by what they share. */
export const projection: NetworkKind<ProjectionWeave> = {
  weave: fromOneSort,
  estimate,
  evidence: (store, network, { network: of }, within) =>
    throughInner(store, of, within, (inner, evidence) => oneSortEvidence(store, network, inner, evidence)),
};

/** A network of one sort of nodes of another one. */
interface OneSort {
  readonly inner: Network;
  readonly nodes: TableColumns;
  /** Its ids are places in the other network. */
  readonly woven: Woven;
}

/** Ties the nodes of one sort by those of the other, or says why it cannot. Throws TooManyTies. */
async function project(store: Store, recipe: ProjectionWeave): Promise<OneSort | string> {
  const inner = await findNetwork(store, recipe.network);
  const nodes = inner && readTable(store.folder, inner.id, 'nodes');
  if (!nodes) return 'Choose a network of two sorts of nodes; the one that was chosen is no longer there.';
  if (!('mode' in nodes))
    return `The nodes of “${inner.name}” have no column “mode” that says of which sort they are.`;
  const sorts = twoSorts(store, inner.id, nodes);
  const names = [...new Set(sorts.sort)].slice(0, 5).join(', ');
  if (!isTwoMode(sorts))
    return `“${inner.name}” is not two-mode: each tie must lead from one sort of nodes to the other (its column “mode” holds ${names}).`;
  if (!sorts.sort.includes(recipe.sort))
    return `The sorts of nodes of “${inner.name}” are ${names}. Choose one of these.`;
  return { inner, nodes, woven: finishWeave(weaveOneSort(sorts, recipe), recipe) };
}

function twoSorts(store: Store, network: string, nodes: TableColumns): TwoSorts {
  const { source, target } = readTable(store.folder, network, 'edges') as Record<string, Uint32Array>;
  return { source, target, sort: textsIn(nodes['mode']) };
}

/** What a recipe gives from a two-mode network; what that knows of its nodes goes with them. */
async function fromOneSort(store: Store, recipe: ProjectionWeave, within: EvidenceOf): Promise<WeaveResult> {
  const found = await madeOf(store, recipe);
  if (typeof found === 'string') throw new StepRefused(found);
  const { inner, nodes, woven } = found;
  if (woven.id.length === 0)
    throw new StepRefused('No node is left by this sentence. Ask for fewer partners.');
  const pick = (values: TableColumns[string]): TableColumns[string] =>
    ArrayBuffer.isView(values)
      ? Float64Array.from(woven.id, (v) => values[v])
      : Array.from(woven.id, (v) => values[v]);
  const own = inner.columns.filter(({ name }) => name !== 'mode' && name in nodes && !isTakenColumn(name));
  return {
    directed: false,
    nodes: {
      id: Uint32Array.from(woven.id.keys()),
      handle: pick(nodes['handle']),
      name: 'name' in nodes ? pick(nodes['name']) : Array.from(woven.id, () => ''),
      partners: woven.uses,
      ...Object.fromEntries(own.map(({ name }) => [name, pick(nodes[name])])),
    },
    edges: { source: woven.source, target: woven.target, weight: woven.weight, ...woven.columns },
    // Which node of the other network each is: what stands behind it is found there.
    evidence: { node: woven.id },
    own: [
      {
        name: 'partners',
        title: 'partners',
        type: 'number',
        how: `Nodes of the other sort to which it is tied in “${inner.name}”.`,
      },
      ...own,
    ],
    messages: await messagesOfOneSort(store, inner, woven, within),
    dropped: woven.droppedBelowThreshold,
    notes: woven.notes,
    decisions: [],
    from: `, of the network “${inner.name}”`,
  };
}

/** How many messages make the ties of one sort: those behind the ties of either end to what both share. */
async function messagesOfOneSort(
  store: Store,
  inner: Network,
  { id, source, target }: Woven,
  within: EvidenceOf,
): Promise<number> {
  const evidence = inner.messages > 0 ? await within(store, inner) : null;
  if (!evidence) return 0;
  const { source: from, target: to } = readTable(store.folder, inner.id, 'edges') as Record<
    string,
    Uint32Array
  >;
  const pairs = Array.from(source, (a, e) => ({ source: id[a], target: id[target[e]] }));
  const ties = tiesBehind({ source: from, target: to }, pairs);
  const once = new Map(ties.map((tie) => [`${tie.source} ${tie.target}`, tie]));
  return (await evidence.messages({ ties: [...once.values()] }, { offset: 0, limit: 0 })).total;
}

async function madeOf(store: Store, recipe: ProjectionWeave): Promise<OneSort | string> {
  try {
    return await project(store, recipe);
  } catch (error) {
    if (error instanceof TooManyTies) throw new StepRefused(tooManyPhrase(error.ties, error.wouldFit));
    throw error;
  }
}

async function estimate(store: Store, weave: ProjectionWeave, within: EvidenceOf): Promise<WeaveEstimate> {
  const found = await project(store, weave);
  if (typeof found === 'string') return sizeOf(NOTHING_WOVEN, 0, found);
  const labels = nodeLabels(found.nodes);
  const { woven } = found;
  return sizeOf(
    woven,
    await messagesOfOneSort(store, found.inner, woven, within),
    'No two of them share so many. Ask for fewer.',
    sketchOf(woven, (node) => labels[woven.id[node]]),
  );
}
