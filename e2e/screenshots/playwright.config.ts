import { join } from 'node:path';
import { defineConfig } from '@playwright/test';
import { onServer } from '../onServer';

/** The main views of the demo, on an application of their own: what other tests change in it is not seen. */
export default defineConfig({
  ...onServer({ port: Number(process.env['PICTURES_PORT'] ?? 4677), name: 'pictures' }),
  testDir: '.',
  timeout: 120_000,
  // The last ones are those of the documentation.
  snapshotPathTemplate: join(import.meta.dirname, '../../docs/screenshots/{arg}{ext}'),
  expect: {
    timeout: 20_000,
    // Times of day and what comes by the second differ from one run to the next.
    toHaveScreenshot: { maxDiffPixelRatio: 0.002 },
  },
});
