import { SaxesParser } from 'saxes';
import { BrokenNetwork, NetworkBuilder, type FoundNetwork } from './foundNetwork';

/** Names of data by which files give a node's label, the most telling first. */
const LABELS = ['label', 'handle', 'name', 'title'];

interface Key {
  readonly name: string;
  readonly preset: string;
}

/** What is being read: a node or an edge with its data. */
interface Part {
  readonly what: 'node' | 'edge';
  readonly attributes: Readonly<Record<string, string>>;
  readonly data: Map<string, string>;
  readonly row: number;
}

/**
 * Reads GraphML (Brandes et al. 2002; schema 1.0 and the primer) with the saxes library: nodes, edges and their data with
 * default values. Entities of the document's own are refused. Hyperedges and ports are left out and noted; nodes of nested graphs are read as nodes of one graph.
 */
export function readGraphml(text: string): FoundNetwork {
  const parser = new SaxesParser({ xmlns: false });
  const builder = new NetworkBuilder(true);
  const keys = new Map<string, Key & { domain: string; type: string | undefined }>();
  // Default values are the same for all: they are found once, when the first part comes.
  let presets: Presets | null = null;
  const open: Part[] = [];
  let sawGraph = false;
  let dataKey: string | null = null;
  let keyOpen: { id: string; name: string; domain: string; type: string | undefined; preset: string } | null =
    null;
  let content = '';
  const local = (name: string): string => name.slice(name.indexOf(':') + 1);

  parser.on('error', (error) => {
    throw new BrokenNetwork(`Not well-formed XML: ${error.message.replace(/^\d+:\d+: /, '')}`, parser.line);
  });
  parser.on('doctype', (doctype) => {
    if (/<!ENTITY/i.test(doctype))
      throw new BrokenNetwork('The file defines entities of its own, which are not read.', parser.line);
  });
  parser.on('opentag', ({ name, attributes }) => {
    const at = attributes as Record<string, string>;
    content = '';
    switch (local(name)) {
      case 'key':
        keyOpen = {
          id: at['id'] ?? '',
          name: at['attr.name'] ?? at['id'] ?? '',
          domain: at['for'] ?? 'all',
          type: at['attr.type'],
          preset: '',
        };
        break;
      case 'graph':
        if (!sawGraph) builder.setDirected(at['edgedefault'] !== 'undirected');
        sawGraph = true;
        break;
      case 'node':
      case 'edge':
        presets ??= presetsOf(keys.values(), builder);
        open.push({ what: local(name) as Part['what'], attributes: at, data: new Map(), row: parser.line });
        if (local(name) === 'node') builder.node(needed(at, 'id', 'node', parser.line));
        break;
      case 'data':
        dataKey = at['key'] ?? '';
        break;
      case 'hyperedge':
        builder.note('Hyperedges are not read; the file has some.');
        break;
    }
  });
  parser.on('text', (part) => (content += part));
  parser.on('cdata', (part) => (content += part));
  parser.on('closetag', ({ name }) => {
    switch (local(name)) {
      case 'default':
        if (keyOpen) keyOpen.preset = content.trim();
        break;
      case 'key':
        if (keyOpen) {
          keys.set(keyOpen.id, keyOpen);
          sayType(builder, keyOpen);
        }
        keyOpen = null;
        break;
      case 'data': {
        const part = open.at(-1);
        if (part && dataKey !== null) part.data.set(keys.get(dataKey)?.name ?? dataKey, content.trim());
        dataKey = null;
        break;
      }
      case 'node':
      case 'edge':
        take(open.pop()!);
        break;
    }
    content = '';
  });

  const take = ({ what, attributes, data, row }: Part): void => {
    const all: Record<string, string> = Object.fromEntries([...presets![what], ...data]);
    if (what === 'node') {
      const label = LABELS.find((name) => all[name]);
      const { [label ?? '']: written = '', ...rest } = all;
      builder.describeNode(attributes['id'], written, rest);
    } else {
      const { weight = '', ...rest } = all;
      const directed = attributes['directed'];
      builder.edge(
        needed(attributes, 'source', 'edge', row),
        needed(attributes, 'target', 'edge', row),
        weight,
        rest,
        row,
        directed === undefined ? undefined : directed === 'true' || directed === '1',
      );
    }
  };

  parser.write(text).close();
  if (!sawGraph) throw new BrokenNetwork('The file has no graph element; it is no GraphML.');
  return builder.finish();
}

type Presets = Readonly<Record<Part['what'], readonly (readonly [name: string, value: string])[]>>;

/** Keys whose default values are filled in at most, each at every node or edge. */
const MOST_PRESETS = 200;

function presetsOf(keys: Iterable<Key & { readonly domain: string }>, builder: NetworkBuilder): Presets {
  const all = [...keys].filter(({ preset }) => preset !== '');
  const of = (what: Part['what']): Presets['node'] => {
    const own = all.filter(({ domain }) => domain === what || domain === 'all');
    if (own.length > MOST_PRESETS)
      builder.note(
        `Default values of ${what}s are filled in for the first ${MOST_PRESETS} keys; ${own.length - MOST_PRESETS} further ones have values only where they are written.`,
      );
    return own.slice(0, MOST_PRESETS).map(({ name, preset }) => [name, preset]);
  };
  return { node: of('node'), edge: of('edge') };
}

/** Types of the standard: numbers are numbers, and texts stay texts also where digits stand in them. */
function sayType(
  builder: NetworkBuilder,
  { name, domain, type }: { name: string; domain: string; type: string | undefined },
): void {
  if (type === undefined) return;
  const said = ['int', 'long', 'float', 'double'].includes(type) ? 'number' : 'text';
  for (const kind of ['node', 'edge'] as const)
    if (domain === kind || domain === 'all') builder.say(kind, name, said);
}

function needed(attributes: Readonly<Record<string, string>>, name: string, of: string, row: number): string {
  const value = attributes[name];
  if (value === undefined || value === '')
    throw new BrokenNetwork(`${of === 'edge' ? 'An' : 'A'} ${of} has no ${name}.`, row);
  return value;
}
