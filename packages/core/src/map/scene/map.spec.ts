import { AccountWeave, defaultMap, Weave, type MapDescription } from '@pebble/contract';
import { makeGraph } from '../../graph/graph';
import { basicMeasures } from '../../measures/basics/basicMeasures';
import type { TableColumns } from '../../network/tables';
import { buildScene, toScreen } from './buildScene';
import { captionPhrases, captionText } from '../description/caption';
import { placeNames, type NameWish } from '../marks/names/labels';
import { formatValue } from '../../words/formatValue';
import { paintCanvas, type Pen } from '../paint/paintCanvas';
import { figureSize } from '../paint/figureParts';
import { paintSvg } from '../paint/paintSvg';
import { PAPER } from '../style/palette';
import { Picker } from '../interaction/pick';
import type { MapNetwork } from '../network/mapNetwork';
import { prepareMap } from './prepare';
import { radiusFor } from '../marks/nodes/sizes';
import { clipText, textWidth, wrapText } from '../style/textWidth';
import { fitView } from './view';

/** Two triangles joined by one tie, a pair, and one isolate. */
function example(): MapNetwork {
  const source = [0, 1, 2, 3, 4, 5, 2, 6];
  const target = [1, 2, 0, 4, 5, 3, 3, 7];
  const weight = [1, 1, 3, 1, 1, 1, 2, 1];
  const graph = makeGraph(9, source, target, weight);
  const { columns } = basicMeasures(graph, { resolution: 1, seed: 1, runs: 3 });
  const nodes: TableColumns = {
    handle: [...'abcdefghi'].map((c) => `<${c}>`),
    name: [...'abcdefghi'],
    messages: new Float64Array(9).fill(1),
    ...columns,
  };
  return { nodeCount: 9, nodes, edges: { source: graph.source, target: graph.target, weight: graph.weight } };
}

const x = Float32Array.of(100, 150, 200, 300, 350, 320, 50, 90, 400);
const y = Float32Array.of(100, 60, 110, 110, 60, 160, 200, 210, 220);
const size = { width: 500, height: 300 };
const view = { scale: 1, x: 0, y: 0 };
const with_ = (change: Partial<MapDescription>): MapDescription => ({ ...defaultMap, ...change });
const scene = (description = defaultMap, focus: Parameters<typeof buildScene>[0]['focus'] = null) =>
  buildScene({ map: prepareMap(example(), description), x, y, view, size, theme: PAPER, focus });

describe('prepareMap', () => {
  it('names nodes by what sizes do as long as the column of names is not there', () => {
    const { nodes, ...rest } = example();
    const { betweenness: _later, ...others } = nodes;
    const map = prepareMap({ ...rest, nodes: others }, defaultMap);
    const sizes = Array.from(map.namesOrder, (v) => Number(others['inDegree'][v]));
    expect(sizes).toEqual([...sizes].sort((a, b) => b - a));
  });

  it('has the direction of ties from the network, also before it was measured', () => {
    const directed = (network: MapNetwork): boolean => prepareMap(network, defaultMap).directed;
    expect(directed(example())).toBe(true);
    expect(directed({ ...example(), directed: false })).toBe(false);
  });

  it('shows only what the description asks for', () => {
    const shown = (show: Partial<MapDescription['show']>) =>
      prepareMap(example(), with_({ show: { ...defaultMap.show, ...show } }));
    expect(shown({}).nodes).toHaveLength(9);
    expect(shown({ isolates: false }).nodes).toHaveLength(8);
    expect([...shown({ largestComponent: true }).nodes]).toEqual([0, 1, 2, 3, 4, 5]);
    expect(shown({ atLeast: 2 }).edges).toHaveLength(2);
    expect(shown({ communities: [1] }).nodes.length).toBeLessThan(9);
    expect(shown({ largestComponent: true }).hiddenNodes).toBe(3);
  });

  it('gives the least value the smallest radius, never 0, and grows as asked', () => {
    const range = [0, 100] as const;
    const radius = (value: number, growth: 'linear' | 'square root' | 'logarithm'): number =>
      radiusFor(value, range, { column: '', growth, smallest: 3, largest: 15, cut: 0 });
    expect(radius(0, 'linear')).toBe(3);
    expect(radius(100, 'logarithm')).toBe(15);
    expect(radius(25, 'square root')).toBe(9);
    expect(radius(50, 'linear')).toBe(9);
    expect(
      radiusFor(5, [5, 5], { column: '', growth: 'square root', smallest: 3, largest: 15, cut: 0 }),
    ).toBe(7);
  });

  it('keeps groups of one in the last colour', () => {
    const map = prepareMap(example(), defaultMap);
    expect(map.colours[map.colour[8]]).toBe(map.colours.at(-1));
  });

  it('gives groups of one a colour where all are of one, as in a network of groups', () => {
    const network = example();
    const community = Uint32Array.from({ length: network.nodeCount }, (_, v) => v + 1);
    const map = prepareMap({ ...network, nodes: { ...network.nodes, community } }, defaultMap);
    expect(new Set(map.colour.subarray(0, 8)).size).toBe(8);
  });
});

