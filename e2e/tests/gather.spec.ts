import { expect, test } from '@playwright/test';
import { beginStudy, drop } from './steps';

const take = { name: 'Import', exact: true } as const;

test('several files of different kinds go in through one preview', async ({ page }) => {
  await beginStudy(page, 'Every material');
  await drop(page, 'council.mbox', 'tidepost.xlsx', 'broken.graphml', 'mail-network.graphml');

  // One that cannot be read says where, and keeps nothing from the others.
  await expect(page.getByRole('alert')).toContainText('broken.graphml');
  await expect(page.getByRole('alert')).toContainText('has no target');
  await expect(page.getByText('3 files wait:')).toBeVisible();

  await expect(page.getByRole('heading', { name: 'council.mbox' })).toBeVisible();
  await expect(page.getByText('A mailbox (mbox)')).toBeVisible();
  await page.getByRole('button', take).click();

  await expect(page.getByRole('heading', { name: 'tidepost.xlsx', exact: true })).toBeVisible();
  await expect(page.getByLabel('Sheet')).toHaveValue('Posts');
  await page.getByRole('button', take).click();

  // The last is a network: its map opens.
  await expect(page.getByText(/\d+ nodes and [\d,]+ ties \(directed, weighted\)/)).toBeVisible();
  await page.getByRole('button', take).click();
  await expect(page.getByRole('button', { name: /^\d+ nodes$/ })).toBeVisible();
  await expect(page.getByRole('tab', { name: /Nodes \d+/ })).toBeVisible();

  // Emails are read with their people; a source is taken out and back.
  await page.getByRole('link', { name: /Gather/ }).click();
  const list = page.locator('pt-reading-list');
  await expect(list.getByText('3,500 messages')).toBeVisible();
  await page.getByLabel('Kind of message').selectOption('email');
  await expect(list.getByText('1,500 messages')).toBeVisible();
  await list.locator('article').nth(2).click();
  await expect(page.locator('aside').getByRole('row', { name: /^to / })).toContainText('.example');
  await page.getByRole('button', { name: 'Show all' }).first().click();
  await page.getByRole('button', { name: /council\.mbox/ }).click();
  await page.getByRole('button', { name: 'Take out of the study' }).click();
  await expect(list.getByText('2,000 messages')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(list.getByText('3,500 messages')).toBeVisible();

  // The weave offers the ways of addressing that occur.
  await page.getByRole('link', { name: /Weave/ }).first().click();
  await expect(page.getByRole('button', { name: /writes to/ })).toBeVisible();
  await expect(page.getByRole('button', { name: /sends a copy to/ })).toBeVisible();
});

test('cells from a spreadsheet are pasted, corrected and taken in', async ({ page }) => {
  await beginStudy(page, 'Pasted');
  await page.getByRole('button', { name: 'Paste cells' }).click();
  await page.getByLabel('Paste here').fill('author\ttext\nann\thello @ben\nbne\t"two\nlines"\n');
  await page.getByLabel('Row 3, column 1').fill('ben');
  await page.getByLabel('Row 3, column 1').blur();
  await page.getByRole('button', { name: 'Look at it' }).click();
  await expect(page.getByRole('cell', { name: 'ben', exact: true })).toBeVisible();
  await page.getByRole('button', take).click();
  await expect(page.getByText('2 messages').first()).toBeVisible();
  await expect(page.locator('pt-reading-list')).toContainText('two lines');
});

test('files of one shape are taken in together, each as a source of its own', async ({ page }) => {
  await beginStudy(page, 'Alike');
  const part = (name: string, rows: string) => ({
    name,
    mimeType: 'text/csv',
    buffer: Buffer.from(`id,author,text\n${rows}\n`),
  });
  await page
    .locator('input[type=file]')
    .setInputFiles([part('march.csv', '1,ann,one'), part('april.csv', '2,ben,two\n3,ann,three')]);
  await page.getByRole('button', { name: 'Import all 2 of this shape' }).click();
  await expect(page.getByRole('button', { name: /march\.csv · 1 message/ })).toBeVisible();
  await expect(page.getByRole('button', { name: /april\.csv · 2 messages/ })).toBeVisible();
});
