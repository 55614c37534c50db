import {
  DataType,
  makeData,
  makeVector,
  tableFromArrays,
  tableFromIPC,
  tableToIPC,
  Utf8,
  type Table,
  type Vector,
} from 'apache-arrow';
import type { Graph } from '../graph/graph';

/** A table as named columns; all have the same length. Text columns are arrays, number columns typed arrays. */
export type TableColumns = Readonly<Record<string, Uint32Array | Float64Array | readonly string[]>>;

/** Writes columns as an Apache Arrow IPC file. Null values are not used; NaN stands for "no value" in number columns. */
export function toArrow(columns: TableColumns): Uint8Array {
  // The library writes numbers that stand in two columns only once, and then misses them when it reads.
  const written = new Set<ArrayBufferLike>();
  const once = (values: Uint32Array | Float64Array): Uint32Array | Float64Array => {
    const isNew = !written.has(values.buffer);
    written.add(values.buffer);
    return isNew ? values : values.slice();
  };
  const vectors = Object.fromEntries(
    Object.entries(columns).map(([name, values]) => [
      name,
      ArrayBuffer.isView(values) ? once(values) : textVector(values),
    ]),
  );
  return tableToIPC(tableFromArrays(vectors as Record<string, Float64Array>) as Table, 'file');
}

/** A column of texts; made from its bytes at once, since the library's own builder needs some 400 bytes for each value. */
function textVector(values: readonly string[]): Vector<Utf8> {
  const encoder = new TextEncoder();
  const valueOffsets = new Int32Array(values.length + 1);
  let data = new Uint8Array(Math.max(1024, values.length * 12));
  let at = 0;
  values.forEach((value, i) => {
    if (data.length - at < value.length * 3) {
      const larger = new Uint8Array((data.length + value.length * 3) * 2);
      larger.set(data.subarray(0, at));
      data = larger;
    }
    at += encoder.encodeInto(value, data.subarray(at)).written;
    valueOffsets[i + 1] = at;
  });
  return makeVector(
    makeData({
      type: new Utf8(),
      length: values.length,
      nullCount: 0,
      valueOffsets,
      data: data.subarray(0, at),
    }),
  );
}

/**
 * Reads what `toArrow` wrote.
 * @param only names of the columns that are wanted; texts of others are not made. All where it is left out
 * @param rows rows that are wanted, in this order; all where it is left out
 */
export function fromArrow(
  bytes: Uint8Array,
  only?: readonly string[],
  rows?: readonly number[],
): TableColumns {
  const table = tableFromIPC(bytes);
  const columns: Record<string, Uint32Array | Float64Array | string[]> = {};
  for (const field of table.schema.fields) {
    if (only && !only.includes(field.name)) continue;
    const vector = table.getChild(field.name)!;
    if (DataType.isUtf8(vector.type)) {
      columns[field.name] = rows
        ? rows.map((row) => String(vector.get(row)))
        : Array.from(vector as Iterable<unknown>, String);
      continue;
    }
    const values = vector.toArray() as Uint32Array | Float64Array;
    columns[field.name] = rows
      ? (values.constructor as Float64ArrayConstructor).from(rows, (row) => values[row])
      : values;
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
  return values;
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

/** The values of a column as texts, whatever it holds. */
export function textsIn(column: TableColumns[string]): string[] {
  return Array.from(column as ArrayLike<number | string>, String);
}

export function textsOf(columns: TableColumns, name: string): readonly string[] {
  const values = columns[name];
  if (!Array.isArray(values)) throw new RangeError(`There is no text column called “${name}”.`);
  return values as readonly string[];
}
