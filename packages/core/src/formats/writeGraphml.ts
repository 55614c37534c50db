import type { TableColumns } from '../network/tables';

const ESCAPES: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };

/** Text as XML 1.0 allows it: the five marks escaped, control characters that XML forbids left out. */
export function escapeXml(text: string): string {
  return text
    .replace(/[\x00-\x08\x0b\x0c\x0e-\x1f\ufffe\uffff]/g, '')
    .replace(/[&<>"]/g, (mark) => ESCAPES[mark]);
}

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
  for (const name of Object.keys(nodes)) lines.push(keyLine('node', name, nodes[name]));
  for (const name of edgeColumns) lines.push(keyLine('edge', name, edges[name]));
  lines.push(`  <graph id="network" edgedefault="${directed ? 'directed' : 'undirected'}">`);
  yield `${lines.join('\n')}\n`;
  const nodeColumns = Object.keys(nodes);
  for (let v = 0; v < nodeCount; v++)
    yield `    <node id="n${v}">${dataOf('node', nodeColumns, nodes, v)}</node>\n`;
  const source = edges['source'];
  const target = edges['target'];
  for (let e = 0; e < source.length; e++)
    yield `    <edge id="e${e}" source="n${source[e]}" target="n${target[e]}">${dataOf('edge', edgeColumns, edges, e)}</edge>\n`;
  yield '  </graph>\n</graphml>\n';
}

function keyLine(domain: 'node' | 'edge', name: string, values: TableColumns[string]): string {
  const type = values instanceof Uint32Array ? 'long' : values instanceof Float64Array ? 'double' : 'string';
  return `  <key id="${domain}-${escapeXml(name)}" for="${domain}" attr.name="${escapeXml(name)}" attr.type="${type}"/>`;
}

function dataOf(domain: string, names: readonly string[], columns: TableColumns, row: number): string {
  return names
    .map((name) => {
      const value = columns[name][row];
      if (typeof value === 'number' && !Number.isFinite(value)) return '';
      return `<data key="${domain}-${escapeXml(name)}">${escapeXml(String(value))}</data>`;
    })
    .join('');
}
