import fc from 'fast-check';
import { neighbourRows, withoutSelfLoops } from './csr';
import { makeGraph, type Graph } from './graph';
import { kite } from '../testing/known';
import { coreNumbers } from './cores';

import { anyGraphs, complete } from '../testing/graphs';

const plain = (graph: Graph) => withoutSelfLoops(neighbourRows(graph));
describe('core numbers (Seidman 1983)', () => {
  it('are n - 1 in a complete network, and 1 along a line', () => {
    expect([...coreNumbers(plain(complete(5)))]).toEqual([4, 4, 4, 4, 4]);
    expect([...coreNumbers(plain(makeGraph(4, [0, 1], [1, 2])))]).toEqual([1, 1, 1, 0]);
  });

  it('are 3 for A to G of the kite without F, G counted in; H is in the 2-core, I and J in the 1-core', () => {
    // By hand: taking away J and I leaves H with two ties; taking away H leaves A to G, each with three or more.
    expect([...coreNumbers(plain(kite()))]).toEqual([3, 3, 3, 3, 3, 3, 3, 2, 1, 1]);
  });

  it('are the largest k for which the definition holds', () => {
    fc.assert(
      fc.property(anyGraphs, (graph) => {
        const rows = plain(graph);
        const found = coreNumbers(rows);
        const partners = (v: number): number[] => [
          ...rows.neighbour.slice(rows.offset[v], rows.offset[v + 1]),
        ];
        const inCore = (k: number): Set<number> => {
          const left = new Set(Array.from({ length: 10 }, (_, v) => v));
          for (let changed = true; changed;) {
            changed = false;
            for (const v of left)
              if (partners(v).filter((u) => left.has(u)).length < k) changed = left.delete(v) || changed;
          }
          return left;
        };
        for (let k = 1; k <= 9; k++) {
          const core = inCore(k);
          for (let v = 0; v < 10; v++) expect(found[v] >= k).toBe(core.has(v));
        }
      }),
    );
  });
});
