import { defaultMap, type MapDescription } from '@pebble/contract';
import { captionPhrases, captionText } from '../description/caption';
import { buildScene } from './buildScene';
import { PAPER } from '../style/palette';
import { paintSvg } from '../paint/paintSvg';
import { prepareMap } from './prepare';
import { fitView } from './view';
import type { MapNetwork } from '../network/mapNetwork';

interface Odd {
  readonly nodes: number;
  readonly ties?: readonly (readonly [number, number, number?])[];
  readonly name?: (v: number) => string;
  readonly x?: (v: number) => number;
  readonly y?: (v: number) => number;
  readonly group?: (v: number) => number;
  readonly size?: (v: number) => number;
  readonly change?: Partial<MapDescription>;
}

/** The picture of an odd network, as an SVG. */
function picture({ nodes: n, ties = [], change = {}, ...of }: Odd) {
  const numbers = (f: (v: number) => number): Float64Array =>
    Float64Array.from({ length: n }, (_, v) => f(v));
  const network: MapNetwork = {
    nodeCount: n,
    nodes: {
      handle: Array.from({ length: n }, (_, v) => of.name?.(v) ?? `n${v}`),
      name: Array.from({ length: n }, () => ''),
      community: numbers(of.group ?? (() => 1)),
      inDegree: numbers(of.size ?? ((v) => v)),
      betweenness: numbers(() => 0),
    },
    edges: {
      source: Uint32Array.from(ties, ([a]) => a),
      target: Uint32Array.from(ties, ([, b]) => b),
      weight: Float64Array.from(ties, ([, , weight = 1]) => weight),
    },
  };
  const x = Float32Array.from({ length: n }, (_, v) => of.x?.(v) ?? 40 * v);
  const y = Float32Array.from({ length: n }, (_, v) => of.y?.(v) ?? 30 * (v % 3));
  const map = prepareMap(network, { ...defaultMap, ...change });
  const size = { width: 900, height: 600 };
  const view = fitView(x, y, map.radius, map.nodes, size);
  const scene = buildScene({ map, x, y, view, size, theme: PAPER, focus: null });
  const shown = { nodes: map.nodes.length, edges: map.edges.length };
  const caption = captionText(
    captionPhrases({ weave: null, directed: true, description: map.description, moved: 0, shown, hidden: { nodes: 0, edges: 0 } }), // prettier-ignore
  );
  return { map, scene, svg: paintSvg(scene, { caption }), caption };
}

describe('a map of', () => {
  it.each([0, 1, 2])('%i nodes is a picture with a caption', (nodes) => {
    const { svg, caption } = picture({ nodes, ties: nodes === 2 ? [[0, 1]] : [] });
    expect(svg).not.toMatch(/NaN|Infinity|undefined/);
    expect(caption).toContain(nodes === 1 ? '1 node ' : `${nodes} nodes`);
  });

  it('nodes that all lie in one place', () => {
    const { svg } = picture({ nodes: 9, ties: [[0, 1], [1, 2]], x: () => 5, y: () => 5, change: { regions: { ...defaultMap.regions, column: 'community', least: 2 } } }); // prettier-ignore
    expect(svg).not.toMatch(/NaN|Infinity/);
  });

  it('200 categories has colours for the largest and one for the rest', () => {
    const { map, scene } = picture({ nodes: 400, group: (v) => 1 + (v % 200) });
    expect(map.groups).toHaveLength(9);
    expect(scene.legend.texts.some(({ text }) => text.startsWith('all others'))).toBe(true);
  });

  it('a constant column has nodes of one size, and one in the legend', () => {
    const { map, scene } = picture({ nodes: 5, size: () => 7 });
    expect(new Set(map.radius).size).toBe(1);
    expect(scene.legend.rings).toHaveLength(1);
  });

  it('values that are missing has the smallest nodes for them', () => {
    const { map, svg } = picture({ nodes: 4, size: (v) => (v === 2 ? NaN : v) });
    expect(map.radius[2]).toBe(defaultMap.size.smallest);
    expect(svg).not.toContain('NaN');
  });

  it('weights from one to a thousand million has no tie thicker than a node', () => {
    const { scene } = picture({ nodes: 3, ties: [[0, 1, 1], [1, 2, 1e9]] }); // prettier-ignore
    for (const { width } of [...scene.lines, ...scene.curves])
      expect(width).toBeLessThanOrEqual(2 * defaultMap.size.smallest);
  });

  it('names of 300 characters, from right to left, empty, and the same', () => {
    const names = ['x'.repeat(300), 'פנסי הרחוב', '', 'twin', 'twin'];
    const { scene, svg } = picture({ nodes: 5, name: (v) => names[v], ties: [[0, 1]] });
    const texts = scene.texts.map(({ text }) => text);
    expect(texts.filter((text) => text === 'twin')).toHaveLength(2);
    expect(texts.some((text) => text.endsWith('…') && text.length < 100)).toBe(true);
    expect(svg).toContain('פנסי הרחוב');
  });

  it('names that are markup are texts', () => {
    const { svg } = picture({ nodes: 2, name: () => '<script>alert(1)</script>' });
    expect(svg).not.toContain('<script>');
    expect(svg).toContain('&lt;script&gt;');
  });

  it('self-ties and ties both ways', () => {
    const { scene } = picture({ nodes: 2, ties: [[0, 0], [0, 1], [1, 0]] }); // prettier-ignore
    // A loop is two curves, and each way has one of its own.
    expect(scene.curves.reduce((sum, { points }) => sum + points.length / 6, 0)).toBe(4);
  });
});
