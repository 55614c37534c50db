import { defaultMap, type MapDescription } from '@pebble/contract';
import { buildScene } from './buildScene';
import { initialsOf } from './nodeLetters';
import { contrast, PAPER } from './palette';
import { prepareMap } from './prepare';
import type { Scene } from './scene';

const names = ['lamp_planner', 'nightbus14', 'ana de la Cruz', '42', 'ü-ß'];
const signs = ['🪔', 'harbour', '', '👩‍🚒 crew', '🇺🇳'];

function draw(shape: Partial<MapDescription['shape']>, scale = 3): Scene {
  const n = names.length;
  const network = {
    nodeCount: n,
    nodes: {
      handle: names,
      sign: signs,
      community: Uint32Array.of(1, 2, 3, 4, 5),
      inDegree: new Uint32Array(n).fill(4),
      betweenness: new Float64Array(n),
    },
    edges: { source: new Uint32Array(0), target: new Uint32Array(0), weight: new Float64Array(0) },
  };
  const description: MapDescription = {
    ...defaultMap,
    size: { ...defaultMap.size, smallest: 10, largest: 10 },
    names: { ...defaultMap.names, count: 0 },
    shape: { ...defaultMap.shape, ...shape },
  };
  return buildScene({
    map: prepareMap(network, description),
    x: Float32Array.from(names, (_, v) => 60 + 70 * v),
    y: new Float32Array(n).fill(60),
    view: { scale, x: 0, y: 0 },
    size: { width: 1400, height: 400 },
    theme: PAPER,
    focus: null,
  });
}

describe('what is written inside of nodes', () => {
  it('are initials of up to two words', () => {
    expect(names.map(initialsOf)).toEqual(['LP', 'N', 'AD', '4', 'Üß']);
    expect(draw({ letters: 'initials' }).texts.map(({ text }) => text)).toEqual(names.map(initialsOf));
  });

  it('or the first signs of a column, an emoji of several parts being one', () => {
    const { texts } = draw({ letters: 'sign' });
    expect(texts.map(({ text }) => text)).toEqual(['🪔', 'ha', '👩‍🚒', '🇺🇳']);
  });

  it('lies within the node, in the ink with more contrast on its colour', () => {
    const { texts, discs } = draw({ letters: 'initials' });
    const [{ discs: first }] = discs;
    for (const { fill, size } of texts) {
      const other = fill === '#FFFFFF' ? '#1E2A32' : '#FFFFFF';
      const ground = discs.map((batch) => batch.fill);
      expect(ground.some((colour) => contrast(fill, colour) >= contrast(other, colour))).toBe(true);
      expect(size).toBeLessThan(2 * first[2]);
    }
    expect(new Set(texts.map(({ fill }) => fill)).size).toBeGreaterThan(1);
  });

  it('is left out where nodes are small, are pies, or the column is not there', () => {
    expect(draw({ letters: 'initials' }, 0.05).texts).toEqual([]);
    expect(draw({ letters: 'initials', pies: true }).texts).toEqual([]);
    expect(draw({ letters: 'gone' }).texts).toEqual([]);
    expect(draw({}).texts).toEqual([]);
  });
});
