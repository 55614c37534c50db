import { defaultMap, type MapDescription } from '@pebble/contract';
import { buildScene } from '../../scene/buildScene';
import type { Focus } from '../../scene/sceneInput';
import { OTHER_COLOUR, PAPER, rampColour } from '../../style/palette';
import type { MapNetwork } from '../../network/mapNetwork';
import { prepareMap } from '../../scene/prepare';
import type { Scene } from '../../scene/scene';
import { tieNameOf } from './tieNames';

/** Nodes on a line, 100 apart, with the given ties. */
function network(
  ties: readonly (readonly [number, number, number?])[],
  nodes = 4,
  directed = true,
): MapNetwork {
  const zeros = new Uint32Array(nodes);
  return {
    nodeCount: nodes,
    nodes: {
      handle: Array.from({ length: nodes }, (_, v) => `n${v}`),
      community: zeros.map(() => 1),
      betweenness: new Float64Array(nodes),
      degree: zeros,
      ...(directed ? { inDegree: zeros } : {}),
    },
    edges: {
      source: Uint32Array.from(ties, ([a]) => a),
      target: Uint32Array.from(ties, ([, b]) => b),
      weight: Float64Array.from(ties, ([, , w]) => w ?? 1),
    },
  };
}

function draw(
  given: MapNetwork,
  {
    scale = 1,
    x = 0,
    focus = null,
    change = {},
  }: { scale?: number; x?: number; focus?: Focus | null; change?: Partial<MapDescription> } = {},
): Scene {
  const description: MapDescription = {
    ...defaultMap,
    size: { ...defaultMap.size, column: 'degree' },
    ...change,
  };
  const places = Float32Array.from({ length: given.nodeCount }, (_, v) => 50 + 100 * v);
  return buildScene({
    map: prepareMap(given, description),
    x: places,
    y: new Float32Array(given.nodeCount).fill(100),
    view: { scale, x, y: 0 },
    size: { width: 600, height: 300 },
    theme: PAPER,
    focus,
  });
}

const total = (batches: readonly { points: Float32Array }[], each: number): number =>
  batches.reduce((sum, { points }) => sum + points.length / each, 0);

describe('the strongest ties', () => {
  it('lie on top, whatever colour they have', () => {
    const ties: [number, number, number][] = [
      [0, 2, 20],
      [0, 3, 1],
      [1, 3, 5],
      [2, 0, 1],
      [3, 0, 20],
    ];
    const given = network(ties);
    const community = Uint32Array.of(1, 1, 2, 2);
    const { curves } = draw({ ...given, nodes: { ...given.nodes, community } });
    expect(new Set(curves.map(({ stroke }) => stroke)).size).toBe(2);
    const widths = curves.map(({ width }) => width);
    expect(widths.length).toBeGreaterThan(2);
    expect(widths).toEqual([...widths].sort((a, b) => a - b));
  });
});

