import fc from 'fast-check';
import { weakComponents } from '../../graph/components';
import { makeGraph } from '../../graph/graph';
import { florence, kite } from '../../testing/known';
import { randomRemovalCurve, removalCurve, removeNodes, topNodes } from './removal';

describe('removeNodes', () => {
  it('says who is cut off: without H the kite (Krackhardt 1990) loses I and J', () => {
    const [H, I, J] = [7, 8, 9];
    expect(removeNodes(kite(), [H])).toEqual({
      components: { before: 1, after: 2 },
      largest: { before: 10, after: 7 },
      cutOff: [I, J],
      // Of the 36 pairs of the nine that are left 21 and 1 still reach each other.
      reach: 22 / 36,
    });
    expect(removeNodes(kite(), [0])).toMatchObject({ cutOff: [], reach: 1 });
  });

  it('knows what hangs on the Medici alone (Padgett & Ansell 1993)', () => {
    const { graph, names } = florence();
    const at = (name: string): number => names.findIndex((one) => one.toLowerCase().startsWith(name));
    const found = removeNodes(graph, [at('medici')]);
    // The families of the marriages: Acciaiuoli stands alone, Salviati with Pazzi.
    expect(found.cutOff.map((v) => names[v].toLowerCase()).sort()).toEqual([
      'acciaiuoli',
      'pazzi',
      'salviati',
    ]);
    expect(found.components.after - found.components.before).toBe(2);
  });

  it('takes out several, and those of small components', () => {
    const graph = makeGraph(7, [0, 1, 2, 4], [1, 2, 3, 5]);
    const found = removeNodes(graph, [1, 4]);
    expect(found.cutOff).toEqual([0]);
    expect(found.components).toEqual({ before: 3, after: 4 });
    expect(removeNodes(makeGraph(1, [], []), [0])).toMatchObject({ largest: { after: 0 }, cutOff: [] });
  });
});

describe('removalCurve', () => {
  it('is what taking the nodes out one by one gives', () => {
    const tie = fc.tuple(fc.nat(11), fc.nat(11));
    const order = fc.shuffledSubarray([...Array(12).keys()]);
    fc.assert(
      fc.property(fc.array(tie, { maxLength: 25 }), order, (ties, out) => {
        const graph = makeGraph(
          12,
          ties.map(([a]) => a),
          ties.map(([, b]) => b),
        );
        const expected = Array.from({ length: out.length + 1 }, (_, n) => {
          return n === 0
            ? weakComponents(graph).size[0] / 12
            : removeNodes(graph, out.slice(0, n)).largest.after / 12;
        });
        expect([...removalCurve(graph, out)]).toEqual(expected);
      }),
    );
  });

  it('falls slowly at random, and at once where the middle of a star goes first', () => {
    const star = makeGraph(
      101,
      Array.from({ length: 100 }, () => 0),
      Array.from({ length: 100 }, (_, i) => i + 1),
    );
    expect(removalCurve(star, [0])[1]).toBeCloseTo(1 / 101, 12);
    const random = randomRemovalCurve(star, 5, { runs: 20, seed: 3 });
    expect(random[0]).toBeCloseTo(1, 12);
    expect(random[5]).toBeGreaterThan(0.5);
    expect([...randomRemovalCurve(star, 5, { runs: 20, seed: 3 })]).toEqual([...random]);
  });
});

it('topNodes gives those with the highest values, without those that have none', () => {
  expect(topNodes([1, NaN, 3, 3, 0], 3)).toEqual([2, 3, 0]);
});
