import { expect, test } from '@playwright/test';

test('one field leads to a node, to messages and to another study, by keys alone', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'The lamps of Sallowmere' }).first().click();
  await page.getByRole('navigation').getByRole('link', { name: /^Map/ }).click();
  await expect(page.getByRole('tab', { name: 'Accounts 1,320' })).toBeVisible();
  const field = page.getByRole('combobox', { name: 'Search for anything' });
  await page.keyboard.press('Control+k');
  await expect(field).toBeFocused();
  await page.keyboard.type('nightbus');
  await expect(page.getByRole('option', { name: /^nightbus14/ })).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.locator('pt-reading-pane').getByRole('heading', { name: 'Night Bus 14' })).toBeVisible();

  await page.keyboard.press('Control+k');
  await expect(field).toBeFocused();
  await page.keyboard.type('moth count');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/gather\?text=moth(%20|\+)count/);
  await expect(page.getByLabel('Search the texts')).toHaveValue('moth count');

  await page.keyboard.press('Control+k');
  await expect(field).toBeFocused();
  await page.keyboard.type('empty study');
  await page.keyboard.press('Enter');
  await expect(page).toHaveTitle('Gather · Empty study for the files in demo/ · Pebble Thread');

  // What is gone to by arrows is taken.
  await page.keyboard.press('Control+k');
  await expect(field).toBeFocused();
  await expect(page.getByRole('option', { name: /^Tidy/ })).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Tidy', exact: true })).toBeVisible();

  // Left without a choice, nothing changes.
  await page.keyboard.press('Control+k');
  await expect(field).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(field).toBeHidden();
});
