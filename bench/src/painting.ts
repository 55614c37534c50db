import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { build } from 'esbuild';
import { keyOf } from '../../e2e/key';
import { under, type Row } from './measure';

const ROOT = join(import.meta.dirname, '../..');
const BROWSER = {
  executablePath: '/usr/bin/chromium',
  args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking'],
};

/** Paints a network of 5,000 nodes in groups and 25,000 ties, laid out, on a canvas of 1280 by 700 in headless Chromium. */
const PROGRAM = `
  import { defaultMap } from '@pebble/contract';
  import { Attraction, buildNames, bundling, buildScene, fitView, makeGraph, paintCanvas, PAPER, prepareMap, Random, TieRaster, toScreen } from '@pebble/core';
  const [n, m] = [5000, 25000];
  const chance = new Random(1);
  const floats = (f) => Float64Array.from({ length: n }, f);
  const nodes = { handle: Array.from({ length: n }, (_, v) => 'account_' + v), community: floats((_, v) => 1 + (v % 9)), inDegree: floats(() => chance.below(200)), betweenness: floats(() => chance.real()) };
  const edges = { source: new Uint32Array(m), target: new Uint32Array(m), weight: new Float64Array(m).fill(1) };
  for (let e = 0; e < m; e++) {
    const a = chance.below(n);
    const b = chance.chance(0.85) ? (a - (a % 200)) + Math.floor(chance.real() ** 2 * 200) : chance.below(n);
    edges.source[e] = a;
    edges.target[e] = b;
  }
  const layout = new Attraction(makeGraph(n, edges.source, edges.target), { seed: 1, gravity: 1, repulsion: 10 });
  for (let i = 0; i < 200; i++) layout.iterate();
  const x = Float32Array.from(layout.x), y = Float32Array.from(layout.y);
  const map = prepareMap({ nodeCount: n, nodes, edges }, defaultMap);
  const size = { width: 1280, height: 700 };
  const canvas = document.createElement('canvas');
  canvas.width = size.width; canvas.height = size.height;
  document.body.append(canvas);
  const pen = canvas.getContext('2d', { alpha: false });
  const view = fitView(x, y, map.radius, map.nodes, size);
  const frame = (i) => {
    const scene = buildScene({ map, x, y, view: { ...view, x: view.x + (i % 3) }, size, theme: PAPER, focus: null });
    paintCanvas(pen, scene);
    pen.getImageData(0, 0, 1, 1);
  };
  const last = document.createElement('canvas');
  last.width = size.width; last.height = size.height;
  const shift = (i) => { pen.fillRect(0, 0, size.width, size.height); pen.drawImage(last, i % 7, i % 5); pen.getImageData(0, 0, 1, 1); };
  const mean = (work, times) => { for (let i = 0; i < 4; i++) work(i); const t = performance.now(); for (let i = 0; i < times; i++) work(i); return (performance.now() - t) / times; };
  const paint = mean(frame, 12);
  last.getContext('2d').drawImage(canvas, 0, 0);
  // What is picked out fades the rest.
  const picked = new Set(Array.from({ length: 200 }, (_, v) => v));
  const touched = new Set();
  for (let e = 0; e < m; e++) if (picked.has(edges.source[e]) && picked.has(edges.target[e])) touched.add(e);
  const focus = { nodes: picked, around: new Set(), edges: touched };
  const fade = mean(() => { paintCanvas(pen, buildScene({ map, x, y, view, size, theme: PAPER, focus })); pen.getImageData(0, 0, 1, 1); }, 8);
  // Names for 2,000 candidates.
  const many = prepareMap({ nodeCount: n, nodes, edges }, { ...defaultMap, names: { ...defaultMap.names, count: 2000 } });
  const screen = toScreen({ map: many, x, y, view });
  const names = mean(() => buildNames({ map: many, x, y, view, size, theme: PAPER, focus: null }, screen, []), 8);
  // Bundling of 5,000 ties.
  const few = { source: edges.source.slice(0, 5000), target: edges.target.slice(0, 5000), weight: edges.weight.slice(0, 5000) };
  const bundle = mean(() => {
    const bundled = prepareMap({ nodeCount: n, nodes, edges: few }, { ...defaultMap, ties: { ...defaultMap.ties, form: 'bundled' } });
    buildScene({ map: bundled, x, y, view, size, theme: PAPER, focus: null });
  }, 4);
  const drawTogether = () => {
    const steps = bundling({ edges: Uint32Array.from(few.source, (_, e) => e), ...few, x, y });
    while (!steps.next().done);
  };
  const free = mean(drawTogether, 2);
  // A network of 20,000 nodes and 100,000 ties: the first picture from its tables and places, and another one.
  const [n2, m2] = [20000, 100000];
  const wide = (f) => Float64Array.from({ length: n2 }, f);
  const nodes2 = { handle: Array.from({ length: n2 }, (_, v) => 'account_' + v), community: wide((_, v) => 1 + (v % 9)), inDegree: wide(() => chance.below(200)), betweenness: wide(() => chance.real()) };
  const edges2 = { source: Uint32Array.from({ length: m2 }, () => chance.below(n2)), target: Uint32Array.from({ length: m2 }, () => chance.below(n2)), weight: new Float64Array(m2).fill(1) };
  const x2 = Float32Array.from({ length: n2 }, () => chance.real() * 4000), y2 = Float32Array.from({ length: n2 }, () => chance.real() * 2400);
  const began = performance.now();
  const large = prepareMap({ nodeCount: n2, nodes: nodes2, edges: edges2 }, defaultMap);
  const far = fitView(x2, y2, large.radius, large.nodes, size);
  // As the map does it: a sketch of the ties at once, a sharp picture afterwards, of which two workers paint a half each.
  const raster = new TieRaster();
  const layer = document.createElement('canvas');
  const picture = (scene, ratio, every) => {
    const { width, height, rgba } = raster.paint(scene, ratio, { every });
    layer.width = width; layer.height = height;
    layer.getContext('2d').putImageData(new ImageData(rgba, width, height), 0, 0);
    return layer;
  };
  const wideScene = () => buildScene({ map: large, x: x2, y: y2, view: far, size, theme: PAPER, focus: null });
  const wideFrame = (ratio = 0.5, every = 3) => { const scene = wideScene(); paintCanvas(pen, scene, picture(scene, ratio, every)); pen.getImageData(0, 0, 1, 1); };
  const half = () => raster.paint(wideScene(), 1, { from: 0, until: 350 });
  const asPaths = () => { paintCanvas(pen, wideScene()); pen.getImageData(0, 0, 1, 1); };
  wideFrame();
  const first = performance.now() - began;
  globalThis.answer = { paint, move: mean(shift, 60), fade, names, bundle, free, first, again: mean(() => wideFrame(), 4), sharp: mean(half, 3), paths: mean(asPaths, 2) };
`;

