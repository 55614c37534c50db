import { expect, test } from '@playwright/test';
import { beginStudy } from './steps';

/** Bytes on their way: of the first page with its fonts, and of all programs and styles before the map. */
const MOST = 400_000;

test('the first page is small on its way, and what the map needs comes with the map', async ({ page }) => {
  const network = await page.context().newCDPSession(page);
  await network.send('Network.enable');
  const addresses = new Map<string, string>();
  const sizes = new Map<string, number>();
  network.on('Network.responseReceived', ({ requestId, response }) =>
    addresses.set(requestId, new URL(response.url).pathname),
  );
  network.on('Network.loadingFinished', ({ requestId, encodedDataLength }) =>
    sizes.set(requestId, encodedDataLength),
  );
  /** Of all that came so far, but for what was read of studies. */
  const bytes = (isCounted: (path: string) => boolean): number =>
    [...sizes].reduce((sum, [id, size]) => {
      const path = addresses.get(id) ?? '';
      return sum + (!path.startsWith('/api/') && isCounted(path) ? size : 0);
    }, 0);
  await page.goto('/');
  await expect(page.getByRole('link', { name: 'The lamps of Sallowmere' }).first()).toBeVisible();
  await page.waitForTimeout(1000);
  expect(bytes(() => true)).toBeLessThan(MOST);

  await beginStudy(page, 'Nothing yet');
  await page.waitForTimeout(1000);
  const programs = (): number => bytes((path) => !path.endsWith('.woff2'));
  const before = programs();
  expect(before).toBeLessThan(MOST);
  await page.goto('/');
  await page.getByRole('link', { name: 'The lamps of Sallowmere' }).first().click();
  await expect(page.getByRole('tab', { name: 'Accounts 1,320' })).toBeVisible();
  expect(programs()).toBeGreaterThan(before + 200_000);
});
