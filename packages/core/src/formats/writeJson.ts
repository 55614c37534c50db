import { textsOf, type TableColumns } from '../network/tables';
import { otherColumns, rowValues } from './networkRows';
import { nodeIds } from './writeTables';

/**
 * A network in the JSON Graph Format, version 2: nodes by what they are called, all columns as metadata, part by part. Ties are named by the
 * ids of nodes.
 */
export function* jsonGraphParts(
  nodes: TableColumns,
  edges: TableColumns,
  nodeCount: number,
  directed: boolean,
  name: string,
): Generator<string> {
  const ids = nodeIds(nodes);
  const handles = textsOf(nodes, 'handle');
  const [ofNodes, ofEdges] = [otherColumns(nodes, 'id'), otherColumns(edges, 'source', 'target')];
  yield `{"graph":{"directed":${directed},"label":${JSON.stringify(name)},"nodes":{`;
  for (let v = 0; v < nodeCount; v++) {
    const node = { label: handles[v], metadata: Object.fromEntries(rowValues(nodes, ofNodes, v)) };
    yield `${v > 0 ? ',' : ''}\n${JSON.stringify(ids[v])}:${JSON.stringify(node)}`;
  }
  yield '},"edges":[';
  yield* edgeParts(edges, ids, (row) => ({ metadata: Object.fromEntries(rowValues(edges, ofEdges, row)) }));
  yield ']}}\n';
}

/** A network as node-link JSON, as many web libraries read it (common practice), part by part. */
export function* nodeLinkParts(
  nodes: TableColumns,
  edges: TableColumns,
  nodeCount: number,
  directed: boolean,
): Generator<string> {
  const ids = nodeIds(nodes);
  const handles = textsOf(nodes, 'handle');
  const [ofNodes, ofEdges] = [otherColumns(nodes, 'id'), otherColumns(edges, 'source', 'target')];
  yield `{"directed":${directed},"multigraph":false,"graph":{},"nodes":[`;
  for (let v = 0; v < nodeCount; v++) {
    const node = { id: ids[v], label: handles[v], ...Object.fromEntries(rowValues(nodes, ofNodes, v)) };
    yield `${v > 0 ? ',' : ''}\n${JSON.stringify(node)}`;
  }
  yield '],"links":[';
  yield* edgeParts(edges, ids, (row) => Object.fromEntries(rowValues(edges, ofEdges, row)));
  yield ']}\n';
}

function* edgeParts(
  edges: TableColumns,
  ids: readonly string[],
  more: (row: number) => object,
): Generator<string> {
  const [from, to] = [edges['source'], edges['target']];
  for (let e = 0; e < from.length; e++) {
    const edge = { source: ids[Number(from[e])], target: ids[Number(to[e])], ...more(e) };
    yield `${e > 0 ? ',' : ''}\n${JSON.stringify(edge)}`;
  }
}
