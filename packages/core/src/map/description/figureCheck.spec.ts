import { defaultMap, type MapDescription, Weave } from '@pebble/contract';
import { buildScene } from '../scene/buildScene';
import { prepareMap } from '../scene/prepare';
import type { Scene } from '../scene/scene';
import { fitView } from '../scene/view';
import { PAPER } from '../style/palette';
import { checkFigure, type FigureToCheck, type Finding } from './figureCheck';

const COUNT = 90;
const numbers = Float64Array.from({ length: COUNT }, (_, v) => v);
const nodes = {
  id: Uint32Array.from(numbers),
  handle: Array.from(numbers, (v) => `somebody_with_a_name_${v}`),
  inDegree: numbers,
  outDegree: numbers,
  degree: numbers,
  betweenness: numbers,
  community: Uint32Array.from(numbers, (v) => 1 + (v % 3)),
  component: new Uint32Array(COUNT).fill(1),
};
const edges = { source: Uint32Array.of(0), target: Uint32Array.of(1), weight: Float64Array.of(1) };
const [x, y] = [
  Float32Array.from(numbers, (v) => 12 * (v % 10)),
  Float32Array.from(numbers, (v) => 12 * Math.floor(v / 10)),
];
const weave = Weave.parse({ what: 'accounts', kinds: ['reply'] });

function figure(change: Partial<MapDescription> = {}, more: Partial<FigureToCheck> = {}): FigureToCheck {
  const map = prepareMap({ nodeCount: COUNT, nodes, edges }, { ...defaultMap, ...change });
  const size = { width: 900, height: 600 };
  const view = fitView(x, y, map.radius, map.nodes, size);
  const scene = buildScene({ map, x, y, view, size, theme: PAPER, focus: null });
  const letters = { smallest: 8, least: 6.5 };
  return { scene, maps: [{ map, network: { weave } }], letters, caption: 'of the map', ...more };
}
const found = (findings: readonly Finding[], words: RegExp): Finding =>
  findings.find((one) => words.test(one.words)) ?? { isGood: false, words: `nothing on ${words.source}` };

describe('the check before a figure is saved', () => {
  it('finds nothing where all is in order, but for the people who are named', () => {
    const names = { ...defaultMap.names, count: 1, also: false };
    const all = checkFigure(figure({ names }));
    const bad = all.filter(({ isGood }) => !isGood).map(({ words }) => words);
    // Three colours of the usual eight may be of one lightness.
    expect(bad.filter((words) => !words.startsWith('In print without colours'))).toEqual([
      expect.stringContaining('1 account is named'),
    ]);
    expect(found(all, /smallest letters/)).toEqual({
      isGood: true,
      words: 'The smallest letters have 8.0 points.',
    });
  });

  it('says of letters that they are small, and of a caption that it is missing or written by hand', () => {
    const all = checkFigure(figure({}, { letters: { smallest: 5.2, least: 6.5 }, caption: 'none' }));
    expect(found(all, /5\.2 points; below 6\.5/).isGood).toBe(false);
    expect(found(all, /no caption/).isGood).toBe(false);
    expect(found(checkFigure(figure({}, { caption: 'by hand' })), /written by hand/).isGood).toBe(false);
  });

  it('counts the names for which there is no room: drawn and left are all that were asked for', () => {
    const { scene, ...rest } = figure({ names: { ...defaultMap.names, count: 80, also: false } });
    const drawn = scene.grips.length;
    expect(drawn).toBeLessThan(80);
    const words = found(checkFigure({ scene, ...rest }), /left out, since there is no room/).words;
    expect(words).toBe(
      `Of 80 names ${80 - drawn} were left out, since there is no room for them without covering others.`,
    );
    expect(found(checkFigure({ scene, ...rest }), /accounts are named/).words).toContain(
      `${drawn} accounts are named`,
    );
    const hidden = checkFigure({ scene, ...rest, isHidden: true });
    expect(found(hidden, /pseudonyms/).isGood).toBe(true);
  });

  it('finds colours that look alike to some readers, and in grey; shapes tell them apart', () => {
    // Red and green of the same lightness.
    const colour = { ...defaultMap.colour, chosen: { '1': '#C0504D', '2': '#4F8F3A' } };
    const all = checkFigure(figure({ colour }));
    expect(found(all, /^Colours that look alike: .* with (red|green) blindness/).isGood).toBe(false);
    expect(found(all, /In print without colours/).isGood).toBe(false);
    const shape = { ...defaultMap.shape, column: 'community' };
    expect(checkFigure(figure({ colour, shape })).some(({ words }) => words.startsWith('Colours that'))).toBe(
      false,
    );
    const greys = { ...defaultMap.colour, palette: 'greys' as const };
    expect(found(checkFigure(figure({ colour: greys })), /can be told apart in print/).isGood).toBe(true);
  });

  it('finds texts with little contrast by the measure of WCAG 2.2', () => {
    const { scene, ...rest } = figure();
    // #949494 on white has 3.03, #767676 has 4.54: published values of many guides.
    const text = (fill: string): Scene['texts'][number] => ({
      ...scene.texts[0],
      fill,
      halo: '#FFFFFF',
      alpha: 1,
      text: fill,
    });
    const all = checkFigure({ scene: { ...scene, texts: [text('#949494'), text('#767676')] }, ...rest });
    expect(found(all, /contrast below 4\.5/).words).toBe('1 text has a contrast below 4.5: “#949494”.');
  });

  it('says which parts the legend leaves out', () => {
    const legend = { ...defaultMap.legend, without: ['size' as const, 'width' as const] };
    expect(found(checkFigure(figure({ legend })), /legend does not/).words).toBe(
      'The legend does not explain everything: size and width are left out.',
    );
  });
});
