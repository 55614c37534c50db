import { parse, isLosslessNumber } from 'lossless-json';
import { BrokenNetwork, NetworkBuilder, type FoundNetwork } from './foundNetwork';

export type Json = Readonly<Record<string, unknown>>;

/**
 * Reads the JSON Graph Format, version 2 (nodes by their ids) and version 1 (nodes in a list): the graph, or the first of several.
 * Metadata become columns.
 */
export function readJsonGraph(text: string): FoundNetwork {
  const root = documentOf(text);
  const graphs = Array.isArray(root['graphs']) ? (root['graphs'] as unknown[]) : [root['graph']];
  const graph = graphs[0];
  if (!isObject(graph)) throw new BrokenNetwork('The document has no “graph” with nodes and edges.');
  const builder = new NetworkBuilder(graph['directed'] !== false);
  if (graphs.length > 1) builder.note(`The file has ${graphs.length} graphs; the first was taken.`);
  for (const [id, node] of nodesOf(graph['nodes'])) {
    sayTypes(builder, 'node', node['metadata']);
    builder.describeNode(id, textOf(node['label']), columnsOf(node['metadata']));
  }
  const edges: unknown[] = Array.isArray(graph['edges']) ? (graph['edges'] as unknown[]) : [];
  edges.forEach((edge, i) => {
    if (!isObject(edge) || textOf(edge['source']) === '' || textOf(edge['target']) === '')
      throw new BrokenNetwork(`Edge ${i + 1} has no source or no target.`);
    sayTypes(builder, 'edge', edge['metadata']);
    const { weight = '', ...rest } = columnsOf(edge['metadata']);
    const more = { relation: textOf(edge['relation']), label: textOf(edge['label']), ...rest };
    const directed = typeof edge['directed'] === 'boolean' ? edge['directed'] : undefined;
    builder.edge(
      textOf(edge['source']),
      textOf(edge['target']),
      textOf(edge['weight']) || weight,
      more,
      null,
      directed,
    );
  });
  if (Array.isArray(graph['hyperedges'])) builder.note('Hyperedges are not read; the file has some.');
  return builder.finish();
}

/** The outermost object of a JSON text; an empty one where it is something else. Throws BrokenNetwork. */
export function documentOf(text: string): Json {
  try {
    const document = parse(text);
    return isObject(document) ? document : {};
  } catch (error) {
    throw new BrokenNetwork(`Not valid JSON: ${error instanceof Error ? error.message : String(error)}`);
  }
}

function nodesOf(nodes: unknown): [string, Json][] {
  if (Array.isArray(nodes))
    return nodes.flatMap((node: unknown, i) => {
      if (!isObject(node)) return [];
      const id = textOf(node['id']);
      if (id === '') throw new BrokenNetwork(`Node ${i + 1} has no id.`);
      return [[id, node] as [string, Json]];
    });
  return isObject(nodes) ? Object.entries(nodes).map(([id, node]) => [id, isObject(node) ? node : {}]) : [];
}

/** JSON says of each value whether it is a number or a text. */
export function sayTypes(builder: NetworkBuilder, kind: 'node' | 'edge', values: unknown): void {
  if (!isObject(values)) return;
  for (const [name, value] of Object.entries(values))
    if (value !== null && value !== '') builder.say(kind, name, isLosslessNumber(value) ? 'number' : 'text');
}

export function columnsOf(metadata: unknown): Record<string, string> {
  if (!isObject(metadata)) return {};
  return Object.fromEntries(
    Object.entries(metadata).map(([name, value]) => [
      name,
      isObject(value) || Array.isArray(value) ? JSON.stringify(value) : textOf(value),
    ]),
  );
}

export function textOf(value: unknown): string {
  if (typeof value === 'string') return value;
  return isLosslessNumber(value) || typeof value === 'number' || typeof value === 'boolean'
    ? String(value)
    : '';
}

export function isObject(value: unknown): value is Json {
  return typeof value === 'object' && value !== null && !Array.isArray(value) && !isLosslessNumber(value);
}
