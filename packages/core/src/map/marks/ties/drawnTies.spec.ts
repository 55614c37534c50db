import fc from 'fast-check';
import { defaultMap } from '@pebble/contract';
import { drawnTies, MOST_DRAWN } from './drawnTies';
import { legendSections } from '../legend/legendSections';
import { prepareMap } from '../../scene/prepare';

describe('drawnTies', () => {
  it('are all where there is room', () => {
    const edges = Uint32Array.of(3, 5, 9);
    expect(drawnTies(edges, new Float64Array(10), 3)).toBe(edges);
  });

  it('are the strongest, in their order, and just as many as there is room for', () => {
    const weights = fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 4, maxLength: 60 });
    fc.assert(
      fc.property(weights, fc.integer({ min: 1, max: 3 }), (weight, most) => {
        const edges = Uint32Array.from(weight, (_, e) => e);
        const drawn = drawnTies(edges, weight, most);
        expect(drawn).toHaveLength(most);
        expect([...drawn]).toEqual([...drawn].sort((a, b) => a - b));
        const least = Math.min(...Array.from(drawn, (e) => weight[e]));
        const left = weight.filter((_, e) => !drawn.includes(e));
        expect(Math.max(...left)).toBeLessThanOrEqual(least);
      }),
    );
  });

  it('are spread evenly over those that weigh the same, so that none is left out for standing last', () => {
    // 30 strong ones among 1,000 that weigh the same.
    const weight = Array.from({ length: 1000 }, (_, e) => (e % 33 === 0 ? 5 : 1));
    const drawn = drawnTies(
      Uint32Array.from(weight, (_, e) => e),
      weight,
      250,
    );
    expect(drawn).toHaveLength(250);
    expect(weight.filter((one, e) => one === 5 && !drawn.includes(e))).toEqual([]);
    for (let tenth = 0; tenth < 10; tenth++) {
      const within = [...drawn].filter((e) => Math.floor(e / 100) === tenth).length;
      expect(Math.abs(within - 25)).toBeLessThanOrEqual(2);
    }
  });

  it('is said in the legend when some are left out, and all are still counted', () => {
    const m = MOST_DRAWN + 1000;
    const network = {
      nodeCount: 3,
      nodes: {
        handle: ['a', 'b', 'c'],
        community: Uint32Array.of(1, 1, 1),
        inDegree: Uint32Array.of(1, 1, 1),
        betweenness: new Float64Array(3),
      },
      edges: {
        source: new Uint32Array(m),
        target: new Uint32Array(m).fill(1),
        weight: Float64Array.from({ length: m }, (_, e) => 1 + (e % 3)),
      },
    };
    const map = prepareMap(network, defaultMap);
    expect([map.edges.length, map.drawn.length]).toEqual([m, MOST_DRAWN]);
    const width = legendSections(map).find(({ part }) => part === 'width');
    expect(width?.heading).toBe('Drawn: 200,000 of 201,000');
  });
});
