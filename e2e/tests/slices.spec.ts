import { expect, test } from '@playwright/test';
import { beginStudy, drop } from './steps';

test('a name made while reading, a category, a choice of messages, and slices in time', async ({ page }) => {
  await beginStudy(page, 'Slices');
  await drop(page, 'tidepost.csv');
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  await expect(page.getByRole('button', { name: /tidepost\.csv · 9,000 messages/ })).toBeVisible();

  // What is selected in a message becomes a name.
  await page.locator('cdk-virtual-scroll-viewport article').nth(1).press('Enter');
  const text = page.locator('pt-message-view pt-message-text').first();
  await text.dblclick({ position: { x: 110, y: 10 } });
  await page.getByRole('button', { name: 'Find it in all messages' }).click();
  await expect(page.getByText(/1 name of a list was looked for in 9,000 messages/)).toBeVisible();

  // A filter is kept, to choose messages by.
  await page.getByLabel('Kind of message').selectOption('reply');
  await page.getByRole('button', { name: 'Keep this filter' }).click();
  await page.getByLabel('Name of the filter').fill('Answers');
  await page.getByLabel('Name of the filter').press('Enter');
  await expect(page.getByRole('button', { name: 'Answers', exact: true })).toBeVisible();

  // Hashtags of moths and bats are one category, which a network carries along.
  await page.getByRole('link', { name: /Tidy/ }).click();
  await page.getByText('Categories of your own').click();
  await page.getByLabel('Category', { exact: true }).fill('theme');
  await page.getByLabel('Which of the category').fill('animals');
  await page.getByLabel('To which').selectOption('rule');
  await page.getByLabel('Contains').fill('moth | bat');
  await page.getByRole('button', { name: 'Give' }).click();
  await expect(page.locator('pt-thing-table .category').first()).toHaveText('theme: animals');

  // One network for the whole time and one for each month, of answers alone.
  await page.getByRole('link', { name: /Weave/ }).click();
  await page.getByText('Which messages are taken').click();
  await page.getByLabel('Only messages of the filter').selectOption('Answers');
  await page.getByText('Slices in time').click();
  await page.getByLabel('Slices', { exact: true }).selectOption('month');
  await page.getByRole('button', { name: 'Weave and open the map' }).click();
  const stepper = page.getByRole('group', { name: 'Slices in time' });
  await expect(stepper.getByRole('combobox')).toHaveValue(/./);
  await page.getByRole('button', { name: 'Later slice' }).click();
  await expect(page.getByRole('button', { name: '1 March to 31 March 2026' })).toBeVisible();
  await page.getByRole('button', { name: 'Later slice' }).click();
  await expect(page.getByRole('button', { name: '1 April to 30 April 2026' })).toBeVisible();
});
