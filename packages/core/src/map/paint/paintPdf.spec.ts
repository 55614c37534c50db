/** @jest-environment node */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createCanvas, loadImage } from '@napi-rs/canvas';
import { Resvg } from '@resvg/resvg-js';
import { lettersFor } from '../../testing/shippedLetters';
import type { Letters } from '../style/letters';
import { PAPER } from '../style/palette';
import type { Scene, TextMark } from '../scene/scene';
import { paintPdf, type PdfOptions } from './paintPdf';
import { paintSvg } from './paintSvg';

const DATA = 'data:image/png;base64,';
const INK = '#1E2A32';
const name = (text: string, y: number, change: Partial<TextMark> = {}): TextMark => ({
  text,
  x: 20,
  y,
  size: 14,
  face: 'plain',
  anchor: 'start',
  fill: INK,
  halo: '#FFFFFF',
  alpha: 1,
  ...change,
});
/** A half red, half blue picture. */
const picture = (): string => {
  const canvas = createCanvas(8, 8);
  const pen = canvas.getContext('2d');
  pen.fillStyle = '#D00000';
  pen.fillRect(0, 0, 4, 8);
  pen.fillStyle = '#0000D0';
  pen.fillRect(4, 0, 4, 8);
  return `${DATA}${canvas.toBuffer('image/png').toString('base64')}`;
};
const square = (at: number): Float32Array => Float32Array.of(at, 60, at + 70, 60, at + 70, 130, at, 130);

/** One of each mark. */
const scene: Scene = {
  width: 480,
  height: 320,
  ground: PAPER.ground,
  regions: [{ fill: '#0072B2', alpha: 0.12, stroke: '#0072B2', lines: [square(300), square(320)] }],
  lines: [
    {
      stroke: '#A34F33',
      alpha: 0.5,
      width: 2,
      points: Float32Array.of(30, 200, 200, 260, 200, 200, 30, 260),
    },
  ],
  curves: [
    { stroke: '#009E73', alpha: 0.6, width: 3, points: Float32Array.of(240, 250, 330, 150, 420, 250) },
  ],
  triangles: [{ fill: '#009E73', alpha: 0.8, points: Float32Array.of(420, 250, 400, 240, 404, 256) }],
  discs: [
    {
      shape: 'circle',
      fill: '#E69F00',
      alpha: 1,
      rim: '#FFFFFF',
      rimWidth: 2,
      discs: Float32Array.of(60, 120, 16, 76, 120, 12),
    },
    {
      shape: 'diamond',
      fill: '#CC79A7',
      alpha: 0.7,
      rim: INK,
      rimWidth: 0,
      discs: Float32Array.of(140, 120, 14),
    },
  ],
  pies: [
    {
      x: 200,
      y: 120,
      radius: 18,
      slices: [
        { fill: '#0072B2', from: 0, until: 4 },
        { fill: '#D55E00', from: 4, until: 2 * Math.PI },
      ],
    },
  ],
  pictures: [{ image: picture(), x: 260, y: 120, radius: 20, shape: 'hexagon' }],
  rings: [{ x: 260, y: 120, radius: 22, stroke: INK, width: 2 }],
  leaders: [{ stroke: INK, alpha: 1, width: 1, points: Float32Array.of(20, 40, 60, 110) }],
  texts: [
    name('Äußere Brücke', 30),
    name('łódź · Ωmega · Привет', 180, { face: 'bold', anchor: 'middle', x: 240 }),
    name('מגדל 12', 290, { anchor: 'end', x: 460, box: '#FFFFFF', halo: null }),
  ],
  grips: [],
  legend: {
    regions: [],
    lines: [],
    discs: [
      {
        shape: 'circle',
        fill: '#56B4E9',
        alpha: 1,
        rim: INK,
        rimWidth: 0,
        discs: Float32Array.of(24, 300, 5),
      },
    ],
    rings: [],
    texts: [name('harbour 12', 304, { x: 36, size: 12, halo: null })],
    spots: [],
  },
};
const caption = '12 accounts tied when one replies to another, 1 March to 31 May 2026 (UTC).';

