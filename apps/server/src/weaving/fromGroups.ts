import type { GroupWeave } from '@pebble/contract';
import { contract, formatCount, nodeLabels, textsIn } from '@pebble/core';
import { findNetwork } from '../db/networks';
import type { Store } from '../db/open';
import { readTable } from '../files/tables';
import type { Made } from './made';
import { StepRefused } from '../steps/step';

/** Draws the groups of a network together; the evidence of a group is that of its nodes. */
export async function fromGroups(store: Store, recipe: GroupWeave): Promise<Made> {
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
    messages: network.messages,
    dropped: made.dropped,
    notes: [],
    decisions: [],
    from: `, of the network “${network.name}”`,
  };
}

/** A group that is known by a number alone is called by its column too. */
function groupName(name: string, column: string): string {
  return /^\d+$/.test(name) ? `${column} ${name}` : name;
}
