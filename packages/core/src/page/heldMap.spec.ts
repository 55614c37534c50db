import { Condition, defaultMap, type MapDescription, type Shown } from '@pebble/contract';
import { makeGraph } from '../graph/graph';
import { captionPhrases } from '../map/description/caption';
import { shownPart } from '../map/description/shown';
import type { MapNetwork } from '../map/network/mapNetwork';
import { paintSvg } from '../map/paint/paintSvg';
import { buildScene } from '../map/scene/buildScene';
import { prepareMap, withNames, type PreparedMap } from '../map/scene/prepare';
import { PAPER } from '../map/style/palette';
import { basicMeasures } from '../measures/basics/basicMeasures';
import { Random } from '../random';
import type { HeldMap } from './heldMap';
import { holdMap } from './holdMap';
import { openHeld, partOfMap } from './openHeld';

const COUNT = 60;
const DAY = 86_400_000;

/** Sixty nodes in three parts, with messages on ten days. */
function example(): MapNetwork {
  const chance = new Random(4);
  const pairs = Array.from({ length: 200 }, () => {
    const source = chance.below(COUNT);
    return [source, (source + 3 * (1 + chance.below(6))) % COUNT] as const;
  });
  const days = pairs.map(() => chance.below(10));
  const tieOf = new Map<string, number>();
  const weight: number[] = [];
  for (const [a, b] of pairs) {
    const key = `${a} ${b}`;
    if (!tieOf.has(key)) tieOf.set(key, weight.push(0) - 1);
    weight[tieOf.get(key)!]++;
  }
  const ends = [...tieOf.keys()].map((key) => key.split(' ').map(Number));
  const graph = makeGraph(
    COUNT,
    ends.map(([a]) => a),
    ends.map(([, b]) => b),
    weight,
  );
  const rows = pairs.map(([a, b], i) => ({ edge: tieOf.get(`${a} ${b}`)!, day: days[i] * DAY }));
  rows.sort((p, q) => p.edge - q.edge || p.day - q.day);
  const { columns } = basicMeasures(graph, { resolution: 1, seed: 1, runs: 2 });
  return {
    nodeCount: COUNT,
    directed: true,
    nodes: {
      id: Uint32Array.from({ length: COUNT }, (_, v) => v + 1),
      handle: Array.from({ length: COUNT }, (_, v) => `secret_${v}x`),
      name: Array.from({ length: COUNT }, (_, v) => `Secret ${v}x`),
      messages: new Float64Array(COUNT).fill(1),
      role: Array.from({ length: COUNT }, (_, v) => ['shop', 'resident', 'club'][v % 3]),
      ...columns,
    },
    edges: { source: graph.source, target: graph.target, weight: graph.weight },
    dailyTieCounts: {
      edge: Uint32Array.from(rows, ({ edge }) => edge),
      day: Float64Array.from(rows, ({ day }) => day),
      messages: new Uint32Array(rows.length).fill(1),
    },
  };
}

const places = {
  x: Float32Array.from({ length: COUNT }, (_, v) => 40 + ((v * 37) % 400)),
  y: Float32Array.from({ length: COUNT }, (_, v) => 30 + ((v * 61) % 260)),
};
const network = { weave: null, columns: [] };
const ALL = { columns: ['role', 'outDegree'], days: true, counts: true };
const picture = (map: PreparedMap, x: Float32Array, y: Float32Array): string =>
  paintSvg(
    buildScene({
      map,
      x,
      y,
      view: { scale: 1, x: 0, y: 0 },
      size: { width: 520, height: 340 },
      theme: PAPER,
      focus: null,
    }),
    { width: 520, ink: PAPER.ink },
  );
/** As it comes out of a file. */
const throughJson = (held: HeldMap): HeldMap => JSON.parse(JSON.stringify(held)) as HeldMap;
const shop = Condition.parse({ what: 'values', column: 'role', values: ['shop'] });
const DESCRIPTIONS: Readonly<Record<string, MapDescription>> = {
  'as it is at first': defaultMap,
  'of some nodes alone': {
    ...defaultMap,
    show: { ...defaultMap.show, isolates: false, where: { joined: 'and', conditions: [shop] } },
  },
  'with the rest pale': {
    ...defaultMap,
    show: { ...defaultMap.show, rest: 'pale', where: { joined: 'and', conditions: [shop] } },
  },
  'in a period': {
    ...defaultMap,
    show: { ...defaultMap.show, isolates: false, period: { from: 2 * DAY, until: 6 * DAY } },
  },
  'with names by a condition, notes and an outline': {
    ...defaultMap,
    names: {
      ...defaultMap.names,
      where: { joined: 'or', conditions: [Condition.parse({ what: 'named', text: '_1' })] },
      placed: [{ node: 11, dx: 12, dy: 9 }],
    },
    colour: { ...defaultMap.colour, column: 'role' },
    notes: [{ text: 'see', at: { what: 'node', node: 7 }, dx: 20, dy: 20 }],
    regions: { ...defaultMap.regions, own: [{ title: 'Few', nodes: [1, 2, 3, 4] }] },
  },
};

