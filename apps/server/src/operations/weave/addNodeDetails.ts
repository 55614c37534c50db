import type { ColumnInfo } from '@pebble/contract';
import { counted, formatCount, looksLikeCategory, matchDetails, textsOf, isTakenColumn } from '@pebble/core';
import { columnTypes } from '@pebble/core/files';
import { addOwnColumns, findNetwork } from '../../storage/networks';
import { uploadPath } from '../../files/places';
import { readTable } from '../../storage/files/tables';
import { readNodeRows } from '../../intake/readNodeRows';
import { SkippedRows } from '../../intake/skippedRows';
import { StepRefused } from '../../errors/stepErrors';
import type { StepDefinition } from '../step';

interface Added extends Record<string, unknown> {
  readonly network: string;
  readonly nodes: number;
  readonly columns: readonly string[];
  readonly read: number;
  readonly skipped: number;
  readonly notes: readonly string[];
}

/** Gives the nodes of a network what a table tells of them, as columns of the network. */
export const addNodeDetails: StepDefinition<'add-node-details', Added> = {
  kind: 'add-node-details',
  async run({ store, files }, { network, upload, file, reading }) {
    const found = await findNetwork(store, network);
    if (!found) throw new StepRefused('This network is no longer there.', { file });
    const taken = reading.columns.find(
      ({ role, name }) => (role === 'number' || role === 'attribute') && isTakenColumn(name),
    );
    if (taken)
      throw new StepRefused(
        `The nodes have a column “${taken.name}” of the network's own. Leave it out, or rename it in the file.`,
        { file },
      );
    const skipped = new SkippedRows();
    const rows = readNodeRows(uploadPath(store.folder, upload), file, reading, skipped);
    const nodes = readTable(store.folder, network, 'nodes');
    const matched = matchDetails(
      textsOf(nodes, 'handle'),
      textsOf(nodes, 'name'),
      rows,
      columnTypes(reading),
    );
    const columns = Object.keys(matched.columns);
    if (columns.length === 0)
      throw new StepRefused(
        `None of the ${counted(rows.length, 'name')} in ${file} is a node of “${found.name}” with something to tell. Nothing was changed.`,
        { file },
      );
    files.table(network, 'nodes', { ...nodes, ...matched.columns });
    await addOwnColumns(
      store,
      network,
      columns.map((name): ColumnInfo => {
        const values = matched.columns[name];
        const type = ArrayBuffer.isView(values) ? 'number' : looksLikeCategory(values) ? 'category' : 'text';
        return { name, title: name, type, how: `As ${file} says.` };
      }),
    );
    for (const name of matched.unknown)
      skipped.add({ row: 0, field: null, reason: `No node is called “${name}”.` });
    if (skipped.total > 0) files.skipped(skipped.csv);
    files.spend(upload);
    const without = found.nodes - matched.nodes;
    return {
      network,
      nodes: matched.nodes,
      columns,
      read: rows.length,
      skipped: skipped.total,
      notes: [
        ...(matched.unknown.length > 0
          ? [`${counted(matched.unknown.length, 'name')} of the table fit no node and are listed.`]
          : []),
        ...(without > 0 ? [`${counted(without, 'node')} stand in no row and have no value.`] : []),
      ],
    };
  },
  describe({ file }, result) {
    if (!result) return `Details of nodes were to be taken from ${file}.`;
    return `${formatCount(result.nodes)} nodes were given details (${result.columns.join(', ')}) from ${file}.`;
  },
};
