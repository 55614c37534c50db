import type { GroupWeave, Network, WeaveEstimate } from '@pebble/contract';
import {
  contract,
  formatCount,
  nodeLabels,
  NOTHING_WOVEN,
  sizeOf,
  sketchOf,
  textsIn,
  type Contracted,
  type Woven,
} from '@pebble/core';
import { StepRefused } from '../../errors/stepErrors';
import { readTable } from '../../storage/files/tables';
import { findNetwork } from '../../storage/networks';
import type { Store } from '../../storage/open';
import { throughInner, type EvidenceOf } from '../evidence/evidence';
import { groupEvidence } from '../evidence/ofGroups';
import type { WeaveResult } from '../weaveResult';
import type { NetworkKind } from './kind';

/** Groups of a network as nodes; the evidence of a group is that of its nodes. */
export const groups: NetworkKind<GroupWeave> = {
  weave: fromGroups,
  estimate,
  evidence: (store, network, { network: of }, within) =>
    throughInner(store, of, within, (inner, evidence) => groupEvidence(store, network, inner, evidence)),
};

async function fromGroups(store: Store, recipe: GroupWeave, within: EvidenceOf): Promise<WeaveResult> {
  const network = await findNetwork(store, recipe.network);
  if (!network) throw new StepRefused('The network whose groups were to be nodes is no longer there.');
  const nodes = readTable(store.folder, network.id, 'nodes');
  const column = nodes[recipe.column];
  if (column === undefined)
    throw new StepRefused(`The nodes of “${network.name}” have no column “${recipe.column}”.`);
  const edges = readTable(store.folder, network.id, 'edges');
  const graph = {
    source: edges['source'] as Uint32Array,
    target: edges['target'] as Uint32Array,
    weight: edges['weight'] as Float64Array,
  };
  const made = contract(graph, nodeLabels(nodes), textsIn(column), network.directed, recipe);
  const groups = made.names.map((name) => groupName(name, recipe.column));
  return {
    directed: network.directed,
    nodes: {
      id: Uint32Array.from(made.names, (_, i) => i),
      handle: groups.map((name, i) =>
        name === made.names[i] ? name : `${name} (${formatCount(made.size[i])})`,
      ),
      name: groups.map(() => ''),
      members: made.size,
      group: groups,
    },
    edges: { source: made.source, target: made.target, weight: made.weight, ties: made.ties },
    // Which new node each old one became: what stands behind it is found there.
    evidence: { node: made.of },
    own: [
      { name: 'members', title: 'members', type: 'number', how: `Nodes of “${network.name}” that it holds.` },
      { name: 'group', title: 'group', type: 'category', how: `The group of “${network.name}” that it is.` },
    ],
    messages: await messagesOfGroups(store, network, made, within),
    dropped: made.dropped,
    notes: [],
    decisions: [],
    from: `, of the network “${network.name}”`,
  };
}

/** How many messages make the ties of groups: all of the network's, less those of ties that were too weak. */
async function messagesOfGroups(
  store: Store,
  network: Network,
  { of, source, target, dropped }: Contracted,
  within: EvidenceOf,
): Promise<number> {
  if (dropped === 0 || network.messages === 0) return network.messages;
  const evidence = await within(store, network);
  if (!evidence) return network.messages;
  const key = (a: number, b: number): string => (network.directed || a < b ? `${a} ${b}` : `${b} ${a}`);
  const kept = new Set(Array.from(source, (a, e) => key(a, target[e])));
  const edges = readTable(store.folder, network.id, 'edges') as unknown as Ends;
  const ties = Array.from(edges.source, (a, e) => ({ source: a, target: edges.target[e] }));
  const made = ties.filter((tie) => kept.has(key(of[tie.source], of[tie.target])));
  return (await evidence.messages({ ties: made }, { offset: 0, limit: 0 })).total;
}

interface Ends {
  readonly source: Uint32Array;
  readonly target: Uint32Array;
}

/** A group that is known by a number alone is called by its column too. */
function groupName(name: string, column: string): string {
  return /^\d+$/.test(name) ? `${column} ${name}` : name;
}

async function estimate(store: Store, weave: GroupWeave, within: EvidenceOf): Promise<WeaveEstimate> {
  const network = await findNetwork(store, weave.network);
  const nodes = network && readTable(store.folder, network.id, 'nodes');
  if (!nodes || nodes[weave.column] === undefined)
    return sizeOf(NOTHING_WOVEN, 0, 'Choose a network and a column that gives its nodes groups.');
  const { source, target, weight } = readTable(store.folder, network.id, 'edges') as Record<string, never>;
  const groups = textsIn(nodes[weave.column]);
  const made = contract({ source, target, weight }, nodeLabels(nodes), groups, network.directed, weave);
  const woven: Woven = {
    ...NOTHING_WOVEN,
    id: new Uint32Array(made.names.length),
    source: made.source,
    target: made.target,
    weight: made.weight,
    droppedBelowThreshold: made.dropped,
  };
  const empty = 'No tie between groups is so strong. Ask for less.';
  return sizeOf(
    woven,
    await messagesOfGroups(store, network, made, within),
    empty,
    sketchOf(woven, (group) => made.names[group]),
  );
}
