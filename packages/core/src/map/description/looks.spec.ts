import { defaultMap, type MapDescription } from '@pebble/contract';
import { INNER } from '../marks/ties/bundling/forces';
import { buildScene } from '../scene/buildScene';
import { alikeColours } from '../style/colourVision';
import { CATEGORY_GREYS, OTHER_COLOUR, PAPER, mixed, rampColour } from '../style/palette';
import { paintSvg } from '../paint/paintSvg';
import { Picker } from '../interaction/pick';
import type { MapNetwork } from '../network/mapNetwork';
import { prepareMap } from '../scene/prepare';
import { CORNERS } from '../marks/nodes/shapes';
import { rangeOf } from '../style/shares';
import { toScreen } from '../scene/buildScene';
import { boxBehind } from '../scene/scene';

/** Two groups of four, each a square, with one tie between them; one node far away. */
const network: MapNetwork = {
  nodeCount: 9,
  nodes: {
    handle: ['a very long name of a', 'b', 'c', 'd', 'e', 'f', 'g', 'h', 'far'],
    kind: ['press', 'press', 'person', 'person', 'person', 'person', 'person', '', 'press'],
    community: Uint32Array.of(1, 1, 1, 1, 2, 2, 2, 2, 1),
    inDegree: Uint32Array.of(9, 1, 1, 1, 1, 1, 1, 1, 1),
    betweenness: Float64Array.of(0.5, 0.4, 0.3, 0, 0, 0, 0, 0, 0),
    sure: Float64Array.of(1, 1, 0.4, 1, 1, 1, 1, NaN, 1),
    tone: Float64Array.of(-1, -0.5, 0, 0.5, 1, NaN, 0, 0, 0),
  },
  edges: {
    source: Uint32Array.of(0, 1, 3),
    target: Uint32Array.of(1, 2, 4),
    weight: Float64Array.of(1, 5, 20),
  },
};
const x = Float32Array.of(100, 140, 100, 140, 300, 340, 300, 340, 560);
const y = Float32Array.of(100, 100, 140, 140, 100, 100, 140, 140, 300);
const look = (change: Partial<MapDescription>) => {
  const map = prepareMap(network, { ...defaultMap, ...change });
  const view = { scale: 1, x: 0, y: 0 };
  const scene = buildScene({ map, x, y, view, size: { width: 600, height: 400 }, theme: PAPER, focus: null });
  return { map, scene, view };
};
const ties = (change: Partial<MapDescription['ties']>) => look({ ties: { ...defaultMap.ties, ...change } });
const colour = (change: Partial<MapDescription['colour']>) =>
  look({ colour: { ...defaultMap.colour, ...change } });

