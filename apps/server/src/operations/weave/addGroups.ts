import type { ImportMapping } from '@pebble/contract';
import { formatCount, matchGroups, textsOf, type GroupRow, isTakenColumn } from '@pebble/core';
import { addOwnColumns, findNetwork, readMap, saveMap } from '../../storage/networks';
import { uploadPath } from '../../files/places';
import { readTable } from '../../storage/files/tables';
import { readRecords } from '../../intake/readRecords';
import { StepRefused } from '../../errors/stepErrors';
import type { StepDefinition } from '../step';

interface Added extends Record<string, unknown> {
  readonly network: string;
  readonly nodes: number;
  readonly groups: number;
  readonly notes: readonly string[];
}

/** Gives the nodes of a network the groups of a file, as a column that can colour the map. */
export const addGroups: StepDefinition<'add-groups', Added> = {
  kind: 'add-groups',
  async run({ store, files }, { network, upload, file, column, reading }) {
    const found = await findNetwork(store, network);
    if (!found) throw new StepRefused('This network is no longer there.', { file });
    if (isTakenColumn(column))
      throw new StepRefused(`The nodes have a column “${column}” already. Choose another name.`, { file });
    const nodes = readTable(store.folder, network, 'nodes');
    const rows = groupRows(uploadPath(store.folder, upload), file, reading);
    const matched = matchGroups(textsOf(nodes, 'handle'), textsOf(nodes, 'name'), rows);
    if ('difference' in matched)
      throw new StepRefused(
        `The groups do not fit the network “${found.name}”: ${matched.difference}. Nothing was changed.`,
        { file },
      );
    files.table(network, 'nodes', { ...nodes, [column]: matched.values });
    await addOwnColumns(store, network, [
      { name: column, title: column, type: 'category', how: `As ${file} says.` },
    ]);
    const { description } = await readMap(store, network);
    await saveMap(store, network, {
      description: { ...description, colour: { ...description.colour, column } },
    });
    files.spend(upload);
    return {
      network,
      nodes: matched.values.length,
      groups: matched.groups,
      notes: matched.note ? [matched.note] : [],
    };
  },
  describe({ file, column }, result) {
    if (!result) return `Groups of nodes were to be taken from ${file}.`;
    return `Each of ${formatCount(result.nodes)} nodes was given one of ${formatCount(result.groups)} groups (“${column}”) from ${file}.`;
  },
};

function groupRows(path: string, file: string, reading: ImportMapping): GroupRow[] {
  const at = (role: string): number => reading.columns.findIndex((column) => column.role === role);
  const node = at('node');
  const group = at('group');
  if (group < 0) throw new StepRefused('No column was named as group.', { file });
  const rows: GroupRow[] = [];
  readRecords(path, file, reading, {
    onRecord: ({ row, values }) =>
      void rows.push({ row, node: node < 0 ? null : values[node], group: values[group].trim() }),
    onSkip(row, field, reason) {
      throw new StepRefused(reason, { file, row, ...(field ? { field } : {}) });
    },
  });
  return rows;
}
