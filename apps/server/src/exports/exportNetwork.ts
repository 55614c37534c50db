import type { Network, NetworkExport } from '@pebble/contract';
import {
  graphmlParts,
  joinedTables,
  nodeIds,
  nodesCsvParts,
  textsIn,
  tiesCsvParts,
  toArrow,
  type TableColumns,
} from '@pebble/core';
import {
  dotParts,
  gmlParts,
  jsonGraphParts,
  networkWorkbook,
  nodeLinkParts,
  toParquet,
} from '@pebble/core/files';
import { publishedTable } from '../people/publishedTable';
import { findNetwork, readPositions } from '../storage/networks';
import type { Store } from '../storage/open';
import { fromPlacesBytes } from '../storage/placesBytes';
import { readTable } from '../storage/files/tables';
import { fileName, writeBytes, writeParts, type ExportedFile } from './writtenFile';

/** Writes a network to a file part by part, so that a large one takes no more memory than a small one. */
export async function exportNetwork(
  store: Store,
  { network: id, format }: { readonly network: string; readonly format: NetworkExport },
): Promise<ExportedFile> {
  const network = (await findNetwork(store, id))!;
  const places = placeColumns(await readPositions(store, id));
  const { nodes: own, titles } = await publishedTable(store, network);
  // A column of the network's own stays, should one be called x.
  const nodes = { ...own, ...titleColumns(titles, own), ...places, ...own };
  const edges = readTable(store.folder, id, 'edges');
  const name = fileName(network.name, 'network');
  const file = writtenAs(format, network, nodes, edges);
  const path =
    file.content instanceof Uint8Array
      ? writeBytes(store.folder, file.content)
      : writeParts(store.folder, file.content);
  return { path, name: `${name}${file.ending}`, type: file.type };
}

/** What is written: texts part by part, or bytes. */
interface Written {
  readonly content: Iterable<string> | Uint8Array;
  /** Behind the name of the network. */
  readonly ending: string;
  readonly type: string;
}

/** Throws RangeError for what a format cannot hold. */
function writtenAs(
  format: NetworkExport,
  { name, nodes: count, directed }: Network,
  nodes: TableColumns,
  edges: TableColumns,
): Written {
  switch (format) {
    case 'graphml':
      return {
        content: graphmlParts(nodes, edges, count, directed),
        ending: '.graphml',
        type: 'application/graphml+xml',
      };
    case 'csv-nodes':
      return { content: nodesCsvParts(nodes, count), ending: ' nodes.csv', type: CSV };
    case 'csv-ties':
      return { content: tiesCsvParts(edges, nodeIds(nodes)), ending: ' ties.csv', type: CSV };
    case 'xlsx':
      return { content: networkWorkbook(nodes, edges, count), ending: '.xlsx', type: WORKBOOK };
    case 'gml':
      return { content: gmlParts(nodes, edges, count, directed), ending: '.gml', type: 'text/plain' };
    case 'json-graph':
      return {
        content: jsonGraphParts(nodes, edges, count, directed, name),
        ending: '.json',
        type: 'application/vnd.jgf+json',
      };
    case 'node-link':
      return {
        content: nodeLinkParts(nodes, edges, count, directed),
        ending: ' node-link.json',
        type: 'application/json',
      };
    case 'dot':
      return {
        content: dotParts(nodes, edges, count, directed),
        ending: '.dot',
        type: 'text/vnd.graphviz; charset=utf-8',
      };
    case 'arrow-nodes':
      return { content: toArrow(nodes), ending: ' nodes.arrow', type: ARROW };
    case 'parquet-nodes':
      return {
        content: toParquet(joinedTables(nodes, edges).nodes),
        ending: ' nodes.parquet',
        type: PARQUET,
      };
    case 'parquet-ties':
      return { content: toParquet(joinedTables(nodes, edges).ties), ending: ' ties.parquet', type: PARQUET };
    case 'arrow-ties':
      return { content: toArrow(edges), ending: ' ties.arrow', type: ARROW };
  }
}

const CSV = 'text/csv; charset=utf-8';
const WORKBOOK = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';
const PARQUET = 'application/vnd.apache.parquet';
const ARROW = 'application/vnd.apache.arrow.file';

/** What the group of each node is called, beside the columns of groups that have titles; empty where a group has none. */
function titleColumns(titles: Network['titles'], nodes: TableColumns): TableColumns {
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
