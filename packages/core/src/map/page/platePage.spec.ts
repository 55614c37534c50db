import { defaultMap, type MapDescription } from '@pebble/contract';
import { prepareMap } from '../scene/prepare';
import { PAPER } from '../style/palette';
import { textsOfScene } from '../scene/scene';
import { pageCaption } from './pageCaption';
import { letterOf, platePage, type PagePart } from './platePage';

const COUNT = 60;
const numbers = Float64Array.from({ length: COUNT }, (_, v) => v);
const nodes = {
  id: Uint32Array.from(numbers),
  handle: Array.from(numbers, (v) => `n${v}`),
  inDegree: numbers,
  outDegree: numbers,
  degree: numbers,
  betweenness: numbers,
  community: Uint32Array.from(numbers, (v) => 1 + (v % 7)),
  component: new Uint32Array(COUNT).fill(1),
};
const edges = { source: Uint32Array.of(0, 5), target: Uint32Array.of(1, 9), weight: Float64Array.of(1, 4) };
const x = Float32Array.from(numbers, (v) => 10 * v);
const y = Float32Array.from(numbers, (v) => 60 * (v % 7));

const part = (title: string, change: Partial<MapDescription> = {}): PagePart => ({
  map: prepareMap({ nodeCount: COUNT, nodes, edges }, { ...defaultMap, ...change }),
  x,
  y,
  seen: null,
  title,
});
const form = { width: 1100, columns: 2, theme: PAPER, height: null };
const words = (scene: Parameters<typeof textsOfScene>[0]): string[] =>
  textsOfScene(scene).map(({ text }) => text);