describe('buildScene', () => {
  it('draws every node and every tie once', () => {
    const { discs, curves } = scene();
    expect(discs.reduce((sum, batch) => sum + batch.discs.length / 3, 0)).toBe(9);
    expect(curves.reduce((sum, batch) => sum + batch.points.length / 6, 0)).toBe(8);
  });

  it('fades everything but the focus', () => {
    const { discs, rings } = scene(defaultMap, {
      nodes: new Set([2]),
      around: new Set([0, 1, 3]),
      edges: new Set([1, 2, 6]),
    });
    const clear = discs
      .filter(({ alpha }) => alpha > 0.5)
      .reduce((sum, batch) => sum + batch.discs.length / 3, 0);
    expect(clear).toBe(4);
    expect(rings).toHaveLength(1);
  });

  it('paints the same marks on canvas and in SVG', () => {
    const calls: Record<string, number> = {};
    const pen = new Proxy(
      {},
      {
        get: (_, name) => () => void (calls[String(name)] = (calls[String(name)] ?? 0) + 1),
        set: () => true,
      },
    ) as unknown as Pen;
    const picture = scene();
    paintCanvas(pen, picture);
    const svg = paintSvg(picture);
    expect(svg.match(/<circle/g)).toHaveLength(calls['arc']);
    expect(svg.match(/<text /g)).toHaveLength(calls['fillText']);
    expect((svg.match(/Q/g) ?? []).length).toBe(calls['quadraticCurveTo']);
  });

  it('escapes names in SVG, and puts the caption below', () => {
    const svg = paintSvg(scene(), { caption: 'A & B <c>', width: 1000 });
    expect(svg).toContain('&lt;a&gt;');
    expect(svg).not.toContain('<a>');
    expect(svg).toContain('A &amp; B &lt;c&gt;');
    expect(figureSize(scene(), { caption: 'A', width: 1000 }).height).toBeGreaterThan(600);
  });
});

describe('placeNames', () => {
  it('covers no name with another', () => {
    const wishes: NameWish[] = Array.from({ length: 40 }, (_, node) => ({
      node,
      text: [`name ${node}`],
      x: 100 + (node % 8) * 30,
      y: 80 + Math.floor(node / 8) * 14,
      radius: 3,
      size: 12,
      face: 'plain',
      always: false,
      put: null,
    }));
    const discs = {
      x: wishes.map((w) => w.x),
      y: wishes.map((w) => w.y),
      radius: wishes.map((w) => w.radius),
    };
    const placed = placeNames(wishes, discs, { width: 500, height: 300 });
    expect(placed.length).toBeGreaterThan(8);
    placed.forEach((a, i) =>
      placed.slice(0, i).forEach((b) => {
        const apart =
          a.left + textWidth(a.text[0], 12, 'plain') <= b.left ||
          b.left + textWidth(b.text[0], 12, 'plain') <= a.left ||
          Math.abs(a.base - b.base) >= 12;
        expect(apart).toBe(true);
      }),
    );
  });
});