describe('ties', () => {
  it('are curves when they are long, lines when they are short, and loops over their node', () => {
    const given = network([
      [0, 1],
      [1, 1],
    ]);
    const near = draw(given);
    expect(total(near.curves, 6)).toBe(3);
    expect(total(near.lines, 4)).toBe(0);
    const far = draw(given, { scale: 0.1 });
    expect(total(far.lines, 4)).toBe(1);
    expect(total(far.curves, 6)).toBe(2);
  });

  it('bend to the left of their way, so that the two directions lie apart', () => {
    const { curves } = draw(
      network([
        [0, 1],
        [1, 0],
      ]),
    );
    const controls = curves.flatMap(({ points }) =>
      Array.from({ length: points.length / 6 }, (_, i) => points[6 * i + 3]),
    );
    expect(controls.some((y) => y > 100)).toBe(true);
    expect(controls.some((y) => y < 100)).toBe(true);
  });

  it('get wider with their weight, in four steps', () => {
    const { curves } = draw(
      network([
        [0, 1, 1],
        [1, 2, 2],
        [2, 3, 5],
        [3, 0, 40],
      ]),
    );
    const widths = curves.map(({ width }) => width);
    expect(new Set(widths).size).toBe(4);
    expect(Math.max(...widths)).toBeLessThan(4);
  });

  it('have arrowheads only where they have a direction and can be seen', () => {
    const ties = [[0, 1] as const];
    expect(total(draw(network(ties)).triangles, 6)).toBe(1);
    expect(total(draw(network(ties, 4, false)).triangles, 6)).toBe(0);
    const without = { ties: { ...defaultMap.ties, arrows: false } };
    expect(total(draw(network(ties), { change: without }).triangles, 6)).toBe(0);
    expect(total(draw(network(ties), { scale: 0.15 }).triangles, 6)).toBe(0);
    const many = Array.from({ length: 600 }, (_, i) => [i % 4, (i + 1) % 4] as const);
    expect(total(draw(network(many)).triangles, 6)).toBe(0);
  });

  it('are left out when they are beside the picture', () => {
    expect(total(draw(network([[0, 1]]), { x: -5000 }).curves, 6)).toBe(0);
  });

  it('are drawn paler the more there are, and the picked ones last and strong', () => {
    const few = draw(network([[0, 1]])).curves[0];
    const many = draw(network(Array.from({ length: 2000 }, (_, i) => [i % 4, (i + 1) % 4] as const)))
      .curves[0];
    expect(many.alpha).toBeLessThan(few.alpha);
    const focus = { nodes: new Set([0]), around: new Set([1]), edges: new Set([0]) };
    const { curves } = draw(
      network([
        [0, 1],
        [2, 3],
      ]),
      { focus },
    );
    expect(curves.at(-1)).toMatchObject({ stroke: PAPER.mark, alpha: 0.85 });
    expect(curves[0].alpha).toBeLessThan(few.alpha);
  });
});

