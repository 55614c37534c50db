import { writeFileSync } from 'node:fs';
import { defaultMap, type ColumnInfo } from '@pebble/contract';
import { counted, formatCount, looksLikeCategory } from '@pebble/core';
import type { FoundNetwork } from '@pebble/core/files';
import { saveMap } from '../db/networks';
import { skippedPath } from '../files/places';
import { writeTable } from '../files/tables';
import { readNetworkFile } from '../intake/readNetworkFile';
import { SkippedRows } from '../intake/skippedRows';
import type { StepDefinition } from './step';

interface NetworkReport extends Record<string, unknown> {
  readonly network: string;
  readonly file: string;
  readonly nodes: number;
  readonly edges: number;
  readonly directed: boolean;
  readonly read: number;
  readonly skipped: number;
  readonly skippedByReason: { reason: string; rows: number }[];
  readonly notes: readonly string[];
}

/** A finished network of a file becomes a network of the study; there are no messages behind it. */
export const importNetwork: StepDefinition<'import-network', NetworkReport> = {
  kind: 'import-network',
  async run({ store, study, step, now, newId, spend }, parameters, progress) {
    const { upload, file, name, nodes: nodeTable } = parameters;
    const skipped = new SkippedRows();
    const { found, read } = await readNetworkFile(store.folder, parameters, skipped, progress);
    progress('Storing', 0.9);
    const network = newId();
    const { id, handle, name: label, ...own } = found.nodes;
    writeTable(store.folder, network, 'nodes', { id, handle, name: label, ...own });
    writeTable(store.folder, network, 'edges', found.edges);
    const edges = found.edges['source'].length;
    await store.query
      .insertInto('network')
      .values({
        id: network,
        study_id: study,
        step_id: step,
        name,
        weave: 'null',
        directed: found.directed ? 1 : 0,
        own_columns: JSON.stringify(ownColumns(own, nodeTable?.file ?? file)),
        sentence: `The ties of ${file}, as they stand in the file; ${found.directed ? 'directed' : 'undirected'}.`,
        nodes: found.nodeCount,
        edges,
        messages: 0,
        state: 'woven',
        measures: '{}',
        created_at: now,
        deleted_at: null,
      })
      .execute();
    const isTwoMode = parameters.reading.material === 'two-mode';
    if (!found.directed || isTwoMode)
      await saveMap(store, network, {
        description: {
          ...defaultMap,
          size: { ...defaultMap.size, column: 'degree' },
          ...(isTwoMode
            ? { colour: { column: 'mode' }, names: { ...defaultMap.names, column: 'degree' } }
            : {}),
        },
      });
    await store.query.updateTable('study').set({ changed_at: now }).where('id', '=', study).execute();
    if (skipped.total > 0) writeFileSync(skippedPath(store.folder, step), `\ufeff${skipped.csv}`);
    spend(upload);
    if (nodeTable) spend(nodeTable.upload);
    return {
      network,
      file,
      nodes: found.nodeCount,
      edges,
      directed: found.directed,
      read,
      skipped: skipped.total,
      skippedByReason: skipped.byReason(),
      notes: [...found.notes, ...skipped.notes()],
    };
  },
  describe({ file, nodes }, report) {
    if (!report) return `A network was to be taken from ${file}.`;
    const direction = report.directed ? 'directed' : 'undirected';
    const parts = [
      `A network of ${formatCount(report.nodes)} nodes and ${formatCount(report.edges)} ${direction} ties was taken from ${file}${nodes && nodes.file !== file ? ` and ${nodes.file}` : ''}`,
    ];
    if (report.skipped > 0)
      parts.push(
        `${counted(report.skipped, 'row')} could not be read and ${report.skipped === 1 ? 'was' : 'were'} skipped`,
      );
    return `${parts.join('; ')}.`;
  },
  followUps: ({ network }) => [{ kind: 'measure-network', parameters: { network, settings: {} } }],
};

/** Columns that the file brought: numbers can size, colour and rank the map. */
function ownColumns(own: FoundNetwork['nodes'], file: string): ColumnInfo[] {
  return Object.entries(own).map(([name, values]) => ({
    name,
    title: name,
    type: ArrayBuffer.isView(values) ? 'number' : looksLikeCategory(values) ? 'category' : 'text',
    how: `As it stands in ${file}.`,
  }));
}
