import { BrokenNetwork, NetworkBuilder, type FoundNetwork } from './foundNetwork';
import { columnsOf, documentOf, isObject, sayTypes, textOf, type Json } from './jsonGraph';

/** Names of the parts of an edge that are no columns. */
const OWN = new Set(['source', 'target', 'weight', 'value']);

/**
 * Reads node-link JSON, as many web libraries write it (common practice): "nodes" with "links" or "edges"; an edge names its ends by the id
 * of a node, or by its place where nodes have none, or holds the node itself. Weight is "weight" or "value". All else become columns.
 */
export function readNodeLink(text: string): FoundNetwork {
  const root = documentOf(text);
  const nodes = listOf(root['nodes']);
  const edges = listOf(root['links'] ?? root['edges']);
  const builder = new NetworkBuilder(root['directed'] !== false);
  const keys = nodes.map((node, place) => keyOf(node) ?? String(place));
  nodes.forEach((node, place) => {
    if (!isObject(node)) return void builder.node(keys[place]);
    const { id: _id, key: _key, ...rest } = { ...node, ...attributesOf(node) };
    const label = textOf(rest['label']) || textOf(rest['name']) || textOf(rest['title']);
    sayTypes(builder, 'node', rest);
    builder.describeNode(keys[place], label, columnsOf(rest));
  });
  const known = new Set(keys);
  edges.forEach((edge, at) => {
    if (!isObject(edge)) throw new BrokenNetwork(`Edge ${at + 1} is no object with a source and a target.`);
    const [source, target] = (['source', 'target'] as const).map((end) => {
      const named = isObject(edge[end]) ? keyOf(edge[end]) : textOf(edge[end]);
      if (named !== null && known.has(named)) return named;
      // A number that is no id is a place in the list of nodes.
      const byPlace = /^\d+$/.test(named ?? '') ? keys[Number(named)] : undefined;
      if (byPlace !== undefined) return byPlace;
      if (!named) throw new BrokenNetwork(`Edge ${at + 1} has no ${end}.`);
      if (nodes.length > 0)
        throw new BrokenNetwork(
          `Edge ${at + 1} names the node “${named.slice(0, 60)}”, which is not in the file.`,
        );
      return named;
    });
    const all = { ...edge, ...attributesOf(edge) };
    const rest = Object.fromEntries(Object.entries(all).filter(([name]) => !OWN.has(name)));
    sayTypes(builder, 'edge', rest);
    builder.edge(source, target, textOf(all['weight']) || textOf(all['value']), columnsOf(rest), null);
  });
  return builder.finish();
}

/** What a node is called by: its id or key; itself where the list holds plain names. */
function keyOf(node: unknown): string | null {
  if (!isObject(node)) return textOf(node) || null;
  return textOf(node['id']) || textOf(node['key']) || null;
}

/** Attributes that stand in an object of their own. */
function attributesOf(part: Json): Json {
  return isObject(part['attributes']) ? { ...part['attributes'], attributes: undefined } : {};
}

function listOf(value: unknown): readonly unknown[] {
  return Array.isArray(value) ? (value as unknown[]) : [];
}