describe('what ties say beside whom they tie', () => {
  const change = (ties: Partial<MapDescription['ties']>): Partial<MapDescription> => ({
    ties: { ...defaultMap.ties, arrows: false, ...ties },
  });
  const withKinds = (given: MapNetwork, kinds: Record<string, readonly number[]>): MapNetwork => ({
    ...given,
    edges: {
      ...given.edges,
      ...Object.fromEntries(Object.entries(kinds).map(([kind, counts]) => [kind, Float64Array.from(counts)])),
    },
  });
  const three = withKinds(
    network([
      [0, 1, 3],
      [1, 2, 3],
      [2, 3, 12],
    ]),
    { replies: [2, 0, 6], mentions: [1, 3, 6] },
  );

  it('of which kind they are: that of most messages, said by the legend', () => {
    const { curves, legend } = draw(three, { change: change({ colour: 'by kind' }) });
    expect(new Set(curves.map(({ stroke }) => stroke)).size).toBe(2);
    const words = legend.texts.map(({ text }) => text);
    expect(words).toContain('Colour of ties: most messages');
    expect(words).toEqual(expect.arrayContaining([expect.stringMatching(/replies.* 2$/), expect.stringMatching(/mentions.* 1$/)])); // prettier-ignore
  });

  it('a text column of a file can be their kind; without kinds they are grey', () => {
    const kept = network([[0, 1], [1, 2]]); // prettier-ignore
    const filed = { ...kept, edges: { ...kept.edges, role: ['pays', ''] } };
    const strokes = draw(filed, { change: change({ colour: 'by kind' }) }).curves.map(({ stroke }) => stroke);
    expect(new Set(strokes).size).toBe(2);
    expect(draw(kept, { change: change({ colour: 'by kind' }) }).curves[0].stroke).toBe(PAPER.tie);
  });

  it('by a number, from the least to the highest of those that are shown', () => {
    const share = { ...three, edges: { ...three.edges, share: Float64Array.of(0, 0.25, NaN) } };
    const by = (ramp: 'thread' | 'two-sided', column = 'share') =>
      draw(share, { change: change({ colour: 'by number', number: { column, ramp } }) });
    const { curves, legend } = by('thread');
    // Few that have much are seen among many that have none.
    expect(curves.at(-1)).toMatchObject({ stroke: rampColour(1, 'thread') });
    expect(curves.at(-1)!.alpha).toBeGreaterThan(1.5 * curves[0].alpha);
    const strokes = curves.map(({ stroke }) => stroke);
    expect(strokes).toHaveLength(3);
    expect(new Set(strokes)).toEqual(
      new Set([rampColour(0, 'thread'), rampColour(1, 'thread'), OTHER_COLOUR]),
    );
    const words = legend.texts.map(({ text }) => text);
    expect(words).toEqual(expect.arrayContaining(['Colour of ties: share', '0 to 0.250']));
    // Two-sided ramps have their middle at 0.
    const sides = by('two-sided').curves.map(({ stroke }) => stroke);
    expect(sides).toContain(rampColour(1, 'two-sided'));
    expect(sides).toContain(rampColour(16 / 31, 'two-sided'));
    const below = { ...three, edges: { ...three.edges, share: Float64Array.of(-0.25, 0, 0.2) } };
    const far = draw(below, {
      change: change({ colour: 'by number', number: { column: 'share', ramp: 'two-sided' } }),
    }).curves;
    expect(far.at(-1)!.stroke).toBe(rampColour(0, 'two-sided'));
    // Without the number they are grey, and the legend does not speak of it.
    const none = by('thread', 'gone');
    expect(new Set(none.curves.map(({ stroke }) => stroke))).toEqual(new Set([PAPER.tie]));
    expect(none.legend.texts.map(({ text }) => text).join()).not.toContain('Colour of ties');
  });

  it('paler the weaker, also where all have one width', () => {
    const { curves, legend } = draw(three, { change: change({ opacity: 'by weight', width: 'even' }) });
    const [weak, strong] = [...curves].sort((a, b) => a.alpha - b.alpha);
    expect(strong.alpha).toBeGreaterThan(1.5 * weak.alpha);
    expect(strong.width).toBe(weak.width);
    expect(legend.texts.map(({ text }) => text)).toContain('Strength of ties: weight');
  });

  it('only those of what is selected', () => {
    const only = change({ shown: 'of selection', names: { column: 'weight', count: 9 } });
    const none = draw(three, { change: only });
    expect(total(none.curves, 6)).toBe(0);
    expect(none.texts.map(({ text }) => text)).not.toContain('12');
    const focus = { nodes: new Set([2]), around: new Set([3]), edges: new Set([2]) };
    const one = draw(three, { change: only, focus });
    expect(total(one.curves, 6)).toBe(1);
    expect(one.texts.map(({ text }) => text)).toContain('12');
  });

  it('the two directions beside each other where they are straight', () => {
    const pair = network([[0, 1], [1, 0], [2, 3]]); // prettier-ignore
    const ys = (apart: boolean): number[] =>
      draw(pair, { change: change({ form: 'straight', apart }) }).lines.flatMap(({ points }) =>
        Array.from({ length: points.length / 4 }, (_, i) => points[4 * i + 1]),
      );
    expect(ys(false)).toEqual([100, 100, 100]);
    const [there, back, alone] = ys(true);
    expect(there).toBeLessThan(99);
    expect(back).toBeGreaterThan(101);
    expect(alone).toBe(100);
  });

  it('names at the middle of the strongest, none over another', () => {
    const named = (column: string, count: number): string[] => {
      const { texts } = draw(three, { change: change({ form: 'straight', names: { column, count } }) });
      return texts.filter(({ size }) => size < 11).map(({ text }) => text);
    };
    expect(named('weight', 1)).toEqual(['12']);
    // The longer ones would cover nodes.
    expect(named('kinds', 3)).toEqual(['3 mentions']);
    const map = prepareMap(three, { ...defaultMap, size: { ...defaultMap.size, column: 'degree' } });
    expect([0, 1, 2].map((e) => tieNameOf(map, 'kinds', e))).toEqual(['2 replies, 1 mention', '3 mentions', '6 replies, 6 mentions']); // prettier-ignore
    const twice = network([[0, 1, 5], [1, 0, 4]]); // prettier-ignore
    const over = draw(twice, { change: change({ form: 'straight', names: { column: 'weight', count: 5 } }) });
    expect(over.texts.filter(({ size }) => size < 11).map(({ text }) => text)).toEqual(['5']);
    expect(named('nothing of this name', 3)).toEqual([]);
  });
});
