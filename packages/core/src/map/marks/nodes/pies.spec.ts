import fc from 'fast-check';
import { defaultMap } from '@pebble/contract';
import { buildScene } from '../../scene/buildScene';
import { PAPER } from '../../style/palette';
import { paintSvg } from '../../paint/paintSvg';
import { pieSlices } from './pies';
import { prepareMap } from '../../scene/prepare';

const network = (ties: readonly (readonly [number, number, number])[], n = 4) => ({
  nodeCount: n,
  nodes: {
    handle: Array.from({ length: n }, (_, v) => `n${v}`),
    community: Uint32Array.from({ length: n }, (_, v) => 1 + (v % 2)),
    inDegree: new Uint32Array(n).fill(3),
    betweenness: new Float64Array(n),
  },
  edges: {
    source: Uint32Array.from(ties, ([a]) => a),
    target: Uint32Array.from(ties, ([, b]) => b),
    weight: Float64Array.from(ties, ([, , w]) => w),
  },
});
const all = (ties: readonly unknown[]) => Uint32Array.from(ties, (_, e) => e);

describe('pieSlices', () => {
  it('are the groups at the other ends of ties, by their weight', () => {
    const ties = [[0, 1, 3], [2, 0, 1], [0, 0, 9]] as const; // prettier-ignore
    const pies = pieSlices(network(ties), all(ties), Uint8Array.of(0, 1, 0, 1));
    expect(pies.get(0)).toEqual([
      { colour: 0, share: 0.25 },
      { colour: 1, share: 0.75 },
    ]);
    expect(pies.get(1)).toEqual([{ colour: 0, share: 1 }]);
    expect(pies.has(3)).toBe(false);
  });

  it('add up to the whole for every node with ties', () => {
    const tie = fc.tuple(fc.nat(7), fc.nat(7), fc.integer({ min: 1, max: 9 }));
    fc.assert(
      fc.property(fc.array(tie, { maxLength: 30 }), (ties) => {
        const colour = Uint8Array.from({ length: 8 }, (_, v) => v % 3);
        for (const slices of pieSlices(network(ties, 8), all(ties), colour).values())
          expect(slices.reduce((sum, { share }) => sum + share, 0)).toBeCloseTo(1);
      }),
    );
  });
});

describe('a map with pies', () => {
  const ties = [[0, 1, 3], [2, 0, 1]] as const; // prettier-ignore
  const scene = (pies: boolean) =>
    buildScene({
      map: prepareMap(network(ties), {
        ...defaultMap,
        shape: { ...defaultMap.shape, pies },
      }),
      x: Float32Array.of(100, 200, 300, 400),
      y: Float32Array.of(100, 200, 100, 200),
      view: { scale: 1, x: 0, y: 0 },
      size: { width: 600, height: 400 },
      theme: PAPER,
      focus: null,
    });

  it('has one in each node with ties, also in its figure, and says so in the legend', () => {
    expect(scene(false).pies).toEqual([]);
    const { pies, legend } = scene(true);
    expect(pies.map(({ slices }) => slices.length)).toEqual([2, 1, 1]);
    const [first] = pies;
    expect(first.slices[1].until - first.slices[0].from).toBeCloseTo(2 * Math.PI);
    expect(legend.texts.some(({ text }) => text.startsWith('Inside'))).toBe(true);
    // One arc for each of the two slices; a whole pie is a circle.
    expect(paintSvg(scene(true)).match(/<path d="M[^"]*A/g)).toHaveLength(2);
  });
});