describe('several maps on a page', () => {
  it('stand in rows, each with its letter and title, beside each other without touching', () => {
    const page = platePage([part('First'), part('Second'), part('Third')], form);
    const boxes = page.panels!.map(({ x: left, y: top, scene }) => ({
      left,
      top,
      right: left + scene.width,
      bottom: top + scene.height,
    }));
    expect(boxes[1].left).toBeGreaterThan(boxes[0].right);
    expect(boxes[2].top).toBeGreaterThan(boxes[0].bottom);
    expect(boxes[1].right).toBeLessThan(1100);
    expect(page.height).toBeGreaterThan(boxes[2].bottom);
    expect(page.texts.map(({ text }) => text)).toEqual(['a', 'First', 'b', 'Second', 'c', 'Third']);
  });

  it('have one legend where colours mean the same, below all pictures and within the page', () => {
    const page = platePage([part('First'), part('Second')], form);
    expect(words(page).filter((text) => text.startsWith('Colour:'))).toHaveLength(1);
    const bottom = Math.max(...page.panels!.map(({ y: top, scene }) => top + scene.height));
    for (const { y: at } of page.legend.texts) {
      expect(at).toBeGreaterThan(bottom);
      expect(at).toBeLessThan(page.height);
    }
    // Seven groups, each with how many it has, as on both maps.
    expect(page.legend.texts.filter(({ text }) => / {2}\d+$/.test(text))).toHaveLength(7);
  });

  it('leave out how many there are where that differs, and keep a legend of their own where colours do', () => {
    const show = { ...defaultMap.show, where: { joined: 'and' as const, conditions: [{ what: 'range' as const, column: 'degree', from: 20, until: null, not: false }] } }; // prettier-ignore
    const differing = platePage([part('All'), part('Some', { show })], form);
    expect(words(differing).filter((text) => text.startsWith('Colour:'))).toHaveLength(1);
    expect(differing.legend.texts.filter(({ text }) => / {2}\d+$/.test(text))).toHaveLength(0);
    const colour = { ...defaultMap.colour, palette: 'greys' as const };
    const other = platePage([part('Colours'), part('Greys', { colour })], form);
    expect(other.legend.texts.filter(({ text }) => text.startsWith('Colour:'))).toHaveLength(0);
    for (const { scene } of other.panels!)
      expect(scene.legend.texts.filter(({ text }) => text.startsWith('Colour:'))).toHaveLength(1);
    // Sizes are the same on both, and stand once.
    expect(words(other).filter((text) => text.startsWith('Size:'))).toHaveLength(1);
  });

  it('have one legend also where one of them lacks a group, and are seen from as far away', () => {
    const show = { ...defaultMap.show, communities: [1, 2, 4] };
    const page = platePage([part('Three', { show }), part('All')], form);
    expect(words(page).filter((text) => text.startsWith('Colour:'))).toHaveLength(1);
    const signs = page.legend.discs.length;
    expect(signs).toBe(7);
    // Sizes stand once, as nodes are as large on both.
    expect(page.legend.texts.filter(({ text }) => text.startsWith('Size:'))).toHaveLength(1);
    const largest = page.panels!.map(({ scene }) => Math.max(...scene.discs.flatMap(({ discs }) => [...discs].filter((_, i) => i % 3 === 2)))); // prettier-ignore
    expect(largest[0]).toBeCloseTo(largest[1], 0);
  });

  it('keep clear of what is left of their own legends', () => {
    const ties = { ...defaultMap.ties, width: 'by weight' as const };
    const show = { ...defaultMap.show, atLeast: 2 };
    const page = platePage([part('All', { ties }), part('Strong', { ties, show })], form);
    expect(page.panels![0].scene.legend.texts.length).toBeGreaterThan(0);
    for (const { scene } of page.panels!) {
      const top = Math.min(...scene.legend.texts.map(({ y: at, size }) => at - size));
      const lowest = Math.max(...scene.discs.flatMap(({ discs }) => Array.from({ length: discs.length / 3 }, (_, i) => discs[3 * i + 1] + discs[3 * i + 2]))); // prettier-ignore
      expect(lowest).toBeLessThan(top);
    }
  });

  it('are as high as a page that is given', () => {
    const page = platePage([part('First'), part('Second'), part('Third'), part('Fourth')], {
      ...form,
      height: 900,
    });
    expect(page.height).toBeGreaterThan(860);
    expect(page.height).toBeLessThanOrEqual(900);
  });

  it('show the part that was seen, in the middle', () => {
    const seen = { scale: 2, x: -360, y: -100, width: 800, height: 600 };
    const [panel] = platePage([{ ...part('Seen'), seen }], { ...form, columns: 1 }).panels!;
    // The node that was in the middle of the screen is in the middle of the picture: 400 = 2 x - 360.
    const at = panel.scene.discs.flatMap(({ discs }) => Array.from({ length: discs.length / 3 }, (_, i) => discs[3 * i])); // prettier-ignore
    expect(at.some((one) => Math.abs(one - panel.scene.width / 2) < 0.01)).toBe(true);
  });

  it('have letters after z', () => {
    expect([0, 25, 26, 27, 52].map(letterOf)).toEqual(['a', 'z', 'aa', 'ab', 'ba']);
  });

  it('have one caption, in which what goes for all stands once', () => {
    const said = (title: string, caption: string) => ({ title, caption });
    expect(pageCaption([said('March', '12 accounts.'), said('April', '12 accounts.')])).toBe(
      'a, March; b, April. Both: 12 accounts.',
    );
    expect(pageCaption([said('March', '12 accounts.'), said('April', '15 accounts.')])).toBe(
      'a, March: 12 accounts. b, April: 15 accounts.',
    );
    const rest = 'Size: in-degree. Colour: community.';
    expect(
      pageCaption([
        said('A', `12 accounts. ${rest}`),
        said('B', `12 accounts. ${rest}`),
        said('C', `9 accounts. ${rest}`),
      ]),
    ).toBe('a, A; b, B: 12 accounts. c, C: 9 accounts. All: Size: in-degree. Colour: community.');
    expect(pageCaption([said('One', '3 accounts.')])).toBe('a, One: 3 accounts.');
    expect(pageCaption([])).toBe('');
  });
});
