import fc from 'fast-check';
import { neighbourRows, withoutSelfLoops } from '../../graph/csr';
import { makeGraph, type Graph } from '../../graph/graph';
import { zachary } from '../../testing/known';
import { constraint, localClustering } from './neighbourhood';

import { anyGraphs, complete } from '../../testing/graphs';

const plain = (graph: Graph) => withoutSelfLoops(neighbourRows(graph));
describe('local clustering (Watts & Strogatz 1998)', () => {
  it('is 1 among friends of friends, 0 in a star, and not there with fewer than two partners', () => {
    expect([...localClustering(plain(complete(4)))]).toEqual([1, 1, 1, 1]);
    expect([...localClustering(plain(makeGraph(4, [0, 0, 0], [1, 2, 3])))]).toEqual([0, NaN, NaN, NaN]);
  });

  it('has the mean 0.5706 in the karate club, those with one partner counting 0 (handbook value, from memory)', () => {
    const found = [...localClustering(plain(zachary().graph))].map((value) =>
      Number.isNaN(value) ? 0 : value,
    );
    expect(found.reduce((a, b) => a + b, 0) / 34).toBeCloseTo(0.5706, 4);
  });
});

describe('constraint (Burt 1992)', () => {
  it('is 1.125 in a triangle, 1 / n in the middle of a star of n, 1 at its rim (closed forms)', () => {
    for (const value of constraint(plain(complete(3)))) expect(value).toBeCloseTo(1.125, 12);
    const [middle, rim] = constraint(plain(makeGraph(5, [0, 0, 0, 0], [1, 2, 3, 4])));
    expect(middle).toBeCloseTo(1 / 4, 12);
    expect(rim).toBeCloseTo(1, 12);
    expect(constraint(plain(makeGraph(1, [], [])))[0]).toBeNaN();
  });

  it('goes by weight: nearly all ties to one partner is nearly one', () => {
    const uneven = makeGraph(3, [0, 0], [1, 2], [99, 1]);
    expect(constraint(plain(uneven))[0]).toBeCloseTo(0.99 ** 2 + 0.01 ** 2, 12);
  });

  it('is what the definition gives, summed up plainly', () => {
    fc.assert(
      fc.property(anyGraphs, (graph) => {
        const rows = plain(graph);
        const a = Array.from({ length: 10 }, () => new Array<number>(10).fill(0));
        for (let v = 0; v < 10; v++)
          for (let i = rows.offset[v]; i < rows.offset[v + 1]; i++) a[v][rows.neighbour[i]] = rows.weight[i];
        const strength = a.map((row) => row.reduce((x, y) => x + y, 0));
        const p = (i: number, j: number): number => (strength[i] ? a[i][j] / strength[i] : 0);
        const found = constraint(rows);
        for (let i = 0; i < 10; i++) {
          let sum = 0;
          for (let j = 0; j < 10; j++) {
            if (j === i || a[i][j] === 0) continue;
            let share = p(i, j);
            for (let q = 0; q < 10; q++) if (q !== i && q !== j) share += p(i, q) * p(q, j);
            sum += share ** 2;
          }
          if (strength[i] === 0) expect(found[i]).toBeNaN();
          else expect(found[i]).toBeCloseTo(sum, 10);
        }
      }),
    );
  });
});
