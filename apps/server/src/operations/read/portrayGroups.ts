import { counted } from '@pebble/core';
import { StepRefused } from '../../errors/stepErrors';
import { drawPortraits, type DrawnPortraits } from '../../reading/drawPortraits';
import { drawnFromNow } from '../../reading/outOfDate';
import { readTable } from '../../storage/files/tables';
import { findNetwork } from '../../storage/networks';
import { keepPortraits, type DrawnFrom } from '../../storage/portraits';
import type { StepDefinition } from '../step';

interface Portrayed extends Record<string, unknown> {
  readonly network: string;
  readonly column: string;
  readonly groups: number;
  /** Groups that have no portrait. */
  readonly further: number;
  readonly messages: number;
}

interface Drawn extends DrawnPortraits {
  readonly drawnFrom: DrawnFrom;
}

/** Draws the portraits of the groups of a column, beside other steps. */
export const portrayGroups: StepDefinition<'portray-groups', Portrayed, Drawn> = {
  kind: 'portray-groups',
  async prepare({ store }, { network, column, settings }, progress) {
    const found = await findNetwork(store, network);
    if (!found) throw new StepRefused('This network is no longer there.');
    if (!(column in readTable(store.folder, network, 'nodes')))
      throw new StepRefused(`The nodes have no column “${column}” by which they fall into groups.`);
    // What is other by the time that they are drawn makes them out of date.
    const drawnFrom = await drawnFromNow(store, found, column);
    return { drawnFrom, ...(await drawPortraits(store, found, column, settings, progress)) };
  },
  async run(
    { store, step },
    { network, column, settings },
    _progress,
    { bodies, drawnFrom, messages, further },
  ) {
    const found = await findNetwork(store, network);
    if (!found) throw new StepRefused('This network is no longer there.');
    await keepPortraits(
      store,
      network,
      column,
      { step, settings, drawnFrom, messages, nodes: found.nodes, further },
      bodies,
    );
    return { network, column, groups: bodies.length, further: further.groups, messages };
  },
  describe({ column, settings: { leastAuthors } }, result) {
    if (!result) return 'Groups were to be portrayed.';
    const { groups, further, messages } = result;
    const others =
      further > 0 ? `; ${counted(further, 'smaller group')} ${further === 1 ? 'has' : 'have'} none` : '';
    if (messages === 0)
      return `${counted(groups, 'group')} of “${column}” ${groups === 1 ? 'was' : 'were'} portrayed by nodes and ties${others}.`;
    return (
      `${counted(groups, 'group')} of “${column}” ${groups === 1 ? 'was' : 'were'} portrayed by ${counted(messages, 'message')}${others}. ` +
      `What is typical for a group stands in a larger share of its messages than elsewhere, by log-likelihood above 10.83 (Dunning 1993; Rayson & Garside 2000), ` +
      `written by at least ${counted(leastAuthors, 'author')}.`
    );
  },
  seed: ({ settings }) => settings.seed,
};
