import { textsOf, type TableColumns } from '../network/tables';
import { escapeXml } from './markup';

/**
 * A network as GraphML (Brandes et al. 2002; schema 1.0) with all columns as typed data. Nodes are n0, n1, ...;
 * the edge table's source and target are row numbers of the node table. A value that is not a number is left out.
 */
export function writeGraphml(...network: Parameters<typeof graphmlParts>): string {
  return [...graphmlParts(...network)].join('');
}

/** The same part by part. */
export function* graphmlParts(
  nodes: TableColumns,
  edges: TableColumns,
  nodeCount: number,
  directed = true,
): Generator<string> {
  const lines: string[] = [
    '<?xml version="1.0" encoding="UTF-8"?>',
    '<graphml xmlns="http://graphml.graphdrawing.org/xmlns"',
    '  xmlns:xsi="http://www.w3.org/2001/XMLSchema-instance"',
    '  xsi:schemaLocation="http://graphml.graphdrawing.org/xmlns http://graphml.graphdrawing.org/xmlns/1.0/graphml.xsd">',
  ];
  const edgeColumns = Object.keys(edges).filter((name) => name !== 'source' && name !== 'target');
  const nodeColumns = Object.keys(nodes);
  nodeColumns.forEach((name, at) => lines.push(keyLine('node', at, name, nodes[name])));
  edgeColumns.forEach((name, at) => lines.push(keyLine('edge', at, name, edges[name])));
  // What a node is called, for programs that look for a label.
  const labels = 'handle' in nodes && !('label' in nodes) ? textsOf(nodes, 'handle') : null;
  if (labels) lines.push('  <key id="label" for="node" attr.name="label" attr.type="string"/>');
  lines.push(`  <graph id="network" edgedefault="${directed ? 'directed' : 'undirected'}">`);
  yield `${lines.join('\n')}\n`;
  const label = (v: number): string => (labels ? `<data key="label">${escapeXml(labels[v])}</data>` : '');
  for (let v = 0; v < nodeCount; v++)
    yield `    <node id="n${v}">${label(v)}${dataOf('node', nodeColumns, nodes, v)}</node>\n`;
  const source = edges['source'];
  const target = edges['target'];
  for (let e = 0; e < source.length; e++)
    yield `    <edge id="e${e}" source="n${source[e]}" target="n${target[e]}">${dataOf('edge', edgeColumns, edges, e)}</edge>\n`;
  yield '  </graph>\n</graphml>\n';
}

/** Columns whose numbers are moments: written as ISO 8601, UTC. */
const MOMENTS = new Set(['first', 'last']);

/** Ids are numbers of columns, since names of columns may hold what no XML name may. */
function keyLine(domain: 'node' | 'edge', at: number, name: string, values: TableColumns[string]): string {
  const isText = MOMENTS.has(name) || Array.isArray(values);
  const type = isText ? 'string' : values instanceof Uint32Array ? 'long' : 'double';
  return `  <key id="${domain}-${at}" for="${domain}" attr.name="${escapeXml(name)}" attr.type="${type}"/>`;
}

function dataOf(domain: string, names: readonly string[], columns: TableColumns, row: number): string {
  let data = '';
  for (const [at, name] of names.entries()) {
    const value = columns[name][row];
    if (typeof value === 'number' && !Number.isFinite(value)) continue;
    const written =
      typeof value === 'number' && MOMENTS.has(name) ? new Date(value).toISOString() : String(value);
    data += `<data key="${domain}-${at}">${escapeXml(written)}</data>`;
  }
  return data;
}
