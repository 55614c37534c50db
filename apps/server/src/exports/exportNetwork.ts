import type { Network, NetworkExport } from '@pebble/contract';
import { graphmlParts, nodeIds, nodesCsvParts, textsIn, tiesCsvParts, type TableColumns } from '@pebble/core';
import { findNetwork, readPositions } from '../storage/networks';
import type { Store } from '../storage/open';
import { fromPlacesBytes } from '../storage/placesBytes';
import { readTable } from '../storage/files/tables';
import { fileName, writeParts, type ExportedFile } from './writtenFile';

/** Writes a network to a file part by part, so that a large one takes no more memory than a small one. */
export async function exportNetwork(
  store: Store,
  { network: id, format }: { readonly network: string; readonly format: NetworkExport },
): Promise<ExportedFile> {
  const network = (await findNetwork(store, id))!;
  const places = placeColumns(await readPositions(store, id));
  const own = readTable(store.folder, id, 'nodes');
  // A column of the network's own stays, should one be called x.
  const nodes = { ...own, ...titleColumns(network, own), ...places, ...own };
  const path = writeParts(
    store.folder,
    partsOf(format, network, nodes, readTable(store.folder, id, 'edges')),
  );
  const name = fileName(network.name, 'network');
  switch (format) {
    case 'graphml':
      return { path, name: `${name}.graphml`, type: 'application/graphml+xml' };
    case 'csv-nodes':
      return { path, name: `${name} nodes.csv`, type: 'text/csv; charset=utf-8' };
    case 'csv-ties':
      return { path, name: `${name} ties.csv`, type: 'text/csv; charset=utf-8' };
  }
}

function partsOf(
  format: NetworkExport,
  { nodes: count, directed }: Network,
  nodes: TableColumns,
  edges: TableColumns,
): Iterable<string> {
  switch (format) {
    case 'graphml':
      return graphmlParts(nodes, edges, count, directed);
    case 'csv-nodes':
      return nodesCsvParts(nodes, count);
    case 'csv-ties':
      return tiesCsvParts(edges, nodeIds(nodes));
  }
}

/** What the group of each node is called, beside the columns of groups that have titles; empty where a group has none. */
function titleColumns({ titles }: Network, nodes: TableColumns): TableColumns {
  const columns = Object.entries(titles).filter(([column]) => column in nodes);
  return Object.fromEntries(
    columns.map(([column, byValue]) => [
      `${column} title`,
      textsIn(nodes[column]).map((value) => byValue[value] ?? ''),
    ]),
  );
}

/** Where the nodes lie on the map, as columns; none for a map that was never arranged. */
function placeColumns(positions: Buffer | null): TableColumns {
  if (!positions) return {};
  const { x, y } = fromPlacesBytes(positions);
  return { x: Float64Array.from(x), y: Float64Array.from(y) };
}
