/** @jest-environment node */
import { createCanvas, loadImage } from '@napi-rs/canvas';
import { defaultMap, type MapDescription } from '@pebble/contract';
import { Resvg } from '@resvg/resvg-js';
import { Random } from '../../random';
import { buildScene } from '../scene/buildScene';
import type { MapNetwork } from '../network/mapNetwork';
import { paintCanvas, type Images, type Pen } from './paintCanvas';
import { paintSvg } from './paintSvg';
import { NIGHT, PAPER, type Theme } from '../style/palette';
import { prepareMap } from '../scene/prepare';
import type { Scene } from '../scene/scene';
import { TieRaster, tiesIn } from './tieRaster';

// The canvas is Skia, the renderer of SVG is resvg: two that share no code with each other, nor with ours.
const SIZE = { width: 480, height: 320 };

function network(nodes: number, ties: number): MapNetwork {
  const chance = new Random(7);
  const below = (length: number, most: number): Uint32Array =>
    Uint32Array.from({ length }, () => chance.below(most));
  return {
    nodeCount: nodes,
    nodes: {
      handle: Array.from({ length: nodes }, (_, v) => `n${v}`),
      community: Uint32Array.from({ length: nodes }, (_, v) => 1 + (v % 5)),
      betweenness: new Float64Array(nodes),
      inDegree: below(nodes, 30),
      kind: Array.from({ length: nodes }, (_, v) => 'abcdef'[v % 6]),
    },
    edges: {
      source: below(ties, nodes),
      target: below(ties, nodes),
      weight: Float64Array.from({ length: ties }, () => 1 + chance.below(12)),
    },
  };
}

function sceneOf(
  map: MapNetwork,
  change: Partial<MapDescription> = {},
  theme: Theme = PAPER,
  size = SIZE,
): Scene {
  const chance = new Random(3);
  const along = (most: number): Float32Array =>
    Float32Array.from({ length: map.nodeCount }, () => 20 + chance.real() * (most - 40));
  const [x, y] = [along(size.width), along(size.height)];
  const description = { ...defaultMap, names: { ...defaultMap.names, count: 0 }, ...change };
  const view = { scale: 1, x: 0, y: 0 };
  return buildScene({ map: prepareMap(map, description), x, y, view, size, theme, focus: null });
}

/** Without texts: what letters look like is the font's. */
function withoutTexts(scene: Scene): Scene {
  return { ...scene, texts: [], legend: { ...scene.legend, texts: [] } };
}

function onCanvas(scene: Scene, images?: Images): Uint8ClampedArray {
  const canvas = createCanvas(scene.width, scene.height);
  const pen = canvas.getContext('2d');
  paintCanvas(pen as unknown as Pen, scene, null, images);
  return pen.getImageData(0, 0, scene.width, scene.height).data;
}

function asSvg(scene: Scene): Uint8Array {
  return new Resvg(paintSvg(scene), { font: { loadSystemFonts: false } }).render().pixels;
}

/** Mean difference of the colours of all points, and the share of points that differ by more than a fifth of the range. */
function difference(
  a: ArrayLike<number>,
  b: ArrayLike<number>,
): { readonly mean: number; readonly far: number } {
  let [sum, far] = [0, 0];
  for (let i = 0; i < a.length; i += 4) {
    const off = Math.max(...[0, 1, 2].map((c) => Math.abs(a[i + c] - b[i + c])));
    sum += off;
    if (off > 51) far++;
  }
  return { mean: sum / (a.length / 4), far: far / (a.length / 4) };
}

describe('SVG and canvas', () => {
  const map = network(60, 120);
  const shapes = { shape: { ...defaultMap.shape, column: 'kind' } };
  const cases: readonly (readonly [string, Partial<MapDescription>, Theme])[] = [
    ['bent ties with arrows', {}, PAPER],
    ['at night', {}, NIGHT],
    ['straight ties, all shapes', { ties: { ...defaultMap.ties, form: 'straight' }, ...shapes }, PAPER],
    [
      'bundled ties, mixed colours',
      { ties: { ...defaultMap.ties, form: 'bundled', colour: 'mixed' } },
      PAPER,
    ],
    [
      'rims by a number, all shapes',
      { shape: { ...shapes.shape, rim: { column: 'inDegree', value: null } } },
      PAPER,
    ],
    ['pies', { shape: { ...defaultMap.shape, pies: true } }, PAPER],
    ['outlines', { regions: { ...defaultMap.regions, column: 'community', least: 5 } }, PAPER],
  ];

  it.each(cases)('agree point by point: %s', (_, change, theme) => {
    const scene = withoutTexts(sceneOf(map, change, theme));
    const { mean, far } = difference(onCanvas(scene), asSvg(scene));
    // One per cent of the range: what is left are the edges, which each of the two smooths in its own way.
    expect(mean).toBeLessThan(2.55);
    expect(far).toBeLessThan(0.002);
  });

  it('agree point by point: pictures in nodes of all shapes', async () => {
    // A picture of four fields.
    const fields = createCanvas(64, 64);
    const pen = fields.getContext('2d');
    ['#B4512F', '#1F6F78', '#F0E442', '#1E2A32'].forEach((fill, i) => {
      pen.fillStyle = fill;
      pen.fillRect(32 * (i % 2), 32 * Math.floor(i / 2), 32, 32);
    });
    const image = fields.toDataURL('image/png');
    const read = (await loadImage(image)) as unknown as CanvasImageSource;
    const pictures = Array.from({ length: 60 }, (_, v) => ({ name: `N${v}`, image }));
    const change = {
      size: { ...defaultMap.size, smallest: 8, largest: 24 },
      shape: { ...defaultMap.shape, column: 'kind', pictures: true },
    };
    const scene = withoutTexts(sceneOf({ ...map, pictures }, change));
    expect(new Set(scene.pictures.map(({ shape }) => shape)).size).toBe(6);
    const painted = onCanvas(scene, (address) => (address === image ? read : null));
    const { mean, far } = difference(painted, asSvg(scene));
    expect(mean).toBeLessThan(2.55);
    expect(far).toBeLessThan(0.005);
    // One that is not read yet is left out.
    expect(difference(onCanvas(scene), painted).mean).toBeGreaterThan(5);
  });

  it('would not agree with another picture: the measure can fail', () => {
    const [a, b] = [{}, { ties: { ...defaultMap.ties, form: 'straight' as const } }].map((change) =>
      withoutTexts(sceneOf(map, change)),
    );
    expect(difference(onCanvas(a), asSvg(b)).mean).toBeGreaterThan(2);
  });
});

