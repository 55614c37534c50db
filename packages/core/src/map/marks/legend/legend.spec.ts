import { defaultMap } from '@pebble/contract';
import { formatValue } from '../../../words/formatValue';
import { buildLegend } from './legend';
import { PAPER } from '../../style/palette';
import type { MapNetwork } from '../../network/mapNetwork';
import { prepareMap } from '../../scene/prepare';
import { textWidth } from '../../style/textWidth';

const sizes = [0, 3, 8, 120];
const network: MapNetwork = {
  nodeCount: 4,
  nodes: {
    handle: ['ann', 'ben', 'a_very_long_handle_that_does_not_fit_into_the_legend', 'dee'],
    community: Uint32Array.of(1, 1, 2, 2),
    inDegree: Float64Array.from(sizes),
    betweenness: Float64Array.of(0, 0.25, 0.5, 1),
    degree: Float64Array.from(sizes),
  },
  edges: { source: new Uint32Array(0), target: new Uint32Array(0), weight: new Float64Array(0) },
};
const legend = (colour = 'community', scale = 1) =>
  buildLegend(
    prepareMap(network, { ...defaultMap, colour: { ...defaultMap.colour, column: colour } }),
    PAPER,
    { width: 800, height: 600 },
    scale,
  );
const words = (marks: ReturnType<typeof legend>): string[] => marks.texts.map(({ text }) => text);

describe('the legend', () => {
  it('names each colour by its group’s leading account, with the number of accounts', () => {
    const marks = legend();
    expect(words(marks)[0]).toBe('Colour: community');
    expect(words(marks)[1]).toBe('1 · round ben  2');
    expect(words(marks)[2]).toBe('2 · round dee  2');
    expect(marks.spots.map(({ part, group }) => part ?? group)).toEqual(['colour', 1, 2, 'size']);
    expect(marks.spots.map(({ key }) => key)).toEqual([null, '1', '2', null]);
  });

  it('shows least, middling and highest size as rings that grow', () => {
    const { rings, texts } = legend();
    expect(texts.slice(-3).map(({ text }) => text)).toEqual(['0', '30', '120']);
    expect(rings[0].radius).toBeLessThan(rings[1].radius);
    expect(rings[1].radius).toBeLessThan(rings[2].radius);
  });

  it('shows a ramp with its two ends when the colour is a number', () => {
    const marks = legend('betweenness');
    expect(words(marks)).toContain('0 to 1');
    expect(marks.spots.flatMap(({ group, key }) => (key === null ? [] : [[group, key]]))).toEqual([]);
    expect(marks.discs).toHaveLength(8);
  });

  it('puts the last groups in one line where the picture is low', () => {
    const map = prepareMap(network, { ...defaultMap, colour: { ...defaultMap.colour, column: 'handle' } });
    const { texts } = buildLegend(map, PAPER, { width: 400, height: 150 }, 1);
    expect(texts.map(({ text }) => text)).toContain('and 3 more');
    expect(Math.min(...texts.map(({ y }) => y))).toBeGreaterThan(12);
  });

  it('explains widths of ties and outlines where there are some', () => {
    const tied: MapNetwork = {
      ...network,
      edges: {
        source: Uint32Array.of(0, 1, 2),
        target: Uint32Array.of(1, 2, 3),
        weight: Float64Array.of(1, 12, 1),
      },
    };
    const own = [{ title: 'The quay', nodes: [0, 1] }];
    const regions = { ...defaultMap.regions, column: 'community', least: 2, own };
    const marks = buildLegend(
      prepareMap(tied, { ...defaultMap, regions }),
      PAPER,
      { width: 800, height: 600 },
      1,
    );
    const all = words(marks);
    expect(all.slice(all.indexOf('Width of ties: weight'))).toEqual([
      'Width of ties: weight',
      '1',
      '10 and more',
      'Outlines: community',
      'groups of 2 or more nodes',
      'The quay',
    ]);
    expect(marks.lines[0].width).toBeLessThan(marks.lines[1].width);
    expect(marks.regions).toHaveLength(2);
  });

  it('stands in another corner, without some parts and in words of one’s own', () => {
    const changed = {
      corner: 'upper right' as const,
      without: ['size' as const],
      headings: { colour: 'Who talks' },
      names: { '2': 'Night owls' },
    };
    const map = prepareMap(network, { ...defaultMap, legend: changed });
    const marks = buildLegend(map, PAPER, { width: 800, height: 600 }, 1);
    expect(words(marks)).toEqual(['Who talks', '1 · round ben  2', 'Night owls  2']);
    expect(marks.texts[0].x).toBeGreaterThan(500);
    expect(marks.texts[0].y).toBeLessThan(60);
  });

  it('breaks long names into lines beside their sign, with the number behind the last, and cuts none that fits three', () => {
    const long = 'the northern harbour and all the quays below the old town';
    const other = 'harbour_post_of_the_north_and_the_south';
    const names = { '1': long, '2': other };
    const described = { ...defaultMap, legend: { ...defaultMap.legend, names } };
    const marks = buildLegend(prepareMap(network, described), PAPER, { width: 800, height: 600 }, 1);
    const lines = marks.texts.filter(({ face }) => face === 'plain').map(({ text }) => text);
    const [first, ...rest] = lines.slice(
      0,
      lines.findIndex((text) => text.startsWith('harbour')),
    );
    expect([first, ...rest].join(' ')).toBe(`${long}  2`);
    expect(rest.length).toBeGreaterThan(0);
    // A name without spaces is broken behind its marks.
    const of = lines.slice(1 + rest.length, lines.indexOf('0'));
    expect(of.join('')).toBe(`${other}  2`);
    expect(of[0]).toMatch(/_$/);
    for (const { text, size } of marks.texts) expect(textWidth(text, size, 'plain')).toBeLessThan(190);
    // The next entry, and what can be pressed, begin below.
    const [colour, one, two] = marks.spots;
    expect(one.y).toBe(colour.y + colour.height);
    expect(two.y).toBe(one.y + one.height);
  });

  it('takes the title of an outline as the name of its group', () => {
    const regions = { ...defaultMap.regions, column: 'community', titles: { '1': 'The quay' } };
    const map = prepareMap(network, { ...defaultMap, regions });
    expect(words(buildLegend(map, PAPER, { width: 800, height: 600 }, 1))[1]).toBe('The quay  2');
  });

  it('writes numbers after names that are written from right to left', () => {
    const names = prepareMap(
      { ...network, nodes: { ...network.nodes, handle: ['a', 'פנסי הרחוב', 'c', 'd'] } },
      defaultMap,
    );
    const [, line] = words(buildLegend(names, PAPER, { width: 800, height: 600 }, 1));
    expect(line.endsWith('\u2069  2')).toBe(true);
    expect(textWidth('\u2068a\u2069', 12, 'plain')).toBe(textWidth('a', 12, 'plain'));
  });

  it('stays inside of the picture', () => {
    for (const { x, y } of legend().texts) {
      expect(x).toBeGreaterThan(0);
      expect(y).toBeGreaterThan(0);
      expect(y).toBeLessThan(600);
    }
  });
});

it('writes values as people read them', () => {
  expect(formatValue(0)).toBe('0');
  expect(formatValue(12345.678)).toBe('12,346');
  expect(formatValue(Infinity)).toBe('none');
});
