import { randomBytes } from 'node:crypto';
import { existsSync, mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { PlaywrightTestConfig } from '@playwright/test';
import { browser } from './browser';
import { keyCookie, keyFile } from './key';

/** Tests in Chromium on the built application, with the demo in a folder of its own. */
export function onServer({ port, name }: { port: number; name: string }): PlaywrightTestConfig {
  // The configuration is read by several processes; the folder is made once.
  process.env['E2E_DATA'] ??= mkdtempSync(join(tmpdir(), `pebble-${name}-`));
  const data = process.env['E2E_DATA'];
  // The browser of most tests has been given the key already; access.spec.ts begins without it.
  if (!existsSync(keyFile(data))) writeFileSync(keyFile(data), randomBytes(32).toString('base64url'));
  const serverLog = process.env['E2E_SERVER_LOG'] ?? join(tmpdir(), `pebble-${name}-server.log`);
  return {
    workers: 1,
    reporter: process.env['PLAYWRIGHT_JSON_OUTPUT_NAME'] ? [['list'], ['json']] : [['list']],
    outputDir: `../test-results/${name}`,
    use: {
      baseURL: `http://127.0.0.1:${port}`,
      viewport: { width: 1280, height: 800 },
      launchOptions: browser,
      storageState: { cookies: [keyCookie(data, port)], origins: [] },
    },
    webServer: {
      // What it says is kept: where it ended, the last lines tell why (scripts/test.mjs prints them).
      command: `node apps/server/dist/main.js 2>> ${serverLog}`,
      cwd: join(import.meta.dirname, '..'),
      url: `http://127.0.0.1:${port}/api/v1/health`,
      timeout: 60_000,
      env: { PORT: String(port), PEBBLE_DATA: data },
    },
  };
}
