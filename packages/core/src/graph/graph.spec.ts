import fc from 'fast-check';
import { connectedComponents } from 'graphology-components';
import { randomTwin } from '../testing/known';
import { weakComponents } from './components';
import { inRows, neighbourRows, outRows, withoutSelfLoops } from './csr';
import { keepPart } from './filter';
import { makeGraph } from './graph';

const edgeLists = fc.array(fc.tuple(fc.nat(11), fc.nat(11)), { maxLength: 80 });

describe('makeGraph', () => {
  it('names the first edge that is wrong', () => {
    expect(() => makeGraph(2, [0, 5], [1, 0])).toThrow('Edge 1 goes from 5 to 0, but there are 2 nodes.');
    expect(() => makeGraph(2, [0], [1], [0])).toThrow('Edge 0 has the weight 0');
    expect(() => makeGraph(2, [0], [])).toThrow('as many sources as targets');
  });
});

describe('rows', () => {
  it('hold every edge once in each direction, merged and in order', () => {
    fc.assert(
      fc.property(edgeLists, (edges) => {
        const graph = makeGraph(
          12,
          edges.map(([s]) => s),
          edges.map(([, t]) => t),
        );
        for (const [rows, from, to] of [
          [outRows(graph), 0, 1],
          [inRows(graph), 1, 0],
        ] as const) {
          for (let v = 0; v < 12; v++) {
            const expected = new Map<number, number>();
            for (const edge of edges)
              if (edge[from] === v) expected.set(edge[to], (expected.get(edge[to]) ?? 0) + 1);
            const found = [...rows.neighbour.slice(rows.offset[v], rows.offset[v + 1])];
            expect(found).toEqual([...expected.keys()].sort((a, b) => a - b));
            found.forEach((u, i) => expect(rows.weight[rows.offset[v] + i]).toBe(expected.get(u)));
          }
        }
      }),
    );
  });

  it('without direction are symmetric', () => {
    fc.assert(
      fc.property(edgeLists, (edges) => {
        const rows = neighbourRows(
          makeGraph(
            12,
            edges.map(([s]) => s),
            edges.map(([, t]) => t),
          ),
        );
        const pairs = new Set<string>();
        for (let v = 0; v < 12; v++)
          for (let i = rows.offset[v]; i < rows.offset[v + 1]; i++) pairs.add(`${v} ${rows.neighbour[i]}`);
        for (const pair of pairs) expect(pairs.has(pair.split(' ').reverse().join(' '))).toBe(true);
      }),
    );
  });

  it('can be freed of self-loops', () => {
    const rows = withoutSelfLoops(neighbourRows(makeGraph(2, [0, 0], [0, 1])));
    expect([...rows.neighbour]).toEqual([1, 0]);
  });
});

describe('weakComponents', () => {
  it('agrees with graphology-components in number and sizes', () => {
    for (let seed = 1; seed <= 10; seed++) {
      const { graph, reference } = randomTwin(seed, 60, 50);
      const theirs = connectedComponents(reference)
        .map((nodes) => nodes.length)
        .sort((a, b) => b - a);
      expect([...weakComponents(graph).size]).toEqual(theirs);
    }
  });
});

describe('keepPart', () => {
  it('keeps an edge only with both of its ends', () => {
    const part = keepPart(
      makeGraph(4, [0, 1, 2], [1, 2, 3]),
      (v) => v !== 2,
      () => true,
    );
    expect([...part.node]).toEqual([0, 1, 3]);
    expect([...part.edge]).toEqual([0]);
  });
});
