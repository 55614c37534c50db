import { expect, test, type Page } from '@playwright/test';
import { barriers, layoutFaults } from '../seen/faults';
import { STATES } from '../seen/states';
import { VIEWS } from '../screenshots/views';

const MAIN = VIEWS.filter(
  ({ name }) => !['map-night', 'gather-collecting', 'map-islands', 'map-beside'].includes(name),
);
/** Of a desk, of a tablet, of a telephone, and of a desk where everything is twice as large. */
const WINDOWS = [
  { width: 1280, height: 800 },
  { width: 800, height: 900 },
  { width: 390, height: 844 },
  { width: 640, height: 400 },
];

interface Seen {
  readonly name: string;
  readonly show: (page: Page) => Promise<void>;
  readonly says?: RegExp;
}

for (const { name, show, says } of [...MAIN, ...STATES] as readonly Seen[])
  test(`${name}: can be read and worked by everybody`, async ({ page }) => {
    const said: string[] = [];
    page.on('console', (message) => {
      // The test itself reads pixels.
      const isOurs = !message.text().includes('willReadFrequently') && !says?.test(message.text());
      if (isOurs && ['error', 'warning'].includes(message.type())) said.push(message.text());
    });
    page.on('pageerror', (error) => said.push(String(error)));
    await show(page);
    await page.locator('mat-snack-bar-container').waitFor({ state: 'hidden' });
    await page.mouse.move(2, 2);
    await page.waitForTimeout(600);

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
  });