interface Painted {
  readonly paint: number;
  readonly move: number;
  readonly fade: number;
  readonly names: number;
  readonly bundle: number;
  readonly free: number;
  readonly first: number;
  readonly again: number;
  readonly sharp: number;
  readonly paths: number;
}

export async function painting(): Promise<Row[]> {
  const { outputFiles } = await build({
    stdin: { contents: PROGRAM, resolveDir: join(ROOT, 'packages/core') },
    bundle: true,
    write: false,
    format: 'iife',
    logLevel: 'error',
  });
  const browser = await chromium.launch(BROWSER);
  try {
    const page = await browser.newPage();
    const answer = await page.evaluate((code) => {
      const scope: { answer?: Painted } = {};
      new Function('globalThis', code)(scope);
      return scope.answer!;
    }, outputFiles[0].text);
    return [
      under(
        'Painting a frame: scene and canvas',
        '5,000 nodes, 25,000 ties, 1280 x 700',
        answer.paint,
        60,
        'ms',
      ),
      under('Moving the map: a frame', 'the same', answer.move, 20, 'ms'),
      under('Picking 200 nodes out, the rest faded', 'the same', answer.fade, 100, 'ms'),
      under('Names for 2,000 candidates', 'the same', answer.names, 30, 'ms'),
      under('Bundling by groups', '5,000 nodes, 5,000 ties', answer.bundle, 3000, 'ms'),
      under('Bundling by forces', 'the same', answer.free, 3000, 'ms'),
      under('First picture from tables and places', '20,000 nodes, 100,000 ties', answer.first, 5000, 'ms'),
      under(
        'Painting it again',
        'the same, the ties as a sketch',
        answer.again,
        300,
        'ms',
        `sharp ${Math.round(answer.sharp)} ms in each of two workers; as paths of the canvas ${Math.round(answer.paths)} ms`,
      ),
      ...(await firstMap(browser)),
    ];
  } finally {
    await browser.close();
  }
}

/** From pressing the button to the first picture of the map, on the demo study. */
async function firstMap(browser: Awaited<ReturnType<typeof chromium.launch>>): Promise<Row[]> {
  const folder = mkdtempSync(join(tmpdir(), 'pebble-bench-'));
  const port = 4671;
  const server = spawn(process.execPath, [join(ROOT, 'apps/server/dist/main.js')], {
    env: { ...process.env, PORT: String(port), PEBBLE_DATA: folder },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  try {
    await new Promise((resolve) =>
      server.stdout.on('data', (text: Buffer) => void (String(text).includes('ready') && resolve(null))),
    );
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    await page.goto(`http://127.0.0.1:${port}/?key=${keyOf(folder)}`);
    await page.getByRole('link', { name: 'The lamps of Sallowmere' }).click();
    await page.getByRole('link', { name: /Weave/ }).click();
    await page.getByText('6,799').waitFor();
    const started = performance.now();
    await page.getByRole('button', { name: 'Weave and open the map' }).click();
    await page.waitForFunction(
      () => Number(document.querySelector<HTMLElement>('pt-map-canvas canvas')?.dataset['paint'] ?? 0) > 0,
    );
    return [
      under(
        'First map after pressing the button',
        'demo study, 9,000 posts, 1,320 accounts',
        performance.now() - started,
        3000,
        'ms',
      ),
    ];
  } finally {
    server.kill();
    rmSync(folder, { recursive: true, force: true });
  }
}
