import { counted } from '@pebble/core';
import { keepGrouping } from '../../storage/groupings';
import { groupsToChange } from './groupsToChange';
import { StepRefused } from '../../errors/stepErrors';
import type { StepDefinition } from '../step';

interface Regrouped extends Record<string, unknown> {
  readonly network: string;
  readonly column: string;
  readonly before: number;
  readonly groups: number;
  readonly renamed: number;
  readonly moved: number;
}

/** Makes a grouping of another one by hand: groups renamed or put together, nodes put elsewhere. */
export const regroup: StepDefinition<'regroup', Regrouped> = {
  kind: 'regroup',
  async run({ store, files }, { network, column, name, rename, move }) {
    const { nodes, groups: before } = await groupsToChange(store, { network, column, name });
    const unknown = Object.keys(rename).find((group) => !before.includes(group));
    if (unknown !== undefined) throw new StepRefused(`There is no group “${unknown}” in “${column}”.`);
    const after = before.map((group) => rename[group] ?? group);
    let moved = 0;
    for (const { nodes: chosen, group } of move)
      for (const node of chosen) {
        if (node >= after.length) throw new StepRefused(`There is no node ${node}.`);
        if (after[node] !== group) moved++;
        after[node] = group;
      }
    files.table(network, 'nodes', { ...nodes, [name]: after });
    await keepGrouping(store, network, name, null, [
      { name, title: name, type: 'category', how: `“${column}”, with groups changed by hand.` },
    ]);
    return {
      network,
      column: name,
      before: new Set(before).size,
      groups: new Set(after).size,
      renamed: Object.entries(rename).filter(([from, to]) => from !== to).length,
      moved,
    };
  },
  describe({ column, name, rename }, result) {
    if (!result) return 'Groups were to be changed by hand.';
    const changes = Object.entries(rename).filter(([from, to]) => from !== to);
    const told = changes.slice(0, 8).map(([from, to]) => `“${from}” to “${to}”`);
    const more = changes.length > 8 ? ` and ${changes.length - 8} more` : '';
    const parts = [
      ...(told.length > 0 ? [`renamed: ${told.join(', ')}${more}`] : []),
      ...(result.moved > 0 ? [`${counted(result.moved, 'node')} put elsewhere`] : []),
    ];
    return `The groups of “${column}” were changed by hand into “${name}” (${parts.join('; ') || 'nothing changed'}): ${counted(result.before, 'group')} before, ${result.groups} after.`;
  },
};
