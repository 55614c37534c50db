import type { ColumnInfo, GroupingInfo } from '@pebble/contract';
import {
  counted,
  formatCount,
  graphOf,
  groupNodes as group,
  methodPhrase,
  isTakenColumn,
} from '@pebble/core';
import { keepGrouping } from '../../storage/groupings';
import { findNetwork } from '../../storage/networks';
import { readTable } from '../../storage/files/tables';
import { StepRefused } from '../../errors/stepErrors';
import type { StepDefinition } from '../step';

interface Grouped extends Record<string, unknown> {
  readonly network: string;
  readonly column: string;
  readonly info: GroupingInfo;
  readonly notes: readonly string[];
}

/** Puts the nodes of a network into groups, which become a column; another says how sure they are. */
export const groupNodes: StepDefinition<'group-nodes', Grouped> = {
  kind: 'group-nodes',
  async run({ store, files }, { network, name, settings }, progress) {
    const found = await findNetwork(store, network);
    if (!found) throw new StepRefused('This network is no longer there.');
    if (isTakenColumn(name))
      throw new StepRefused(`The nodes have a column “${name}” already. Choose another name.`);
    if (found.nodes === 0) throw new StepRefused('This network has no nodes that could be grouped.');
    const directed = settings.directed && found.directed;
    const graph = graphOf(found.nodes, readTable(store.folder, network, 'edges'));
    const { of, names, info, sure, notes } = group(graph, { ...settings, directed }, progress);
    const nodes = readTable(store.folder, network, 'nodes');
    const sureName = `${name}, sure`;
    files.table(network, 'nodes', {
      ...nodes,
      [name]: Array.from(of, (g) => names[g]),
      ...(sure ? { [sureName]: sure } : {}),
    });
    const columns: ColumnInfo[] = [
      { name, title: name, type: 'category', how: `Groups by ${methodPhrase(info.settings)}.` },
    ];
    if (sure)
      columns.push({
        name: sureName,
        title: sureName,
        type: 'number',
        how: `Share of ${counted(settings.stability, 'further run')} ${settings.resample ? 'on messages drawn anew ' : ''}in which the node stays with its group, 0 to 1.`,
      });
    await keepGrouping(store, network, name, info, columns);
    return { network, column: name, info, notes };
  },
  describe({ name, settings }, result) {
    if (!result) return 'The nodes were to be put into groups.';
    const { info, notes } = result;
    const again = info.stability
      ? ` In ${counted(settings.stability, 'further run')}${settings.resample ? ', each on messages drawn anew,' : ''} a node stayed with its group in ${Math.round(100 * info.stability.mean)} % on average.`
      : '';
    const single = info.single > 0 ? `, ${formatCount(info.single)} of them of one node,` : '';
    return `${counted(info.groups, 'group')} (“${name}”)${single} ${info.groups === 1 ? 'was' : 'were'} found by ${methodPhrase(info.settings)}; modularity ${info.modularity.toFixed(3)}.${again}${notes.map((note) => ` ${note}`).join('')}`;
  },
  seed: ({ settings }) => settings.seed,
};
