import { expect, test } from '@playwright/test';
import { keyOf } from '../key';

// Like a browser that never was here.
test.use({ storageState: { cookies: [], origins: [] } });

test('without the key a browser is asked for it, with it the application opens and stays open', async ({
  page,
}) => {
  const key = keyOf(process.env['E2E_DATA']!);
  await page.goto('/');
  await expect(page.getByRole('heading', { name: 'Pebble Thread needs its key' })).toBeVisible();
  await page.getByLabel('Key').fill('not the key');
  await page.getByRole('button', { name: 'Open' }).click();
  await expect(page.getByRole('alert')).toContainText('This is not the key');

  await page.getByLabel('Key').fill(key);
  await page.getByRole('button', { name: 'Open' }).click();
  await expect(page.getByPlaceholder('Name of a new study')).toBeVisible();
  expect(page.url()).not.toContain(key);
  expect(await page.evaluate(() => document.cookie)).toBe('');
  await page.reload();
  await expect(page.getByPlaceholder('Name of a new study')).toBeVisible();
});