describe('a map in a page', () => {
  it.each(Object.entries(DESCRIPTIONS))('is drawn as in the study: %s', (_, description) => {
    const map = prepareMap(example(), description);
    const opened = openHeld(throughJson(holdMap(map, network, places, ALL)));
    expect(picture(opened.map, opened.x, opened.y)).toBe(picture(map, places.x, places.y));
  });

  it('holds nothing of what is not shown, and no columns that nobody chose', () => {
    const map = prepareMap(example(), DESCRIPTIONS['of some nodes alone']);
    const names = Array.from({ length: COUNT }, (_, v) => `amber ${v}`);
    const held = holdMap(withNames(map, names), network, places, { columns: [], days: false, counts: false });
    const file = JSON.stringify(held);
    expect(file).not.toMatch(/secret/i);
    expect(held.nodes.every((v) => v % 3 === 0)).toBe(true);
    expect(held.labels).toEqual(held.nodes.map((v) => `amber ${v}`));
    expect(Object.keys(held.columns).sort()).toEqual(['betweenness', 'community', 'inDegree']);
    expect([held.days, Object.keys(held.tieColumns)]).toEqual([null, ['weight']]);
  });

  it('shows the part that a reader wants: the same nodes and ties as the study shows of it', () => {
    const whole = example();
    const opened = openHeld(throughJson(holdMap(prepareMap(whole, defaultMap), network, places, ALL)));
    const shows: Partial<Shown>[] = [
      { atLeast: 2, isolates: false },
      {
        where: {
          joined: 'and',
          conditions: [Condition.parse({ what: 'range', column: 'inDegree', from: 4 })],
        },
      },
      { period: { from: DAY, until: 4 * DAY }, isolates: false },
    ];
    for (const part of shows) {
      const show = { ...defaultMap.show, ...part };
      const expected = shownPart(whole, show);
      const got = partOfMap(opened.map, show);
      expect([...got.nodes]).toEqual([...expected.nodes]);
      expect([...got.edges]).toEqual([...expected.edges]);
      expect(got.radius).toEqual(opened.map.radius);
      const counted = got.groups.reduce((sum, { nodes }) => sum + nodes, 0);
      expect(counted).toBe(got.nodes.length);
    }
  });

  it('weighs ties by the messages of the period', () => {
    const whole = example();
    const opened = openHeld(throughJson(holdMap(prepareMap(whole, defaultMap), network, places, ALL)));
    const period = { from: 0, until: 5 * DAY };
    const part = partOfMap(opened.map, { ...defaultMap.show, period });
    const { edge, day } = whole.dailyTieCounts!;
    const expected = new Float64Array(whole.edges['source'].length);
    edge.forEach((e, i) => void (day[i] < period.until && expected[e]++));
    expect(part.network.edges['weight']).toEqual(expected);
  });

  it('of a period has the days of the period alone', () => {
    const opened = openHeld(
      throughJson(holdMap(prepareMap(example(), DESCRIPTIONS['in a period']), network, places, ALL)),
    );
    const { day } = opened.map.network.dailyTieCounts!;
    expect([Math.min(...day), Math.max(...day)]).toEqual([2 * DAY, 5 * DAY]);
    const part = partOfMap(opened.map, { ...defaultMap.show, period: { from: 2 * DAY, until: 3 * DAY } });
    const sum = (part.network.edges['weight'] as Float64Array).reduce((a, b) => a + b, 0);
    expect(sum).toBe(day.filter((one) => one === 2 * DAY).length);
  });

  it('is told by the caption that it had', () => {
    const map = prepareMap(example(), DESCRIPTIONS['of some nodes alone']);
    const phrases = captionPhrases({
      weave: null,
      directed: true,
      description: map.description,
      moved: 0,
      shown: { nodes: map.nodes.length, edges: map.edges.length },
      hidden: { nodes: map.hiddenNodes, edges: map.hiddenEdges },
    });
    const { nodes } = holdMap(map, network, places, ALL);
    expect(phrases[0].text).toContain(`${nodes.length} nodes`);
  });
});
