import { counted, graphOf, groupNodes, keepPart, methodPhrase } from '@pebble/core';
import { keepGrouping } from '../../storage/groupings';
import { readTable } from '../../storage/files/tables';
import { groupsToChange } from './groupsToChange';
import { StepRefused } from '../../errors/stepErrors';
import type { StepDefinition } from '../step';

interface Split extends Record<string, unknown> {
  readonly network: string;
  readonly column: string;
  readonly nodes: number;
  readonly parts: readonly string[];
}

/** Splits one group of a grouping by looking for groups within it; the others stay as they are. */
export const splitGroup: StepDefinition<'split-group', Split> = {
  kind: 'split-group',
  async run({ store, files }, { network, column, group, name, settings }, progress) {
    const { found, nodes, groups } = await groupsToChange(store, { network, column, name });
    const part = keepPart(
      graphOf(found.nodes, readTable(store.folder, network, 'edges')),
      (v) => groups[v] === group,
      () => true,
    );
    if (part.node.length === 0) throw new StepRefused(`There is no group “${group}” in “${column}”.`);
    const { of, names } = groupNodes(part.graph, { ...settings, stability: 0 }, progress);
    if (names.length < 2)
      throw new StepRefused(
        'No groups were found within it. A higher resolution gives more and smaller ones.',
      );
    const titles = names.map((one) => `${group}.${one}`);
    const after = [...groups];
    part.node.forEach((v, i) => (after[v] = titles[of[i]]));
    files.table(network, 'nodes', { ...nodes, [name]: after });
    const how = `“${column}”, with “${group}” split by ${methodPhrase(settings)}.`;
    await keepGrouping(store, network, name, null, [{ name, title: name, type: 'category', how }]);
    return { network, column: name, nodes: part.node.length, parts: titles };
  },
  describe({ column, group, name, settings }, result) {
    if (!result) return `The group “${group}” of “${column}” was to be split.`;
    return `The group “${group}” of “${column}” (${counted(result.nodes, 'node')}) was split into ${counted(result.parts.length, 'group')} by ${methodPhrase(settings)}, kept as “${name}”.`;
  },
  seed: ({ settings }) => settings.seed,
};
