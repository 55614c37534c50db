import { expect, test } from '@playwright/test';
import { readFile } from 'node:fs/promises';
import { beginStudy, drop, openFirstMap } from './steps';

test('the back key takes a search back, and an emptied one stays empty', async ({ page }) => {
  await beginStudy(page, 'Back and forth');
  await drop(page, 'tidepost.csv');
  await page.getByRole('button', { name: 'Import', exact: true }).press('Enter');
  // What came is said where the focus is.
  await expect(page.getByRole('heading', { name: 'tidepost.csv is in' })).toBeFocused();
  const list = page.locator('pt-reading-list');
  const search = page.getByLabel('Search the texts');
  await expect(list.getByText('9,000 messages')).toBeVisible();
  await search.fill('nothing of this kind');
  await search.press('Enter');
  await expect(list.getByText('No message fits these filters.')).toBeVisible();
  await search.fill('');
  await search.press('Enter');
  await expect(list.getByText('9,000 messages')).toBeVisible();

  await page.goBack();
  await expect(search).toHaveValue('nothing of this kind');
  await expect(list.getByText('No message fits these filters.')).toBeVisible();
  await page.goForward();
  await expect(search).toHaveValue('');
  await expect(list.getByText('9,000 messages')).toBeVisible();

  await page.getByLabel('Kind of message').selectOption('reply');
  await expect(page).toHaveURL(/kind=reply/);
  await page.reload();
  await expect(page.getByLabel('Kind of message')).toHaveValue('reply');
});

test('the focus goes along to the next stop, and stays where something is saved', async ({ page }) => {
  await openFirstMap(page, 'By keys');
  await page.getByRole('link', { name: /^Weave/ }).press('Enter');
  await expect(page.getByRole('heading', { name: 'Weave', exact: true })).toBeFocused();
  await page.getByRole('link', { name: /^Publish/ }).press('Enter');
  await expect(page.getByRole('heading', { name: 'Publish', exact: true })).toBeFocused();
  const save = page.getByRole('button', { name: 'Save SVG' });
  await expect(save).toBeEnabled();
  await save.focus();
  const [saved] = await Promise.all([page.waitForEvent('download'), save.press('Enter')]);
  await expect(save).toBeFocused();

  // Letters are shapes at first: no font is needed, and what they say can still be found.
  const svg = await readFile(await saved.path(), 'utf8');
  expect(svg).not.toContain('<text');
  expect(svg).not.toContain('@font-face');
  expect(svg).toContain('aria-label="Colour: community"');
  await page.getByLabel('Letters in SVG').selectOption('text');
  const [edited] = await Promise.all([page.waitForEvent('download'), save.press('Enter')]);
  const text = await readFile(await edited.path(), 'utf8');
  expect(text).toContain('Colour: community</text>');
  expect(text).toContain('@font-face');
});
