import { counted, formatCount, nodeWords, wovenAs } from '@pebble/core';
import { StepRefused } from '../../errors/stepErrors';
import { nodesOfAudience } from '../../reading/audiences';
import { findNetwork } from '../../storage/networks';
import type { StepDefinition } from '../step';
import { setByHand } from './setByHand';

interface MarkedAudience extends Record<string, unknown> {
  readonly network: string;
  readonly name: string;
  readonly column: string;
  /** Of the audience. */
  readonly members: number;
  /** Of these, those that are nodes of the network. */
  readonly nodes: number;
  /** Nodes that had another value before. */
  readonly changed: number;
}

/** Gives the nodes of a network that are in an audience a value of a category of one's own: "follows both, but not the third". */
export const markAudience: StepDefinition<'mark-audience', MarkedAudience> = {
  kind: 'mark-audience',
  async run(context, { network, audience, column, value }, progress) {
    const { store } = context;
    const found = await findNetwork(store, network);
    if (!found) throw new StepRefused('This network is no longer there.');
    progress('Finding who they are', null);
    const { nodes, members } = await nodesOfAudience(store, found, audience);
    if (nodes.length === 0)
      throw new StepRefused(
        `None of ${counted(members, 'member')} is among the ${nodeWords(wovenAs(found))[1]} of “${found.name}”. Nothing was changed.`,
      );
    const changed = await setByHand(context, found, nodes, column, value);
    return { network, name: found.name, column, members, nodes: nodes.length, changed };
  },
  describe({ audience: { names, inside, outside }, column, value }, result) {
    const listed = (places: readonly number[]): string =>
      places.map((at) => `“${names[at] ?? ''}”`).join(' and ');
    const who = [
      ...(inside.length > 0 ? [`in ${listed(inside)}`] : []),
      ...(outside.length > 0 ? [`not in ${listed(outside)}`] : []),
    ].join(', but ');
    if (!result) return `Nodes ${who} were to be marked as “${value}” by “${column}”.`;
    const { nodes, members, name } = result;
    return `“${column}” of ${counted(nodes, 'node')} of “${name}” was set to “${value}”: those that are ${who} (${formatCount(members)}, of whom ${formatCount(members - nodes)} are not in the network).`;
  },
};
