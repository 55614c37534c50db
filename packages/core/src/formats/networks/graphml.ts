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
  readonly data: Record<string, string>;
  readonly row: number;
}

/**
 * Reads GraphML (Brandes et al. 2002; schema 1.0 and the primer) with the saxes library: nodes, edges and their data with
 * default values. Entities of the document's own are refused. Hyperedges and ports are left out and noted; nodes of nested graphs are read as nodes of one graph.
 */
export function readGraphml(text: string): FoundNetwork {
  const parser = new SaxesParser({ xmlns: false });
  const builder = new NetworkBuilder(true);
  const keys = new Map<string, Key & { domain: string }>();
  const open: Part[] = [];
  let sawGraph = false;
  let dataKey: string | null = null;
  let keyOpen: { id: string; name: string; domain: string; preset: string } | null = null;
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
          preset: '',
        };
        break;
      case 'graph':
        if (!sawGraph) builder.setDirected(at['edgedefault'] !== 'undirected');
        sawGraph = true;
        break;
      case 'node':
      case 'edge':
        open.push({ what: local(name) as Part['what'], attributes: at, data: {}, row: parser.line });
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
        if (keyOpen) keys.set(keyOpen.id, keyOpen);
        keyOpen = null;
        break;
      case 'data': {
        const part = open.at(-1);
        if (part && dataKey !== null) part.data[keys.get(dataKey)?.name ?? dataKey] = content.trim();
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
    const all: Record<string, string> = {};
    for (const { name, preset, domain } of keys.values())
      if (preset !== '' && (domain === what || domain === 'all')) all[name] = preset;
    Object.assign(all, data);
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

function needed(attributes: Readonly<Record<string, string>>, name: string, of: string, row: number): string {
  const value = attributes[name];
  if (value === undefined || value === '')
    throw new BrokenNetwork(`${of === 'edge' ? 'An' : 'A'} ${of} has no ${name}.`, row);
  return value;
}
