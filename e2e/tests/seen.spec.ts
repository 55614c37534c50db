import { expect, test } from '@playwright/test';
import { barriers, layoutFaults } from '../seen/faults';
import { VIEWS } from '../screenshots/views';

const LIST = VIEWS.filter(
  ({ name }) => !['map-night', 'gather-collecting', 'map-islands', 'map-beside'].includes(name),
);

for (const { name, show } of LIST)
  test(`${name}: can be read and worked by everybody`, async ({ page }) => {
    const said: string[] = [];
    page.on('console', (message) => {
      // The test itself reads pixels.
      const isOurs = !message.text().includes('willReadFrequently');
      if (isOurs && ['error', 'warning'].includes(message.type())) said.push(message.text());
    });
    page.on('pageerror', (error) => said.push(String(error)));
    await show(page);
    await page.locator('mat-snack-bar-container').waitFor({ state: 'hidden' });
    await page.mouse.move(2, 2);
    await page.waitForTimeout(600);
    const faults: string[] = [];
    const found = async (where: string): Promise<void> => {
      await page.waitForTimeout(300);
      faults.push(...(await layoutFaults(page)).map((fault) => `${where}: ${fault}`));
    };
    await found('1280 x 800');
    faults.push(...(await barriers(page)).map((fault) => `day: ${fault}`));
    await page.evaluate(() => document.documentElement.classList.add('night'));
    await page.waitForTimeout(400);
    faults.push(...(await barriers(page)).map((fault) => `night: ${fault}`));
    await page.setViewportSize({ width: 800, height: 900 });
    await found('800 x 900');
    await page.setViewportSize({ width: 390, height: 844 });
    await found('390 x 844');
    faults.push(...said.map((text) => `the console: ${text}`));
    expect(faults).toEqual([]);
  });
