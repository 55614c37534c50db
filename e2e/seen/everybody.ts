import { expect, type Page } from '@playwright/test';
import { barriers, layoutFaults } from './faults';

/** Of a desk, of a tablet, of a telephone, and of a desk where everything is twice as large. */
const WINDOWS = [
  { width: 1280, height: 800 },
  { width: 800, height: 900 },
  { width: 390, height: 844 },
  { width: 640, height: 400 },
];

/** Keeps what the console says that nobody asked for. @param wanted what is wanted here */
export function listen(page: Page, wanted?: RegExp): readonly string[] {
  const said: string[] = [];
  page.on('console', (message) => {
    // The test itself reads pixels.
    const isOurs = !message.text().includes('willReadFrequently') && !wanted?.test(message.text());
    if (isOurs && ['error', 'warning'].includes(message.type())) said.push(message.text());
  });
  page.on('pageerror', (error) => said.push(String(error)));
  return said;
}

/** Nothing moves any more, and no notice covers what is to be seen. */
export async function settled(page: Page): Promise<void> {
  await page.locator('mat-snack-bar-container').waitFor({ state: 'hidden' });
  await page.mouse.move(2, 798);
  await page.evaluate(() => document.fonts.ready);
  await page.waitForTimeout(700);
}

/** Whether the screen can be read and worked by everybody: by day and night, in colours of the system, in windows of all sizes. */
export async function expectForEverybody(page: Page, said: readonly string[]): Promise<void> {
  const faults: string[] = [];
  const add = (where: string, found: readonly string[]): void => {
    faults.push(...found.map((fault) => `${where}: ${fault}`));
  };
  add('day', await barriers(page));
  await page.evaluate(() => document.documentElement.classList.add('night'));
  await page.waitForTimeout(400);
  add('night', await barriers(page));
  await page.emulateMedia({ forcedColors: 'active' });
  await page.waitForTimeout(200);
  add('forced colours', await barriers(page, { colours: false }));
  await page.emulateMedia({ forcedColors: 'none' });
  for (const size of WINDOWS) {
    await page.setViewportSize(size);
    await page.waitForTimeout(300);
    add(`${size.width} x ${size.height}`, await layoutFaults(page));
  }
  add('the console', said);
  expect(faults).toEqual([]);
}
