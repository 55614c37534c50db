import { expect, test } from '@playwright/test';
import { openFirstMap } from './steps';

test('a study is duplicated, saved as one file, archived, and opened again from both', async ({ page }) => {
  await openFirstMap(page, 'To be copied');
  await page.goto('/');
  const study = (name: string) =>
    page.locator('article').filter({ has: page.getByRole('heading', { name, exact: true }) });
  await page.getByRole('button', { name: 'More for To be copied' }).click();
  await page.getByRole('menuitem', { name: 'Duplicate' }).click();
  await expect(study('To be copied (copy)')).toContainText('9,000 messages · 1,320 accounts');

  await page.getByRole('button', { name: 'More for To be copied', exact: true }).click();
  const [saved] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('menuitem', { name: 'Save as one file' }).click(),
  ]);
  expect(saved.suggestedFilename()).toBe('To be copied.zip');
  const path = await saved.path();
  await page.getByRole('button', { name: 'Delete To be copied', exact: true }).click();
  await expect(study('To be copied')).toBeHidden();
  await page.getByLabel('Saved study').setInputFiles(path);
  await expect(study('To be copied')).toContainText('9,000 messages · 1,320 accounts');

  // The one that was opened has its map, and evidence behind it.
  await page.getByRole('link', { name: 'To be copied', exact: true }).click();
  await expect(page.locator('.caption')).toContainText('1,320 accounts');
  await page.getByLabel('Find an account').fill('nightbus14');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Night Bus 14' })).toBeVisible();
  await page.getByRole('link', { name: /Logbook/ }).click();
  await expect(
    page.getByRole('list').getByText(/The study was opened from the file .* with 9,000 messages/),
  ).toBeVisible();

  await page.goto('/');
  await page.getByRole('button', { name: 'More for To be copied (copy)' }).click();
  await page.getByRole('menuitem', { name: /Archive/ }).click();
  await page.getByText(/^Archived \(1\)$/).click();
  await expect(study('To be copied (copy)')).toBeHidden();
  await page.getByRole('button', { name: 'Open To be copied (copy) again' }).click();
  await expect(study('To be copied (copy)')).toContainText('9,000 messages');
  await expect(page.getByText(/^Archived/)).toBeHidden();

  // A file that is none is refused in words.
  await page
    .getByLabel('Saved study')
    .setInputFiles({ name: 'holiday.zip', mimeType: 'application/zip', buffer: Buffer.from('not a zip') });
  await expect(page.getByRole('alert')).toContainText('This is no zip file');
});
