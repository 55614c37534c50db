import { tableFromIPC } from 'apache-arrow';
import { readParquet } from 'parquet-wasm/node';
import { toParquet } from './writeParquet';

/** Reads a file by the Parquet reader of Apache Arrow for Rust, which shares nothing with what wrote it. */
const read = (bytes: Uint8Array): Record<string, unknown[]> => {
  const table = tableFromIPC(readParquet(bytes).intoIPCStream());
  return Object.fromEntries(
    table.schema.fields.map(({ name }) => [name, [...(table.getChild(name) as Iterable<unknown>)]]),
  );
};

describe('a Parquet file', () => {
  it('is read by another library as it was written: texts, counts and numbers, without a value too', () => {
    const columns = {
      handle: ['ann', 'quay "traders", Ltd.', '', 'שלום 🦇', '灯台'],
      id: Uint32Array.of(0, 1, 2, 3, 4_294_967_295),
      degree: Float64Array.of(0.1, -2.5e-300, NaN, 1e308, 3),
    };
    expect(read(toParquet(columns))).toEqual({
      handle: columns.handle,
      id: [0n, 1n, 2n, 3n, 4_294_967_295n],
      degree: [0.1, -2.5e-300, null, 1e308, 3],
    });
  });

  it('holds more rows than a group has, in their order', () => {
    const count = 102_000;
    const columns = {
      name: Array.from({ length: count }, (_, i) => `node ${i % 977}`),
      value: Float64Array.from({ length: count }, (_, i) => i / 7),
    };
    const found = read(toParquet(columns));
    expect(found['name']).toEqual(columns.name);
    expect(found['value']).toEqual([...columns.value]);
  });
});
