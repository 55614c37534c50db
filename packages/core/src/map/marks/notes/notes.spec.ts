import { defaultMap, MapDescription, type Note } from '@pebble/contract';
import { buildScene } from '../../scene/buildScene';
import { moveGrip } from '../../interaction/moveGrip';
import { PAPER } from '../../style/palette';
import { paintSvg } from '../../paint/paintSvg';
import { prepareMap } from '../../scene/prepare';
import type { MapNetwork } from '../../network/mapNetwork';

const network: MapNetwork = {
  nodeCount: 3,
  nodes: {
    handle: ['ann', 'ben', 'cem'],
    name: ['', '', ''],
    inDegree: Uint32Array.of(1, 2, 3),
    degree: Uint32Array.of(2, 2, 2),
    betweenness: new Float64Array(3),
    community: Uint32Array.of(1, 1, 2),
  },
  edges: {
    source: Uint32Array.of(0, 1),
    target: Uint32Array.of(1, 2),
    weight: Float64Array.of(1, 1),
  },
};
const places = { x: Float32Array.of(300, 500, 400), y: Float32Array.of(300, 300, 100) };
const view = { scale: 1, x: 0, y: 0 };

function scene(change: Partial<MapDescription>, scale = 1) {
  const map = prepareMap(network, { ...defaultMap, ...change });
  return buildScene({
    map,
    ...places,
    view: { ...view, scale },
    size: { width: 900, height: 600 },
    theme: PAPER,
    focus: null,
  });
}

const onNode: Note = { text: 'Began it all', at: { what: 'node', node: 0 }, dx: 0, dy: -80 };
const onTie: Note = {
  text: 'One day only',
  at: { what: 'tie', source: 0, target: 1 },
  dx: 0,
  dy: 60,
};

describe('notes', () => {
  it('stand beside what they speak of, with a line from its rim to them', () => {
    const { texts, leaders, grips } = scene({ notes: [onNode] });
    const text = texts.find((one) => one.text === 'Began it all')!;
    expect(text.y).toBeLessThan(260);
    const [x1, y1, x2, y2] = leaders[0].points;
    expect([x1, x2]).toEqual([300, 300]);
    expect(y1).toBeLessThan(300);
    expect(y2).toBeLessThan(y1);
    expect(grips.at(-1)).toMatchObject({ what: 'note', of: 0 });
  });

  it('on a tie begin at the middle of how it runs', () => {
    const straight = scene({ notes: [onTie], ties: { ...defaultMap.ties, form: 'straight' } });
    expect([...straight.leaders[0].points].slice(0, 2)).toEqual([400, 301]);
    const bent = scene({ notes: [onTie] });
    // A tie to the right bends up by 0.11 of its length, and its middle by half of that.
    expect(bent.leaders[0].points[1]).toBeCloseTo(300 - 0.055 * 200 + 1, 3);
  });

  it('go with the map when it is zoomed, and stand in the figure', () => {
    const far = scene({ notes: [onNode] }, 1.5).grips.at(-1)!;
    expect(far.top + far.height / 2).toBeCloseTo(1.5 * (300 - 80));
    expect(paintSvg(scene({ notes: [onNode] }))).toContain('Began it all');
  });

  it('are left out with what they speak of', () => {
    const where = {
      joined: 'and' as const,
      conditions: [{ what: 'chosen' as const, nodes: [1, 2], not: false }],
    };
    const { texts } = scene({ notes: [onNode, onTie], show: { ...defaultMap.show, where } });
    expect(texts.some(({ text }) => text === 'Began it all' || text === 'One day only')).toBe(false);
  });
});

describe('moving by hand', () => {
  it('moves a note by as much as the pointer, at any scale', () => {
    const grip = scene({ notes: [onNode] }).grips.at(-1)!;
    const moved = moveGrip({ ...defaultMap, notes: [onNode] }, grip, 30, 10, {
      places,
      view: { ...view, scale: 2 },
    });
    expect(moved.notes[0]).toMatchObject({ dx: 15, dy: -75 });
  });

  it('moves a name to where it was let go, with a line when it is far from its node', () => {
    const first = scene({});
    const grip = first.grips.find(({ what, of }) => what === 'name' && of === 2)!;
    const moved = moveGrip(defaultMap, grip, 100, 40, { places, view });
    const after = scene({ names: moved.names });
    const there = after.grips.find(({ what, of }) => what === 'name' && of === 2)!;
    expect(there.left + there.width / 2).toBeCloseTo(grip.left + grip.width / 2 + 100, 0);
    expect(there.top + there.height / 2).toBeCloseTo(grip.top + grip.height / 2 + 40, 0);
    expect(first.leaders).toEqual([]);
    expect(after.leaders).toHaveLength(1);
    // Moved once more it is still one name.
    expect(moveGrip(moved, there, 1, 1, { places, view }).names.placed).toHaveLength(1);
  });
});

describe('names', () => {
  const names = (change: Partial<MapDescription['names']>) => ({ names: { ...defaultMap.names, ...change } });
  const named = (change: Partial<MapDescription['names']>): string[] =>
    scene(names(change)).texts.map(({ text }) => text);

  it('can have a filter of their own', () => {
    const conditions = [{ what: 'range' as const, column: 'inDegree', from: 2, until: null, not: false }];
    expect(named({ where: { joined: 'and', conditions } }).sort()).toEqual(['ben', 'cem']);
  });

  it('that were moved are named before those first in rank', () => {
    expect(named({ count: 1, column: 'inDegree', also: false })).toEqual(['cem']);
    expect(
      named({ count: 1, column: 'inDegree', also: false, placed: [{ node: 0, dx: 0, dy: 20 }] }),
    ).toEqual(['ann']);
    expect(named({ count: 0, placed: [{ node: 0, dx: 0, dy: 20 }] })).toEqual([]);
  });

  it('can stand on a box, and in the colour of their node', () => {
    const [text] = scene(names({ behind: 'box', ink: 'node' })).texts;
    expect(text).toMatchObject({ halo: null, box: PAPER.ground });
    expect(text.fill).not.toBe(PAPER.ink);
    expect(paintSvg(scene(names({ behind: 'box' })))).toContain('fill-opacity="0.82"');
  });
});
