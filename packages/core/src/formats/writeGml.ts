import { textsOf, type TableColumns } from '../network/tables';
import { otherColumns, rowValues } from './networkRows';

/** Whole numbers of GML have 32 bits. */
const WHOLE = 2 ** 31;

/**
 * A network as GML (Himsolt 1997), part by part. Its keys hold letters and digits alone, so that names of columns are written without what
 * else they have ("in-degree" as indegree); texts are ASCII, with other signs as character references.
 */
export function* gmlParts(
  nodes: TableColumns,
  edges: TableColumns,
  nodeCount: number,
  directed: boolean,
): Generator<string> {
  const handles = textsOf(nodes, 'handle');
  const [ofNodes, ofEdges] = [otherColumns(nodes, 'id'), otherColumns(edges, 'source', 'target')];
  const keysOfNodes = gmlKeys(ofNodes, ['id', 'label']);
  const keysOfEdges = gmlKeys(ofEdges, ['source', 'target']);
  yield `graph [\n  directed ${directed ? 1 : 0}\n`;
  for (let v = 0; v < nodeCount; v++)
    yield `  node [\n    id ${v}\n    label ${gmlText(handles[v])}\n${pairs(rowValues(nodes, ofNodes, v), keysOfNodes)}  ]\n`;
  const [from, to] = [edges['source'], edges['target']];
  for (let e = 0; e < from.length; e++)
    yield `  edge [\n    source ${from[e]}\n    target ${to[e]}\n${pairs(rowValues(edges, ofEdges, e), keysOfEdges)}  ]\n`;
  yield ']\n';
}

/** For each name a key that begins with a letter and that no other one has. */
function gmlKeys(names: readonly string[], taken: readonly string[]): ReadonlyMap<string, string> {
  const used = new Set(taken);
  return new Map(
    names.map((name) => {
      const plain = name.replace(/[^A-Za-z0-9]/g, '');
      const key = /^[A-Za-z]/.test(plain) ? plain : `column${plain}`;
      let free = key;
      for (let i = 2; used.has(free); i++) free = `${key}${i}`;
      used.add(free);
      return [name, free];
    }),
  );
}

function pairs(
  values: readonly (readonly [string, string | number])[],
  keys: ReadonlyMap<string, string>,
): string {
  return values.map(([name, value]) => `    ${keys.get(name)} ${gmlValue(value)}\n`).join('');
}

function gmlValue(value: string | number): string {
  if (typeof value === 'string') return gmlText(value);
  const isWhole = Number.isInteger(value) && Math.abs(value) < WHOLE;
  // A number beyond is a real one, which has a point.
  return isWhole ? String(value) : gmlReal(value);
}

/** By the grammar: digits, a point, digits, and then perhaps the exponent. */
function gmlReal(value: number): string {
  const [mantissa, exponent] = String(value).split('e');
  const pointed = mantissa.includes('.') ? mantissa : `${mantissa}.0`;
  return exponent === undefined ? pointed : `${pointed}E${exponent}`;
}

function gmlText(text: string): string {
  const written = text.replace(/[&"]|[^\x20-\x7e]/gu, (sign) => `&#${sign.codePointAt(0)};`);
  return `"${written}"`;
}
