import { decodeXML } from 'entities';
import { BrokenNetwork, NetworkBuilder, type FoundNetwork } from './foundNetwork';

type GmlValue = string | GmlList;
type GmlList = {
  readonly key: string;
  readonly value: GmlValue;
  readonly row: number;
  /** Whether the value stands in quotation marks, which makes it a text. */
  readonly quoted: boolean;
}[];

/**
 * Reads GML (Himsolt 1997): lists of keys and values in square brackets. Of the first graph its nodes (id, label, other plain values)
 * and edges (source, target, weight or value, other plain values) are taken; drawings and other nested lists are left out.
 */
export function readGml(text: string): FoundNetwork {
  const graph = parseGml(text).find(({ key, value }) => key === 'graph' && typeof value !== 'string');
  if (!graph || typeof graph.value === 'string')
    throw new BrokenNetwork('The file has no graph [ ... ]; it is no GML.');
  const builder = new NetworkBuilder(plain(graph.value)['directed'] === '1');
  for (const { key, value, row } of graph.value) {
    if (key !== 'node' || typeof value === 'string') continue;
    const { id, label = '', ...rest } = plain(value);
    if (id === undefined) throw new BrokenNetwork('A node has no id.', row);
    sayTypes(builder, 'node', value);
    builder.describeNode(id, label, rest);
  }
  for (const { key, value, row } of graph.value) {
    if (key !== 'edge' || typeof value === 'string') continue;
    const { source, target, weight, value: strength, ...rest } = plain(value);
    if (source === undefined || target === undefined)
      throw new BrokenNetwork('An edge has no source or no target.', row);
    for (const end of [source, target])
      if (!builder.has(end))
        throw new BrokenNetwork(`An edge names the node “${end}”, which is not in the file.`, row);
    sayTypes(builder, 'edge', value);
    builder.edge(source, target, weight ?? strength ?? '', rest, row);
  }
  return builder.finish();
}

/** The plain values of a list by their keys; of several with one key the first. */
function plain(list: GmlList): Record<string, string> {
  const found = new Map<string, string>();
  for (const { key, value } of list) if (typeof value === 'string' && !found.has(key)) found.set(key, value);
  return Object.fromEntries(found);
}

/** What stands in quotation marks is a text, also where it is made of digits. */
function sayTypes(builder: NetworkBuilder, kind: 'node' | 'edge', list: GmlList): void {
  for (const { key, value, quoted } of list)
    if (typeof value === 'string' && value !== '') builder.say(kind, key, quoted ? 'text' : 'number');
}

const TOKEN = /(\n)|[ \t\r]+|#[^\n]*|(\[)|(\])|"([^"]*)"|([^\s[\]"]+)/gy;

function parseGml(text: string): GmlList {
  const root: GmlList = [];
  const stack: GmlList[] = [root];
  let key: string | null = null;
  let row = 1;
  TOKEN.lastIndex = 0;
  while (TOKEN.lastIndex < text.length) {
    const match = TOKEN.exec(text);
    if (!match) throw new BrokenNetwork('A quotation mark is not closed.', row);
    const [, lineEnd, opens, closes, quoted, word] = match;
    const startRow = row;
    if (lineEnd) row++;
    else if (opens) {
      if (key === null) throw new BrokenNetwork('A list has no name before its bracket.', row);
      if (stack.length > 100) throw new BrokenNetwork('Lists are nested more than 100 deep.', row);
      const list: GmlList = [];
      stack.at(-1)!.push({ key, value: list, row, quoted: false });
      stack.push(list);
      key = null;
    } else if (closes) {
      if (stack.length === 1) throw new BrokenNetwork('A bracket is closed that was not opened.', row);
      stack.pop();
    } else if (quoted !== undefined || word !== undefined) {
      row += quoted?.split('\n').length ? quoted.split('\n').length - 1 : 0;
      if (key === null) key = word ?? quoted;
      else {
        const isQuoted = quoted !== undefined;
        stack
          .at(-1)!
          .push({ key, value: isQuoted ? decodeXML(quoted) : word, row: startRow, quoted: isQuoted });
        key = null;
      }
    }
  }
  if (stack.length > 1)
    throw new BrokenNetwork('The file ends inside a list; a closing bracket is missing.', row);
  return root;
}
