import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
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

/** The numbers that this program gave in November 2026; they change only where an algorithm does, which a decision says. */
const KNOWN = 'd81f9dd2f72b678043420691bc011843f6684ef7b22c5e1dbdf8b6c92e6bb0f5';

const sum = (text: string): string => createHash('sha256').update(text).digest('hex');

async function program(): Promise<string> {
  const { outputFiles } = await build({
    stdin: { contents: PROGRAM, resolveDir: join(import.meta.dirname, '../../packages/core'), loader: 'js' },
    bundle: true,
    write: false,
    format: 'iife',
    logLevel: 'error',
  });
  return outputFiles[0].text;
}

test('the same seed gives the same numbers in the browser and in Node.js, to the last bit, as it always did', async ({
  page,
}) => {
  const code = await program();
  const scope: { answer?: string } = {};
  new Function('globalThis', code)(scope);
  await page.goto('about:blank');
  const answer = await page.evaluate((text) => {
    const inside: { answer?: string } = {};
    new Function('globalThis', text)(inside);
    return inside.answer!;
  }, code);
  expect(answer.length).toBeGreaterThan(1000);
  expect(sum(answer)).toBe(sum(scope.answer!));
  expect(sum(answer)).toBe(KNOWN);
});

test('another engine gives the same numbers', async () => {
  const firefox = '/usr/bin/firefox-esr';
  test.skip(!existsSync(firefox), 'Firefox of the packages of Debian is not installed here.');
  test.setTimeout(180_000);
  const code = await program();
  const server = createServer();
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  const answer = await new Promise<string>((done, fail) => {
    // Debian's Firefox cannot be driven from here: its page computes by itself, and sends what came out.
    server.on('request', (request: IncomingMessage, response: ServerResponse) => {
      if (request.method === 'GET') {
        response.setHeader('content-type', 'text/html; charset=utf-8');
        response.end(`<script>${code.replaceAll('</script', '<\\/script')}
          fetch('/', { method: 'POST', body: globalThis.answer });</script>`);
        return;
      }
      let text = '';
      request.setEncoding('utf8').on('data', (part: string) => (text += part));
      request.on('end', () => {
        response.end();
        stop();
        done(text);
      });
    });
    const profile = mkdtempSync(join(tmpdir(), 'pebble-firefox-'));
    const { port } = server.address() as AddressInfo;
    const browser = spawn(firefox, ['--headless', '--profile', profile, `http://127.0.0.1:${port}/`], {
      stdio: 'ignore',
      env: { ...process.env, HOME: profile },
    });
    const late = setTimeout(() => {
      stop();
      fail(new Error('Firefox gave no answer.'));
    }, 150_000);
    const stop = (): void => {
      clearTimeout(late);
      server.close();
      browser.kill();
      rmSync(profile, { recursive: true, force: true, maxRetries: 5 });
    };
  });
  expect(sum(answer)).toBe(KNOWN);
});