describe('a figure as PDF', () => {
  const folder = mkdtempSync(join(tmpdir(), 'figure-'));
  const path = join(folder, 'figure.pdf');
  let letters: Letters;
  let options: PdfOptions;
  afterAll(() => rmSync(folder, { recursive: true }));
  const run = (program: string, ...args: string[]): string =>
    execFileSync(program, args, { encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'] });
  /** By poppler: the points of a page of 480 pixels at 72 to the inch. */
  const rendered = async (): Promise<Uint8ClampedArray> => {
    run('pdftoppm', '-png', '-r', '72', '-singlefile', path, join(folder, 'page'));
    const image = await loadImage(join(folder, 'page.png'));
    const canvas = createCanvas(image.width, image.height);
    canvas.getContext('2d').drawImage(image, 0, 0);
    return canvas.getContext('2d').getImageData(0, 0, image.width, image.height).data;
  };

  beforeAll(async () => {
    const texts = [...scene.texts, ...scene.legend.texts, { text: caption, face: 'serif' as const }];
    letters = await lettersFor(texts);
    options = {
      width: 480,
      resolution: 72,
      caption,
      letters,
      readFont: (address) => Promise.resolve(readFileSync(address)),
      title: 'Who answers whom',
      told: { short: 'A map.', long: 'It has 12 accounts.' },
      made: new Date('2026-05-31T00:00:00Z'),
    };
    writeFileSync(path, await paintPdf(scene, options));
  });

  it('has a form that is right, a title, a language and words for those who do not see it', () => {
    expect(run('qpdf', '--check', path)).toContain('No syntax or stream encoding errors found');
    const info = run('pdfinfo', path);
    expect(info).toMatch(/Title:\s+Who answers whom/);
    expect(info).toMatch(/Tagged:\s+yes/);
    expect(info).toMatch(/Pages:\s+1/);
    expect(info).toMatch(/Page size:\s+480 x 3\d\d/);
    const plain = join(folder, 'plain.pdf');
    run('qpdf', '--qdf', '--object-streams=disable', path, plain);
    const words = readFileSync(plain, 'latin1');
    expect(words).toContain('/Lang (en)');
    expect(words).toContain('/Alt (A map. It has 12 accounts.)');
  });

  it('has its letters in it: they can be searched, each once, in every script', () => {
    const text = run('pdftotext', '-layout', path, '-').normalize('NFC');
    for (const { text: one } of [scene.texts[0], scene.texts[1], scene.legend.texts[0]])
      expect(text.split(one)).toHaveLength(2);
    expect(text).toContain('מגדל');
    expect(text.replace(/\s+/g, ' ')).toContain(caption);
    const fonts = run('pdffonts', path).trim().split('\n').slice(2);
    expect(fonts.length).toBeGreaterThan(2);
    // Embedded, as a subset, with what its letters mean.
    for (const font of fonts) expect(font).toMatch(/yes yes yes/);
  });

  /** How far the PDF that was written last is from the SVG of a scene: on average, and in how many points by far. */
  const offFrom = async (drawn: Scene): Promise<{ mean: number; far: number }> => {
    const a = await rendered();
    const svg = paintSvg(drawn, { width: 480, caption, letters });
    const b = new Resvg(svg, { font: { loadSystemFonts: false } }).render().pixels;
    expect(a.length).toBe(b.length);
    let [sum, far] = [0, 0];
    for (let i = 0; i < a.length; i += 4) {
      const off = Math.max(...[0, 1, 2].map((c) => Math.abs(a[i + c] - b[i + c])));
      sum += off;
      if (off > 80) far++;
    }
    return { mean: sum / (a.length / 4), far: far / (a.length / 4) };
  };

  it('looks as the SVG does, drawn by two renderers that share no code', async () => {
    const { mean, far } = await offFrom(scene);
    expect(mean).toBeLessThan(2);
    expect(far).toBeLessThan(0.004);
  });

  it('looks as the SVG does with several pictures on a page, each cut where it ends', async () => {
    const none = { regions: [], lines: [], curves: [], triangles: [], discs: [], pies: [], pictures: [], rings: [], leaders: [] }; // prettier-ignore
    const half = { ...scene, width: 230, height: 280 };
    const page: Scene = {
      ...scene,
      ...none,
      texts: [name('a', 18, { x: 6 })],
      legend: { ...scene.legend, texts: [], discs: [] },
      panels: [
        { x: 4, y: 30, scene: half, under: null },
        { x: 244, y: 30, scene: half, under: null },
      ],
    };
    writeFileSync(path, await paintPdf(page, options));
    const { mean, far } = await offFrom(page);
    expect(mean).toBeLessThan(2);
    expect(far).toBeLessThan(0.004);
    // What lies beyond the edge of the first picture is not between the two.
    const points = await rendered();
    const column = Array.from({ length: 200 }, (_, y) => [...points.slice(4 * ((y + 40) * 480 + 239), 4 * ((y + 40) * 480 + 242))].join()); // prettier-ignore
    expect(new Set(column).size).toBe(1);
    expect(run('pdftotext', path, '-').split('Brücke')).toHaveLength(3);
    writeFileSync(path, await paintPdf(scene, options));
  });

  it('is the same file each time', async () => {
    const again = await paintPdf(scene, options);
    expect(Buffer.from(again).equals(readFileSync(path))).toBe(true);
  });

  it('can have its ties as a picture', async () => {
    const canvas = createCanvas(480, 320);
    const pen = canvas.getContext('2d');
    pen.fillStyle = '#00A000';
    pen.fillRect(100, 270, 40, 40);
    const address = `${DATA}${canvas.toBuffer('image/png').toString('base64')}`;
    writeFileSync(path, await paintPdf(scene, { ...options, ties: address }));
    const points = await rendered();
    const at = (x: number, y: number): number[] => [
      ...points.slice(4 * (y * 480 + x), 4 * (y * 480 + x) + 3),
    ];
    expect(at(120, 290)).toEqual([0, 160, 0]);
    // The curve is not drawn, the node is.
    expect(at(330, 200)).toEqual(at(330, 215));
    expect(at(56, 120)[0]).toBeGreaterThan(200);
    // All that lies below the names: then nodes are not drawn either, but names are.
    writeFileSync(path, await paintPdf(scene, { ...options, under: address }));
    const below = await rendered();
    expect([...below.slice(4 * (120 * 480 + 46), 4 * (120 * 480 + 46) + 3)]).toEqual(at(470, 10));
    expect(run('pdftotext', path, '-')).toContain('Brücke');
  });
});
