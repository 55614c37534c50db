import { defaultMap } from '@pebble/contract';
import { prepareMap } from './prepare';
import type { Bounds } from './bounds';
import { smallPicture } from './smallPicture';

describe('a small picture', () => {
  const of = (count: number, part?: Bounds) => {
    const numbers = Float64Array.from({ length: count }, (_, v) => v);
    const nodes = {
      id: Uint32Array.from(numbers),
      handle: Array.from(numbers, (v) => `n${v}`),
      inDegree: numbers,
      degree: numbers,
      betweenness: numbers,
      community: Uint32Array.from(numbers, (v) => 1 + (v % 3)),
      component: new Uint32Array(count).fill(1),
    };
    const edges = { source: Uint32Array.of(0), target: Uint32Array.of(1), weight: Float64Array.of(1) };
    const map = prepareMap({ nodeCount: count, nodes, edges }, defaultMap);
    return smallPicture(
      map,
      Array.from(numbers, (v) => 10 * v),
      Array.from(numbers, (v) => 5 * (v % 7)),
      part,
    );
  };

  it('keeps proportions, sizes and colours', () => {
    const picture = of(50);
    expect([picture.width, picture.height]).toEqual([1000, Math.round((30 / 490) * 1000)]);
    expect(picture.x).toHaveLength(50);
    expect(new Set(picture.colour.map((at) => picture.colours[at])).size).toBe(3);
    expect(Math.max(...picture.x)).toBe(1000);
  });

  it('of a part of the map has what lies in it, in the form of the part', () => {
    const picture = of(50, { left: 100, right: 200, top: -20, bottom: 30 });
    expect([picture.width, picture.height]).toEqual([1000, 500]);
    // The nodes at 100, 110, ... 200.
    expect([...picture.x].sort((a, b) => a - b)).toEqual(
      [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10].map((i) => 100 * i),
    );
  });

  it('has few nodes, the larger ones, however many there are', () => {
    const picture = of(20_000);
    expect(picture.x).toHaveLength(2500);
    expect(JSON.stringify(picture).length).toBeLessThan(80_000);
  });
});
