import type { ColumnInfo } from '@pebble/contract';
import { counted, firstMap, looksLikeCategory, twoModeMap } from '@pebble/core';
import type { FoundNetwork } from '@pebble/core/files';
import { readNetworkFile } from '../../intake/readNetworkFile';
import { SkippedRows } from '../../intake/skippedRows';
import { measuredNext } from './measuredNext';
import { storeNetwork } from './storeNetwork';
import type { StepDefinition } from '../step';

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
  async run(context, parameters, progress) {
    const { store, files } = context;
    const { upload, file, name, nodes: nodeTable } = parameters;
    const skipped = new SkippedRows();
    const { found, read } = readNetworkFile(store.folder, parameters, skipped, progress);
    progress('Storing', 0.9);
    const { id, handle, name: label, ...own } = found.nodes;
    const { network, nodes, edges } = await storeNetwork(context, {
      name,
      weave: null,
      directed: found.directed,
      nodes: { id, handle, name: label, ...own },
      edges: found.edges,
      evidence: null,
      own: ownColumns(own, nodeTable?.file ?? file),
      sentence: `The ties of ${file}, as they stand in the file; ${found.directed ? 'directed' : 'undirected'}.`,
      messages: 0,
      decisions: [],
      map: parameters.reading.material === 'two-mode' ? twoModeMap : firstMap(null, found.directed),
    });
    if (skipped.total > 0) files.skipped(skipped.csv);
    files.spend(upload);
    if (nodeTable) files.spend(nodeTable.upload);
    return {
      network,
      file,
      nodes,
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
      `A network of ${counted(report.nodes, 'node')} and ${counted(report.edges, `${direction} tie`)} was taken from ${file}${nodes && nodes.file !== file ? ` and ${nodes.file}` : ''}`,
    ];
    if (report.skipped > 0)
      parts.push(
        `${counted(report.skipped, 'row')} could not be read and ${report.skipped === 1 ? 'was' : 'were'} skipped`,
      );
    return `${parts.join('; ')}.`;
  },
  followUps: (result) => [measuredNext(result)],
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
