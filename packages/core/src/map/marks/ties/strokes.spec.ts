import { defaultMap, type Stroke } from '@pebble/contract';
import { buildScene } from '../../scene/buildScene';
import { nodesWithin } from '../../interaction/choosing';
import { PAPER } from '../../style/palette';
import { prepareMap } from '../../scene/prepare';
import { linesRoundStroke, nodesOfStroke, strokeOf } from './strokes';

/** Nodes on a line, 100 apart. */
const screen = (move = 0) => ({
  x: Float32Array.of(100, 200, 300, 400 + move),
  y: Float32Array.of(100, 100, 100, 100),
  radius: new Float32Array(4).fill(5),
});
const all = Uint32Array.of(0, 1, 2, 3);
const across = Array.from({ length: 61 }, (_, i) => [100 + 5 * i, 104] as const);

describe('a line drawn by hand', () => {
  const stroke = strokeOf(across, screen(), all, 34, 1);

  it('is kept by the nodes near which it runs', () => {
    expect(stroke.width).toBe(34);
    expect(stroke.points.length).toBeLessThan(across.length);
    expect(new Set(stroke.points.map(({ near }) => near))).toEqual(new Set([0, 1, 2, 3]));
    expect(stroke.points[0]).toEqual({ near: 0, dx: 0, dy: 4 });
  });

  it('is drawn as wide as it was, with the nodes under it inside', () => {
    const [line] = linesRoundStroke(stroke, screen(), 1);
    const [xs, ys] = [0, 1].map((k) => Array.from(line).filter((_, i) => i % 2 === k));
    expect(Math.max(...ys) - Math.min(...ys)).toBeGreaterThan(28);
    expect(Math.max(...ys) - Math.min(...ys)).toBeLessThan(42);
    expect(Math.min(...xs)).toBeLessThan(95);
    const pairs = xs.map((x, i) => [x, ys[i]] as const);
    expect(nodesWithin(pairs, screen(), all)).toEqual([0, 1, 2, 3]);
  });

  it('goes with its nodes, grows with the map, and leaves out hidden ones', () => {
    const right = (lines: readonly Float32Array[]): number =>
      Math.max(...lines.flatMap((line) => Array.from(line).filter((_, i) => i % 2 === 0)));
    const before = right(linesRoundStroke(stroke, screen(), 1));
    expect(right(linesRoundStroke(stroke, screen(80), 1))).toBeCloseTo(before + 80, -1);
    const hidden = { ...screen(), radius: Float32Array.of(5, 5, 5, 0) };
    expect(right(linesRoundStroke(stroke, hidden, 1))).toBeLessThan(before - 40);
    expect(linesRoundStroke(stroke, { ...screen(), radius: new Float32Array(4) }, 1)).toEqual([]);
    const zoomed = strokeOf(across, screen(), all, 34, 2);
    expect(zoomed.width).toBe(17);
  });

  it('gives the nodes on it, and those round which it runs', () => {
    expect(nodesOfStroke(stroke, screen(), all)).toEqual([0, 1, 2, 3]);
    expect(nodesOfStroke(stroke, screen(), Uint32Array.of(1, 2))).toEqual([1, 2]);
    const round = Array.from({ length: 73 }, (_, i) => {
      const angle = (i * Math.PI) / 36;
      return [250 + 90 * Math.cos(angle), 100 + 60 * Math.sin(angle)] as const;
    });
    expect(nodesOfStroke(strokeOf(round, screen(), all, 12, 1), screen(), all)).toEqual([1, 2]);
  });

  it('keeps at most 400 points of a very long one', () => {
    const long = Array.from({ length: 5000 }, (_, i) => [7 * i, 0] as const);
    expect(strokeOf(long, screen(), all, 34, 1).points.length).toBeLessThanOrEqual(400);
  });

  it('stands on the map with its title, in the colour of most nodes under it, and in the legend', () => {
    const titled: Stroke = { ...stroke, title: 'The quay' };
    const { x, y } = screen();
    const network = {
      nodeCount: 4,
      nodes: {
        handle: ['a', 'b', 'c', 'd'],
        community: Uint32Array.of(2, 1, 1, 1),
        inDegree: Uint32Array.of(1, 1, 1, 1),
        betweenness: new Float64Array(4),
      },
      edges: { source: new Uint32Array(0), target: new Uint32Array(0), weight: new Float64Array(0) },
    };
    const description = { ...defaultMap, regions: { ...defaultMap.regions, strokes: [titled] } };
    const map = prepareMap(network, description);
    const view = { scale: 1, x: 0, y: 100 };
    const scene = buildScene({
      map,
      x,
      y,
      view,
      size: { width: 600, height: 400 },
      theme: PAPER,
      focus: null,
    });
    expect(scene.regions).toHaveLength(1);
    expect(scene.regions[0].fill).toBe(map.colours[map.colour[1]]);
    expect(scene.texts.map(({ text }) => text)).toContain('The quay');
    expect(scene.legend.texts.map(({ text }) => text)).toContain('The quay');
  });
});
