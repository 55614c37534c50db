import { createHash } from 'node:crypto';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { build } from 'esbuild';

/** What is computed in both places: all arrangements of a random network, its communities and its betweenness in steps and by weight. */
const PROGRAM = `
  import { LayoutMethod, LayoutSettings } from '@pebble/contract';
  import { arrange, betweenness, betweennessBy, communities, makeGraph, NO_DATA, outRows, pathsByLength, Random } from '@pebble/core';
  const chance = new Random(3);
  const [source, target, seen] = [[], [], new Set()];
  for (let tries = 0; tries < 900; tries++) {
    const [s, t] = [chance.below(300), chance.below(300)];
    if (s === t || seen.has(s * 300 + t)) continue;
    seen.add(s * 300 + t);
    source.push(s);
    target.push(t);
  }
  const graph = makeGraph(300, source, target);
  const groups = communities(graph, { method: 'leiden', resolution: 1, seed: 5, runs: 3 }).of;
  const places = LayoutMethod.options
    .filter((method) => method !== 'few-crossings')
    .map((method) => {
      const settings = LayoutSettings.parse({ method, iterations: 120 });
      const { x, y } = arrange(graph, new Float32Array(300).fill(4), settings, undefined, { ...NO_DATA, groups });
      return [[...x], [...y]];
    });
  const small = makeGraph(10, source.slice(0, 24).map((v) => v % 10), target.slice(0, 24).map((v) => v % 10));
  const few = arrange(small, new Float32Array(10).fill(4), LayoutSettings.parse({ method: 'few-crossings' }));
  const rows = outRows(graph);
  globalThis.answer = JSON.stringify([
    places,
    [[...few.x], [...few.y]],
    [...groups],
    [...communities(graph, { resolution: 1, seed: 5, runs: 3 }).of],
    [...betweenness(rows, { directed: true })],
    [...betweennessBy(pathsByLength, rows, { directed: true }).values],
  ]);
`;

test('the same seed gives the same numbers in the browser and in Node.js, to the last bit', async ({
  page,
}) => {
  const { outputFiles } = await build({
    stdin: { contents: PROGRAM, resolveDir: join(import.meta.dirname, '../../packages/core'), loader: 'js' },
    bundle: true,
    write: false,
    format: 'iife',
    logLevel: 'error',
  });
  const program = outputFiles[0].text;
  const scope: { answer?: string } = {};
  new Function('globalThis', program)(scope);
  await page.goto('about:blank');
  const answer = await page.evaluate((code) => {
    const inside: { answer?: string } = {};
    new Function('globalThis', code)(inside);
    return inside.answer!;
  }, program);
  const sum = (text: string): string => createHash('sha256').update(text).digest('hex');
  expect(answer.length).toBeGreaterThan(1000);
  expect(sum(answer)).toBe(sum(scope.answer!));
});
