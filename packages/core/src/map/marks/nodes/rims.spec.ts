import { defaultMap, type Rim } from '@pebble/contract';
import { buildScene } from '../../scene/buildScene';
import { captionPhrases, captionText } from '../../description/caption';
import type { MapNetwork } from '../../network/mapNetwork';
import { NIGHT, PAPER, type Theme } from '../../style/palette';
import { prepareMap } from '../../scene/prepare';
import { RIM_WIDTHS } from './rims';

const network: MapNetwork = {
  nodeCount: 6,
  nodes: {
    handle: ['a', 'b', 'c', 'd', 'e', 'f'],
    kind: ['press', 'press', 'person', 'person', 'person', ''],
    messages: Float64Array.of(0, 5, 20, 30, 40, NaN),
    community: Uint32Array.of(1, 1, 1, 2, 2, 2),
    inDegree: Uint32Array.of(1, 1, 1, 1, 1, 1),
    betweenness: new Float64Array(6),
    alike: new Float64Array(6).fill(7),
  },
  edges: { source: Uint32Array.of(0), target: Uint32Array.of(1), weight: Float64Array.of(1) },
};
const description = (rim: Rim) => ({ ...defaultMap, shape: { ...defaultMap.shape, rim } });
const prepared = (column: string, value: string | null = null) =>
  prepareMap(network, description({ column, value }));
const painted = (column: string, theme: Theme = PAPER, scale = 1) =>
  buildScene({
    map: prepared(column),
    x: Float32Array.of(100, 150, 200, 250, 300, 350),
    y: new Float32Array(6).fill(100),
    view: { scale, x: 0, y: 0 },
    size: { width: 800, height: 600 },
    theme,
    focus: null,
  });

describe('rims', () => {
  it('are thicker the higher a number is, by its root in four steps; the lowest and nodes without a value have none', () => {
    const { rims, rimGroups } = prepared('messages');
    expect([...rims!]).toEqual([0, 1, 2, 3, 3, 0]);
    expect(rimGroups).toEqual([
      { name: 'from 5', width: RIM_WIDTHS[1], nodes: 1 },
      { name: 'from 20', width: RIM_WIDTHS[2], nodes: 1 },
      { name: 'from 30', width: RIM_WIDTHS[3], nodes: 2 },
    ]);
  });

  it('stand round the nodes that have one value of a category', () => {
    expect([...prepared('kind', 'press').rims!].map(Boolean)).toEqual([
      true,
      true,
      false,
      false,
      false,
      false,
    ]);
    expect(prepared('kind', '').rimGroups).toEqual([{ name: 'without', width: RIM_WIDTHS[2], nodes: 1 }]);
    // The values of groups that are numbers are written as such.
    expect(prepared('community', '2').rimGroups[0].nodes).toBe(3);
  });

  it('say nothing where all values are the same, or where the column is not there', () => {
    expect(prepared('alike').rimGroups).toEqual([]);
    expect(prepared('gone')).toMatchObject({ rims: null, rimGroups: [] });
  });

  it('are painted in ink, larger as nodes are, and told in the legend with their values', () => {
    for (const theme of [PAPER, NIGHT]) {
      const { discs, legend } = painted('messages', theme);
      const inInk = discs.filter(({ rim }) => rim === theme.ink);
      expect(inInk.map(({ rimWidth }) => rimWidth).sort()).toEqual(RIM_WIDTHS.slice(1));
      expect(inInk.flatMap(({ discs: list }) => [...list]).length).toBe(4 * 3);
      const texts = legend.texts.map(({ text }) => text);
      expect(texts).toEqual(expect.arrayContaining(['Rim: messages', expect.stringContaining('from 30')]));
      expect(legend.rings.filter(({ stroke }) => stroke === theme.ink)).toHaveLength(3);
    }
    const far = painted('messages', PAPER, 0.25).discs.filter(({ rim }) => rim === PAPER.ink);
    expect(Math.max(...far.map(({ rimWidth }) => rimWidth))).toBeLessThan(RIM_WIDTHS[3]);
    expect(painted('alike').legend.texts.map(({ text }) => text)).not.toContain('Rim: alike');
  });

  it('are said in the caption', () => {
    const said = (rim: Rim) =>
      captionText(
        captionPhrases({
          weave: null,
          directed: true,
          description: description(rim),
          moved: 0,
          shown: { nodes: 6, edges: 1 },
          hidden: { nodes: 0, edges: 0 },
        }),
      );
    expect(said({ column: 'messages', value: null })).toContain('. Rims: thicker the higher messages. ');
    expect(said({ column: 'kind', value: 'press' })).toContain('. Rims: round those whose kind is press. ');
    expect(said({ column: 'kind', value: '' })).toContain('whose kind is missing');
  });
});
