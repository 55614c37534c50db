import fc from 'fast-check';
import { neighbourRows, withoutSelfLoops } from '../../graph/csr';
import { weakComponents } from '../../graph/components';
import { makeGraph, type Graph } from '../../graph/graph';
import { kite } from '../../testing/known';
import { cuts } from './cutNodes';

const rowsOf = (graph: Graph) => withoutSelfLoops(neighbourRows(graph));

describe('cut nodes and bridges (Tarjan 1972, Hopcroft & Tarjan 1973)', () => {
  it('are H and I, with the ties H-I and I-J, in the kite of Krackhardt (1990)', () => {
    const { cutsOff, bridges } = cuts(rowsOf(kite()));
    expect([...cutsOff]).toEqual([0, 0, 0, 0, 0, 0, 0, 2, 1, 0]);
    expect(bridges).toEqual([
      [7, 8],
      [8, 9],
    ]);
  });

  it('are all inner nodes of a line, and none of a ring', () => {
    expect([...cuts(rowsOf(makeGraph(5, [0, 1, 2, 3], [1, 2, 3, 4]))).cutsOff]).toEqual([0, 1, 2, 1, 0]);
    const ring = cuts(rowsOf(makeGraph(4, [0, 1, 2, 3], [1, 2, 3, 0])));
    expect([...ring.cutsOff]).toEqual([0, 0, 0, 0]);
    expect(ring.bridges).toEqual([]);
  });

  it('are what taking each node and tie away shows', () => {
    const pairs = fc.array(fc.tuple(fc.nat(8), fc.nat(8)), { maxLength: 14 });
    fc.assert(
      fc.property(pairs, (list) => {
        const graphOf = (kept: readonly (readonly number[])[]): Graph =>
          makeGraph(
            9,
            kept.map(([a]) => a),
            kept.map(([, b]) => b),
          );
        const graph = graphOf(list);
        const { cutsOff, bridges } = cuts(rowsOf(graph));
        const whole = weakComponents(graph);
        for (let v = 0; v < 9; v++) {
          const left = weakComponents(graphOf(list.filter(([a, b]) => a !== v && b !== v)));
          const mates = [...Array(9).keys()].filter((u) => u !== v && whole.of[u] === whole.of[v]);
          const sizes = new Map<number, number>();
          for (const u of mates) sizes.set(left.of[u], (sizes.get(left.of[u]) ?? 0) + 1);
          expect(cutsOff[v]).toBe(mates.length - Math.max(0, ...sizes.values()));
        }
        const isSame = ([a, b]: readonly number[], x: number, y: number): boolean =>
          (a === x && b === y) || (a === y && b === x);
        const names = new Set(bridges.map(([a, b]) => `${a} ${b}`));
        for (let x = 0; x < 9; x++)
          for (let y = x + 1; y < 9; y++) {
            const kept = list.filter((pair) => !isSame(pair, x, y));
            const isBridge = kept.length < list.length && weakComponents(graphOf(kept)).count > whole.count;
            expect(names.has(`${x} ${y}`)).toBe(isBridge);
          }
      }),
    );
  });

  it('go through a line of 200,000 nodes without running out of room', () => {
    const n = 200_000;
    const line = makeGraph(
      n,
      Array.from({ length: n - 1 }, (_, v) => v),
      Array.from({ length: n - 1 }, (_, v) => v + 1),
    );
    const { cutsOff, bridges } = cuts(rowsOf(line));
    expect([cutsOff[1], cutsOff[n / 2], bridges.length]).toEqual([1, n / 2 - 1, n - 1]);
  });
});
