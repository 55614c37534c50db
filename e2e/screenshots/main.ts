import { chromium, type Page } from '@playwright/test';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { browser } from '../browser';
import { keyCookie } from '../key';
import { Served } from '../safety/served';
import { VIEWS } from './views';

/** Pictures of these views alone; of all where none is named. */
const wanted = process.argv.slice(2).filter((name) => !name.startsWith('-'));
const unknown = wanted.filter((name) => !VIEWS.some((view) => view.name === name));
if (unknown.length > 0) throw new Error(`There is no view ${unknown.join(', ')}.`);

const PORT = Number(process.env['SCREENSHOTS_PORT'] ?? 4677);
const folder = mkdtempSync(join(tmpdir(), 'pebble-screenshots-'));
const app = await Served.start(folder, PORT, { standins: true, demo: true });
const chrome = await chromium.launch(browser);
try {
  for (const { name, theme = 'light', show } of VIEWS) {
    if (wanted.length > 0 && !wanted.includes(name)) continue;
    const context = await chrome.newContext({
      baseURL: app.address,
      viewport: { width: 1280, height: 800 },
      colorScheme: theme,
      storageState: { cookies: [keyCookie(folder, PORT)], origins: [] },
    });
    const page = await context.newPage();
    page.setDefaultTimeout(60_000);
    await show(page);
    await settled(page);
    await page.screenshot({ path: join('docs/screenshots', `${name}.png`) });
    process.stdout.write(`${name}\n`);
    await context.close();
  }
} finally {
  await chrome.close();
  await app.stop();
  rmSync(folder, { recursive: true, force: true });
}

/** Nothing moves any more, and no notice covers what is to be seen. */
async function settled(page: Page): Promise<void> {
  await page.locator('mat-snack-bar-container').waitFor({ state: 'hidden' });
  await page.mouse.move(2, 798);
  await page.evaluate(() => document.fonts.ready);
  await page.waitForTimeout(1500);
}
