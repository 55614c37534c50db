import fc from 'fast-check';
import { PairTable } from './pairTable';

type RowOf = readonly [from: number, to: number, mask: number, time: number];

function filled(rows: readonly RowOf[]): PairTable {
  const table = new PairTable(3);
  for (const row of rows) table.add(...row);
  return table;
}

describe('PairTable', () => {
  it('keeps pairs apart by their direction, in the order in which they come', () => {
    const table = filled([
      [1, 2, 1, 0],
      [2, 1, 1, 0],
      [1, 2, 2, 0],
    ]);
    expect(table.size).toBe(2);
    expect([...table.from.subarray(0, 2)]).toEqual([1, 2]);
    expect([...table.count.subarray(0, 2)]).toEqual([2, 1]);
  });

  it('counts a row under every bit of its mask', () => {
    const table = filled([
      [1, 2, 0b101, 0],
      [1, 2, 0b100, 0],
      [1, 2, 0, 0],
    ]);
    expect(table.byKind.map((counts) => counts[0])).toEqual([1, 0, 2]);
    expect(table.count[0]).toBe(3);
  });

  it('knows the first and the last moment, and none where no row has one', () => {
    const table = filled([
      [1, 2, 1, NaN],
      [1, 2, 1, 50],
      [1, 2, 1, 20],
      [3, 4, 1, NaN],
    ]);
    expect([table.first[0], table.last[0]]).toEqual([20, 50]);
    expect(table.first[1]).toBeNaN();
  });

  it('sorts the pairs that are kept by their two ends', () => {
    const table = filled([
      [7, 1, 1, 0],
      [2, 9, 1, 0],
      [2, 3, 1, 0],
      [7, 0, 1, 0],
    ]);
    const pairs = [...table.sorted((p) => table.to[p] !== 3)];
    expect(pairs.map((p) => [table.from[p], table.to[p]])).toEqual([
      [2, 9],
      [7, 0],
      [7, 1],
    ]);
    expect([...new PairTable(1).sorted(() => true)]).toEqual([]);
  });

  it('gives the same as a map of maps, however many pairs there are', () => {
    const row = fc.tuple(fc.nat(40), fc.nat(40), fc.nat(7), fc.nat(1000));
    fc.assert(
      fc.property(fc.array(row, { maxLength: 4000, minLength: 1500 }), (rows) => {
        const counts = new Map<string, number>();
        for (const [from, to] of rows) counts.set(`${from} ${to}`, (counts.get(`${from} ${to}`) ?? 0) + 1);
        const table = filled(rows);
        expect(table.size).toBe(counts.size);
        for (let p = 0; p < table.size; p++)
          expect(table.count[p]).toBe(counts.get(`${table.from[p]} ${table.to[p]}`));
        const order = [...table.sorted(() => true)].map((p) => table.from[p] * 1000 + table.to[p]);
        expect(order).toEqual([...order].sort((a, b) => a - b));
      }),
      { numRuns: 20 },
    );
  });
});