describe('Picker', () => {
  it('finds nodes before ties, and nothing on empty ground', () => {
    const map = prepareMap(example(), defaultMap);
    const picker = new Picker(map, toScreen({ map, x, y, view }));
    expect(picker.nodeAt(100, 100)).toBe(0);
    expect(picker.nodeAt(250, 250)).toBeNull();
    const edge = picker.edgeAt(250, 104.5);
    expect(edge).toBe(6);
    expect(picker.edgeAt(250, 250)).toBeNull();
  });
});

describe('the caption', () => {
  const input = {
    weave: AccountWeave.parse({
      what: 'accounts',
      kinds: ['reply', 'mention'],
      from: Date.UTC(2026, 2, 1),
      until: Date.UTC(2026, 4, 1),
      atLeast: 2,
    }),
    description: defaultMap,
    directed: true,
    moved: 0,
    shown: { nodes: 412, edges: 1038 },
    hidden: { nodes: 0, edges: 0 },
  };

  it('says what the map shows', () => {
    expect(captionText(captionPhrases(input))).toBe(
      '412 accounts tied when one replies to or mentions another at least twice, 1 March to 30 April 2026 (UTC). Size: in-degree. ' +
        'Colour: community. Ties: bent. Names: the 25 that bridge most. Arranged by attraction.',
    );
  });

  it('says what a network from a file is made of', () => {
    const text = captionText(captionPhrases({ ...input, weave: null, directed: false }));
    expect(text).toMatch(/^412 nodes and 1,038 undirected ties\. Size: in-degree\./);
    const strong = { ...defaultMap, show: { ...defaultMap.show, atLeast: 3 } };
    expect(captionText(captionPhrases({ ...input, weave: null, description: strong }))).toContain(
      '1,038 ties of weight 3 or more',
    );
  });

  it('says the weight of ties beside what was asked when they were woven, where weights are no counts', () => {
    const show = { ...defaultMap.show, atLeast: 0.13 };
    const weave = Weave.parse({ what: 'shared', things: 'hashtag', scale: 'newman', atLeast: 2 });
    const text = (given: Weave): string =>
      captionText(captionPhrases({ ...input, weave: given, description: { ...defaultMap, show } }));
    expect(text(weave)).toContain('at least 2 of them, of weight 0.13 or more');
    const all = captionPhrases({ ...input, weave, description: defaultMap });
    expect(captionText(all)).not.toContain('weight');
    const file = captionPhrases({ ...input, weave: null, description: { ...defaultMap, show } });
    expect(captionText(file)).toContain('ties of weight 0.13 or more');
  });

  it('says what is left out and what was moved', () => {
    const text = captionText(
      captionPhrases({
        ...input,
        moved: 3,
        hidden: { nodes: 9, edges: 1 },
        description: with_({ show: { ...defaultMap.show, largestComponent: true, atLeast: 3 } }),
      }),
    );
    expect(text).toContain('412 accounts of the largest component (9 not shown)');
    expect(text).toContain('at least 3 times');
    expect(text).toContain('3 moved by hand');
  });
});

describe('texts', () => {
  it('are measured, wrapped and clipped', () => {
    expect(textWidth('WWW', 10, 'plain')).toBeGreaterThan(textWidth('iii', 10, 'plain'));
    expect(textWidth('é', 10, 'plain')).toBe(textWidth('e', 10, 'plain'));
    expect(wrapText('one two three four', 10, 'plain', 45).length).toBeGreaterThan(1);
    expect(clipText('a very long name indeed', 10, 'plain', 50)).toMatch(/…$/);
    expect([0.0625, 12.34, 1234, 250.4, 0.00001, NaN].map(formatValue)).toEqual([
      '0.063',
      '12.3',
      '1,234',
      '250',
      '1.0e-5',
      'none',
    ]);
  });

  it('fit into the picture', () => {
    const fitted = fitView(x, y, new Float32Array(9).fill(5), [0, 1, 2, 3, 4, 5, 6, 7, 8], size, {
      left: 10,
      right: 10,
      top: 10,
      bottom: 10,
    });
    expect(50 * fitted.scale + fitted.x).toBeGreaterThan(10);
    expect(400 * fitted.scale + fitted.x).toBeLessThan(490);
  });
});
