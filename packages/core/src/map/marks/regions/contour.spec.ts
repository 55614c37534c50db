import fc from 'fast-check';
import { contoursAround } from './contour';
import { nodesWithin } from '../../interaction/choosing';

const pairsOf = (line: Float32Array): [number, number][] =>
  Array.from({ length: line.length / 2 }, (_, i) => [line[2 * i], line[2 * i + 1]]);

describe('contoursAround', () => {
  it('is a circle round one place, where the hill falls to the level of the line', () => {
    const [line, ...more] = contoursAround([0], { x: [100], y: [40] }, 20);
    expect(more).toEqual([]);
    // exp(-r² / 2σ²) = 0.35
    const radius = 20 * Math.sqrt(-2 * Math.log(0.35));
    for (const [x, y] of pairsOf(line)) expect(Math.hypot(x - 100, y - 40)).toBeCloseTo(radius, 0);
  });

  it('is one line round places that lie near each other, and two where they lie apart', () => {
    expect(contoursAround([0, 1], { x: [0, 30], y: [0, 0] }, 20)).toHaveLength(1);
    expect(contoursAround([0, 1], { x: [0, 200], y: [0, 0] }, 20)).toHaveLength(2);
    expect(contoursAround([], { x: [], y: [] }, 20)).toEqual([]);
  });

  it('has every place inside one of the lines', () => {
    const place = fc.integer({ min: 0, max: 400 });
    fc.assert(
      fc.property(fc.array(fc.tuple(place, place), { minLength: 1, maxLength: 30 }), (places) => {
        const x = Float32Array.from(places, ([px]) => px);
        const y = Float32Array.from(places, ([, py]) => py);
        const nodes = places.map((_, v) => v);
        const radius = new Float32Array(places.length);
        const inside = new Set<number>();
        for (const line of contoursAround(nodes, { x, y }, 15))
          for (const v of nodesWithin(pairsOf(line), { x, y, radius }, nodes)) inside.add(v);
        expect(inside.size).toBe(places.length);
      }),
    );
  });

  it('leaves a hole where a ring of places has none in its middle', () => {
    const turns = Array.from({ length: 40 }, (_, i) => (2 * Math.PI * i) / 40);
    const places = { x: turns.map((a) => 200 * Math.cos(a)), y: turns.map((a) => 200 * Math.sin(a)) };
    expect(contoursAround([...turns.keys()], places, 18)).toHaveLength(2);
  });
});
