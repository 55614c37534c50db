import { tableFromArrays, tableFromIPC, tableToIPC, vectorFromArray, Utf8, type Table } from 'apache-arrow';
import type { Graph } from '../graph/graph';

/** A table as named columns; all have the same length. Text columns are arrays, number columns typed arrays. */
export type TableColumns = Readonly<Record<string, Uint32Array | Float64Array | readonly string[]>>;

/** Writes columns as an Apache Arrow IPC file. Null values are not used; NaN stands for "no value" in number columns. */
export function toArrow(columns: TableColumns): Uint8Array {
  const vectors = Object.fromEntries(
    Object.entries(columns).map(([name, values]) => [
      name,
      ArrayBuffer.isView(values) ? values : vectorFromArray(values as string[], new Utf8()),
    ]),
  );
  return tableToIPC(tableFromArrays(vectors as Record<string, Float64Array>) as Table, 'file');
}

/** Reads what `toArrow` wrote. */
export function fromArrow(bytes: Uint8Array): TableColumns {
  const table = tableFromIPC(bytes);
  const columns: Record<string, Uint32Array | Float64Array | string[]> = {};
  for (const field of table.schema.fields) {
    const vector = table.getChild(field.name)!;
    const values: unknown = vector.toArray();
    if (values instanceof Uint32Array || values instanceof Float64Array) columns[field.name] = values;
    else columns[field.name] = Array.from(vector as Iterable<unknown>, String);
  }
  return columns;
}

/** The graph of an edge table with the columns source, target and weight. */
export function graphOf(nodeCount: number, edges: TableColumns): Graph {
  return {
    nodeCount,
    source: edges['source'] as Uint32Array,
    target: edges['target'] as Uint32Array,
    weight: edges['weight'] as Float64Array,
  };
}

/** A number column; throws a RangeError that names the column when there is none. */
export function numbersOf(columns: TableColumns, name: string): Uint32Array | Float64Array {
  const values = columns[name];
  if (!ArrayBuffer.isView(values)) throw new RangeError(`There is no number column called “${name}”.`);
  return values as Uint32Array | Float64Array;
}

/**
 * What each node is called on a map: its handle; in a network that came from a file, and so has no messages, its label where it has one.
 */
export function nodeLabels(nodes: TableColumns): readonly string[] {
  const handles = textsOf(nodes, 'handle');
  if ('messages' in nodes || !('name' in nodes)) return handles;
  const names = textsOf(nodes, 'name');
  return handles.map((handle, v) => names[v] || handle);
}

export function textsOf(columns: TableColumns, name: string): readonly string[] {
  const values = columns[name];
  if (!Array.isArray(values)) throw new RangeError(`There is no text column called “${name}”.`);
  return values as readonly string[];
}