describe('ties as a picture', () => {
  it('are as dense and of the same colours as those of a canvas', () => {
    const size = { width: 480, height: 320 };
    const scene = sceneOf(network(400, 20_000), {}, PAPER, size);
    const only = { ...withoutTexts(scene), discs: [], rings: [], triangles: [], pies: [] };
    const bare = { ...only, legend: { ...only.legend, lines: [], discs: [], rings: [], regions: [] } };
    expect(tiesIn(scene)).toBeGreaterThan(15_000);
    const canvas = onCanvas(bare);
    const { rgba } = new TieRaster().paint(bare, 1);
    const ground = [0xfb, 0xfa, 0xf6];
    const laid = Uint8ClampedArray.from(rgba, (value, i) => {
      const opacity = rgba[4 * (i >> 2) + 3] / 255;
      return i % 4 === 3 ? 255 : value * opacity + ground[i % 4] * (1 - opacity);
    });
    expect(difference(canvas, laid).mean).toBeLessThan(9);
    // In patches of 16 by 16, where single edges do not matter, they are alike.
    const patch = (data: ArrayLike<number>, c: number): number[] =>
      Array.from({ length: 30 * 20 }, (_, p) => {
        let sum = 0;
        for (let i = 0; i < 256; i++) {
          const x = 16 * (p % 30) + (i % 16);
          const y = 16 * Math.floor(p / 30) + (i >> 4);
          sum += data[4 * (y * size.width + x) + c] / 256;
        }
        return sum;
      });
    for (const c of [0, 1, 2]) {
      const [a, b] = [patch(canvas, c), patch(laid, c)];
      const off = a.map((value, i) => Math.abs(value - b[i]));
      expect(off.reduce((sum, one) => sum + one, 0) / off.length).toBeLessThan(6);
    }
  });

  it('are the same in one go and strip by strip, and again with the memory of before', () => {
    const scene = sceneOf(network(50, 300));
    const once = Uint8ClampedArray.from(new TieRaster().paint(scene, 2).rgba);
    const raster = new TieRaster();
    raster.paint(sceneOf(network(40, 500)), 2);
    let strips = 0;
    const work = raster.painting(scene, 2);
    let step = work.next();
    for (; !step.done; step = work.next()) strips++;
    expect(strips).toBeGreaterThan(2);
    expect(Buffer.compare(Buffer.from(step.value.rgba), Buffer.from(once))).toBe(0);
  });

  it('are the same rows when only these are painted', () => {
    const scene = sceneOf(network(50, 300));
    const whole = new TieRaster().paint(scene, 1);
    const part = new TieRaster().paint(scene, 1, { from: 100, until: 220 });
    expect([part.width, part.height]).toEqual([whole.width, 120]);
    const rows = whole.rgba.subarray(4 * 100 * whole.width, 4 * 220 * whole.width);
    // A line begins at other fractions of a point.
    expect(difference(part.rgba, rows).mean).toBeLessThan(0.5);
  });

  it('are about as dense in a sketch of each third', () => {
    const scene = sceneOf(network(200, 9000));
    const ink = (every: number): number =>
      new TieRaster()
        .paint(scene, 1, { every })
        .rgba.reduce((sum, one, i) => sum + (i % 4 === 3 ? one : 0), 0);
    expect(ink(3) / ink(1)).toBeGreaterThan(0.6);
    expect(ink(3) / ink(1)).toBeLessThan(1.1);
    expect(ink(1)).not.toBe(ink(3));
  });

  it('cover one line where it lies, thick and thin, and nothing outside of the picture', () => {
    const scene = sceneOf(network(2, 0));
    const line = (width: number, points: number[]): Scene => ({
      ...scene,
      curves: [],
      lines: [{ stroke: '#102030', alpha: 1, width, points: Float32Array.from(points) }],
    });
    const covered = (given: Scene): number[] => {
      const { rgba } = new TieRaster().paint(given, 1);
      return Array.from({ length: rgba.length / 4 }, (_, i) => i).filter((i) => rgba[4 * i + 3] > 0);
    };
    expect(covered(line(1, [10, 5.5, 20, 5.5]))).toEqual(
      Array.from({ length: 10 }, (_, i) => 5 * 480 + 10 + i),
    );
    expect(covered(line(3, [10, 5.5, 20, 5.5]))).toHaveLength(30);
    expect(covered(line(1, [-50, -40, -3, 400]))).toEqual([]);
    expect(covered(line(1, [-100, 100, 1000, 100]))).toHaveLength(480);
    expect(covered(line(1, [7.5, -100, 7.5, 1000]))).toHaveLength(320);
    const { rgba } = new TieRaster().paint(line(1, [10, 5.5, 20, 5.5]), 1);
    expect([...rgba.slice(4 * (5 * 480 + 12), 4 * (5 * 480 + 12) + 4)]).toEqual([0x10, 0x20, 0x30, 255]);
  });
});
