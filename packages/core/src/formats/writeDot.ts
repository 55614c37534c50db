import { textsOf, type TableColumns } from '../network/tables';
import { otherColumns, rowValues } from './networkRows';
import { nodeIds } from './writeTables';

/** A network in the DOT language, part by part: all columns are attributes, in quotation marks. */
export function* dotParts(
  nodes: TableColumns,
  edges: TableColumns,
  nodeCount: number,
  directed: boolean,
): Generator<string> {
  const ids = nodeIds(nodes).map(dotText);
  const handles = textsOf(nodes, 'handle');
  const [ofNodes, ofEdges] = [otherColumns(nodes, 'id'), otherColumns(edges, 'source', 'target')];
  yield `${directed ? 'digraph' : 'graph'} {\n`;
  for (let v = 0; v < nodeCount; v++)
    yield `  ${ids[v]} [${list([['label', handles[v]], ...rowValues(nodes, ofNodes, v)])}];\n`;
  const between = directed ? '->' : '--';
  const [from, to] = [edges['source'], edges['target']];
  for (let e = 0; e < from.length; e++)
    yield `  ${ids[Number(from[e])]} ${between} ${ids[Number(to[e])]} [${list(rowValues(edges, ofEdges, e))}];\n`;
  yield '}\n';
}

function list(values: readonly (readonly [string, string | number])[]): string {
  return values.map(([name, value]) => `${dotText(name)}=${dotText(String(value))}`).join(', ');
}

/** Quotation marks and what stands for marks are escaped; the language knows no other signs within them. */
function dotText(text: string): string {
  return `"${text.replaceAll('\\', '\\\\').replaceAll('"', '\\"').replaceAll('\0', '')}"`;
}
