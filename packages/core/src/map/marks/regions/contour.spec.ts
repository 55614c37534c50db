import fc from 'fast-check';
import { contours } from 'd3-contour';
import { contoursAround, linesAt } from './contour';
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

describe('linesAt', () => {
  it('finds the lines that d3-contour finds', () => {
    const [columns, rows] = [14, 11];
    const inner = fc.array(fc.integer({ min: 0, max: 9 }), { minLength: 108, maxLength: 108 });
    fc.assert(
      fc.property(inner, (values) => {
        const value = new Float32Array(columns * rows);
        values.forEach((one, i) => (value[(1 + Math.floor(i / 12)) * columns + 1 + (i % 12)] = one));
        const ours = linesAt({ left: 0, top: 0, cell: 1, columns, rows, value }, 4.5).map(pairsOf);
        const theirs = contours()
          .size([columns, rows])
          .contour([...value], 4.5)
          // It sets a value at the middle of its cell, and ends each line where it began.
          .coordinates.flat()
          .map((line) => line.slice(1).map(([x, y]) => [x - 0.5, y - 0.5]));
        const sorted = (lines: number[][][]): string[] =>
          lines
            .map((line) =>
              line
                .map(([x, y]) => `${x.toFixed(4)} ${y.toFixed(4)}`)
                .sort()
                .join(' '),
            )
            .sort();
        expect(sorted(ours)).toEqual(sorted(theirs));
      }),
    );
  });
});