describe('colours', () => {
  it('can be given by hand, one by one, and to as many categories as wanted', () => {
    const { map } = colour({ chosen: { '2': '#112233' } });
    expect(map.groups.map(({ colour: one }) => one)).toEqual(['#0072B2', '#112233']);
    const one = colour({ most: 1 }).map;
    expect(one.colours[one.colour[4]]).toBe(OTHER_COLOUR);
    const named = colour({ column: 'kind', chosen: { press: '#445566' }, most: 1 }).map;
    expect(named.groups.map(({ name, colour: c }) => [name, c])).toEqual([
      ['person', '#0072B2'],
      ['press', '#445566'],
      [undefined, OTHER_COLOUR],
    ]);
  });

  it('stand in the legend in an order given by hand, the others after them, and keep their colours', () => {
    const usual = colour({ column: 'kind' }).map.groups;
    expect(usual.map(({ name }) => name)).toEqual(['person', 'press', undefined]);
    const { groups } = colour({ column: 'kind', order: ['press'] }).map;
    expect(groups.map(({ name }) => name)).toEqual(['press', 'person', undefined]);
    const colours = (of: typeof groups) => Object.fromEntries(of.map(({ name, colour: one }) => [name, one]));
    expect(colours(groups)).toEqual(colours(usual));
    // What is not there any more is passed over.
    expect(colour({ order: ['9', '2'] }).map.groups.map(({ value }) => value)).toEqual([2, 1]);
  });

  it('are greys where print has no colour, of as many categories as can be told apart', () => {
    const { map } = colour({ palette: 'greys', column: 'kind' });
    const lightness = map.groups.map(({ colour: one }) => Number.parseInt(one.slice(1, 3), 16));
    map.groups.forEach(({ colour: one }) => expect(one).toMatch(/^#(..)\1\1$/));
    expect(new Set(lightness).size).toBe(map.groups.length);
    expect(alikeColours(CATEGORY_GREYS)).toBeNull();
    const chosen = colour({ palette: 'greys', chosen: { '2': '#112233' } }).map;
    expect(chosen.groups[1].colour).toBe('#112233');
  });

  it('of a two-sided ramp have their middle where it was set, and none of it for what has no value', () => {
    const { map } = colour({ column: 'tone', ramp: 'two-sided', middle: 0 });
    expect(map.colourRange).toEqual([-1, 1]);
    expect(map.colours[map.colour[0]]).toBe(rampColour(0, 'two-sided'));
    expect(map.colours[map.colour[4]]).toBe(rampColour(1, 'two-sided'));
    expect(map.colours[map.colour[5]]).toBe(OTHER_COLOUR);
    const turned = colour({ column: 'tone', ramp: 'two-sided', reversed: true }).map;
    expect(turned.colours[turned.colour[0]]).toBe(rampColour(1, 'two-sided'));
  });

  it('leave out what is not sure, or make it pale', () => {
    const unsure = { column: 'sure', below: 0.5, how: 'uncoloured' as const };
    const plain = colour({ unsure }).map;
    expect(plain.colours[plain.colour[2]]).toBe(OTHER_COLOUR);
    expect(plain.pale).toBeNull();
    const pale = colour({ unsure: { ...unsure, how: 'pale' } });
    expect([...pale.map.pale!]).toEqual([0, 0, 1, 0, 0, 0, 0, 0, 0]);
    expect(pale.scene.discs.some(({ alpha }) => alpha < 0.3)).toBe(true);
  });

  it('are mixed half and half', () => {
    expect(mixed('#000000', '#FFFFFF')).toBe('#808080');
  });
});

describe('sizes', () => {
  it('can have the highest values cut, so that one account does not make all others small', () => {
    const values = Uint32Array.from({ length: 100 }, (_, i) => (i === 99 ? 1000 : i));
    const nodes = Uint32Array.from(values.keys());
    expect(rangeOf(values, nodes)).toEqual([0, 1000]);
    expect(rangeOf(values, nodes, 0.05)).toEqual([0, 94]);
  });

  it('grow by steps where that is wanted, so that there are few of them', () => {
    const { map } = look({ size: { ...defaultMap.size, column: 'betweenness', growth: 'steps' } });
    expect(new Set(map.radius).size).toBeLessThanOrEqual(5);
    expect(Math.min(...map.radius)).toBe(3);
  });
});

describe('shapes', () => {
  it('are those of the largest categories, in the picture and in its legend', () => {
    const { map, scene } = look({ shape: { ...defaultMap.shape, column: 'kind' } });
    expect(map.shapes).toEqual([
      { name: 'person', shape: 'square', nodes: 5 },
      { name: 'press', shape: 'diamond', nodes: 3 },
      { name: 'without', shape: 'triangle', nodes: 1 },
    ]);
    expect(new Set(scene.discs.map(({ shape }) => shape))).toEqual(
      new Set(['square', 'diamond', 'triangle']),
    );
    expect(scene.legend.texts.map(({ text }) => text)).toContain('Shape: kind');
  });

  it('have the area of a disc', () => {
    for (const corners of Object.values(CORNERS)) {
      if (!corners) continue;
      const twice = corners.reduce((sum, [cx, cy], i) => {
        const [nx, ny] = corners[(i + 1) % corners.length];
        return sum + cx * ny - nx * cy;
      }, 0);
      expect(Math.abs(twice / 2)).toBeCloseTo(Math.PI, 9);
    }
  });
});

describe('ties', () => {
  it('are lines where they are straight, and curves where they are bent', () => {
    expect(ties({ form: 'straight' }).scene.curves).toHaveLength(0);
    expect(ties({ form: 'bent' }).scene.lines).toHaveLength(0);
  });

  it('that are bundled go by the middles of their groups, and are found where they are drawn', () => {
    const { scene, map, view } = ties({ form: 'bundled', tightness: 1, arrows: false });
    const between = scene.curves.find(({ points }) => points.length === 12)!.points;
    // From one group to the other in two curves that meet on the line between both middles.
    expect(between[2]).toBeCloseTo(208, 0);
    expect([...between.slice(4, 6)]).toEqual([...between.slice(6, 8)]);
    const picker = new Picker(map, toScreen({ map, x, y, view }));
    expect(picker.edgeAt(between[4], between[5])).toBe(2);
  });

  it('that are bundled freely follow their courses where there are any, and are found and named there', () => {
    const free = { ...defaultMap.ties, form: 'bundled freely' as const, tightness: 1, arrows: false };
    const named = { ...free, names: { column: 'weight', count: 5 } };
    const map = prepareMap(network, { ...defaultMap, ties: named });
    const bent = {
      map,
      x,
      y,
      view: { scale: 1, x: 0, y: 0 },
      size: { width: 600, height: 400 },
      theme: PAPER,
    };
    expect(buildScene({ ...bent, focus: null }).curves.every(({ points }) => points.length === 6)).toBe(true);
    // Tie 2 bends aside by a fifth of its length.
    const aside = Float32Array.from({ length: INNER }, (_, k) => (k === (INNER - 1) / 2 ? 0.2 : 0.15));
    const along = Float32Array.from({ length: INNER }, (_, k) => (k + 1) / (INNER + 1));
    const courses = { of: Int32Array.of(-1, -1, 0), along, aside, ties: 3, left: 2 };
    const free2 = { ...bent, map: { ...map, courses }, focus: null };
    const scene = buildScene(free2);
    const curves = scene.curves.find(({ points }) => points.length === 6 * INNER)!.points;
    const [ax, ay, bx, by] = [x[3], y[3], x[4], y[4]];
    expect([curves[0], curves[1], curves.at(-2), curves.at(-1)]).toEqual([ax, ay, bx, by]);
    const picker = new Picker(free2.map, toScreen(free2));
    const [midX, midY] = [(ax + bx) / 2 - 0.19 * (by - ay), (ay + by) / 2 + 0.19 * (bx - ax)];
    expect(picker.edgeAt(midX, midY)).toBe(2);
    expect(picker.edgeAt((ax + bx) / 2, (ay + by) / 2)).toBeNull();
    expect(scene.texts.some(({ text, y: at }) => text === '20' && Math.abs(at - midY) < 12)).toBe(true);
    expect(scene.legend.texts.map(({ text }) => text)).toContain('Bundled: 3 strongest ties');
  });

  it('have the colour of source, target or both mixed, and one width where that is wanted', () => {
    const strokes = (change: Partial<MapDescription['ties']>): string[] =>
      ties({ ...change, arrows: false }).scene.curves.map(({ stroke }) => stroke);
    expect(strokes({ colour: 'by community' })).not.toContain('#E69F00');
    expect(strokes({ colour: 'by target' })).toContain('#E69F00');
    expect(strokes({ colour: 'mixed' })).toContain(mixed('#0072B2', '#E69F00'));
    const widths = new Set(ties({ width: 'even' }).scene.curves.map(({ width }) => width));
    expect(widths.size).toBe(1);
  });

  it('are drawn stronger or weaker', () => {
    const alpha = (strength: number): number => ties({ strength }).scene.curves[0].alpha;
    expect(alpha(2)).toBeGreaterThan(alpha(1));
    expect(alpha(0.3)).toBeLessThan(alpha(1));
  });
});

describe('regions', () => {
  const regions = (change: Partial<MapDescription['regions']>) =>
    look({ regions: { ...defaultMap.regions, column: 'community', least: 3, ...change } }).scene;

  it('go round the nodes of each group, and leave one outside that is far from the rest', () => {
    const [one, two] = regions({}).regions;
    const xs = (points: Float32Array): number[] => [...points].filter((_, i) => i % 2 === 0);
    expect(Math.min(...xs(one.lines[0]))).toBeLessThan(100);
    expect(Math.max(...xs(one.lines[0]))).toBeLessThan(200);
    expect(Math.min(...xs(two.lines[0]))).toBeGreaterThan(200);
  });

  it('are only of groups that are large enough, and have titles', () => {
    expect(regions({ least: 5 }).regions).toHaveLength(1);
    const { texts } = regions({ titles: { '2': 'The quay' } });
    expect(texts.at(-1)).toMatchObject({ text: 'The quay', face: 'serifBold' });
  });

  it('can have a note below the title, in lines, that covers no other', () => {
    const note = 'Shops that open late, and those who write of them; few of these answer anyone else.';
    const groups = { '1': note, '2': note };
    const words = regions({ titles: { '1': 'The quay', '2': 'The hill' }, notes: groups }).texts.filter(
      ({ face, text }) => face === 'serif' || text.startsWith('The '),
    );
    const [title, ...lines] = words.slice(0, words.length / 2);
    expect([title.text, lines.map(({ text }) => text).join(' ')]).toEqual(['The quay', note]);
    expect(lines.length).toBeGreaterThan(1);
    words.forEach(
      (one, i) => i > 0 && i !== words.length / 2 && expect(one.y).toBeGreaterThan(words[i - 1].y),
    );
    const boxes = words.map(boxBehind);
    boxes.forEach((a, i) =>
      boxes.slice(i + 1).forEach((b) => {
        const apart = a.right < b.left || b.right < a.left || a.bottom <= b.top + 3 || b.bottom <= a.top + 3;
        expect(apart).toBe(true);
      }),
    );
    // A low picture has no room for notes.
    const map = prepareMap(network, {
      ...defaultMap,
      regions: {
        ...defaultMap.regions,
        column: 'community',
        least: 2,
        titles: { '2': 'The hill' },
        notes: groups,
      },
    });
    const view = { scale: 0.5, x: 0, y: 0 };
    const low = buildScene({ map, x, y, view, size: { width: 600, height: 200 }, theme: PAPER, focus: null });
    expect(low.texts.filter(({ face }) => face.startsWith('serif')).map(({ text }) => text)).toEqual([
      'The hill',
    ]);
    // A note needs no title.
    expect(regions({ notes: { '2': 'Alone' } }).texts.at(-1)).toMatchObject({ text: 'Alone', face: 'serif' });
    const own = [{ title: '', note: 'Chosen', nodes: [0, 1] }];
    expect(regions({ column: null, own }).texts.at(-1)).toMatchObject({ text: 'Chosen' });
  });

  it('go round where a group lies densely, and not round one that is scattered', () => {
    const dense = regions({ form: 'dense' }).regions;
    expect(dense).toHaveLength(2);
    const xs = [...dense[0].lines.flatMap((line) => [...line].filter((_, i) => i % 2 === 0))];
    expect(Math.max(...xs)).toBeLessThan(200);
  });

  it('go round chosen nodes, as far as they are shown', () => {
    const own = [
      { title: 'Mine', nodes: [0, 1] },
      { title: 'Gone', nodes: [999] },
    ];
    const { regions: lines, texts } = regions({ column: null, own });
    expect(lines).toHaveLength(1);
    expect(texts.at(-1)).toMatchObject({ text: 'Mine' });
  });

  it('stand in the figure as on the screen', () => {
    const svg = paintSvg(regions({}));
    expect(svg.match(/fill-opacity="0.11"/g)).toHaveLength(2);
  });
});

describe('names', () => {
  const names = (change: Partial<MapDescription['names']>) =>
    look({ names: { ...defaultMap.names, also: false, count: 3, ...change } }).scene.texts;

  it('can be shortened, broken in two lines, grow with the node, and be set in the serif', () => {
    expect(names({ length: 'short', fontSize: 9 })[0].text).toContain('…');
    const [first, second] = names({ length: 'two lines' });
    expect([first.text, second.text]).toEqual(['a very long', 'name of a']);
    expect(second.y).toBeGreaterThan(first.y);
    expect(names({ face: 'serif' })[0].face).toBe('serifBold');
    expect(names({ bold: 'none' }).map(({ face }) => face)).toEqual(['plain', 'plain', 'plain']);
    expect(names({ bold: 'all', face: 'serif', count: 9 }).every(({ face }) => face === 'serifBold')).toBe(
      true,
    );
    const grown = names({ grow: true }).map(({ size }) => size);
    expect(Math.max(...grown)).toBeGreaterThan(Math.min(...grown));
  });
});
