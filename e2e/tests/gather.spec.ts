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
  await expect(page.locator('pt-message-view').getByRole('row', { name: /^to / })).toContainText('.example');
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

  // Or all become one source, and each message keeps the name of its file.
  await page
    .locator('input[type=file]')
    .setInputFiles([part('may.csv', '4,ann,four'), part('june.csv', '5,ben,five\n6,,six')]);
  await page.getByRole('button', { name: 'As one source' }).click();
  await expect(page.getByRole('button', { name: /may\.csv and 1 more file · 2 messages/ })).toBeVisible();
  const list = page.locator('pt-reading-list');
  await page.getByLabel('Search the texts').fill('five');
  await page.getByLabel('Search the texts').press('Enter');
  await expect(list.getByText('1 message', { exact: true })).toBeVisible();
  await list.locator('article').first().click();
  await expect(page.locator('pt-message-view').getByRole('row', { name: /^file / })).toContainText(
    'june.csv',
  );
});

test('videos with comments, follower lists, a sign-in sheet and groups find their places', async ({
  page,
}) => {
  await beginStudy(page, 'Other materials');
  await drop(page, 'reelcove-comments.csv', 'reelcove-videos.csv');
  await page.getByRole('button', take).click();
  await expect(page.getByText('videos, pages or other items, one a row')).toBeAttached();
  await page.getByRole('button', take).click();
  await expect(page.getByRole('button', { name: /reelcove-videos\.csv · 60 items/ })).toBeVisible();

  // From an item to its comments, and to the thread of one of them.
  await page.getByRole('tab', { name: 'Items' }).click();
  await page.locator('pt-item-table tbody button').first().click();
  const list = page.locator('pt-reading-list');
  await expect(list.locator('mat-chip').filter({ hasText: /^\s*under rc\d+/ })).toBeVisible();
  await page.getByLabel('Kind of message').selectOption('reply');
  await list.locator('article').first().click();
  const view = page.locator('pt-message-view');
  await expect(view.getByRole('region', { name: 'Thread' })).toContainText(/Thread · \d+ messages/);

  // A star is kept, and the list can be asked for it; the filter is kept under a name.
  await view.getByRole('button', { name: 'star' }).click();
  await view.getByLabel('Note').fill('for chapter 3');
  await view.getByLabel('Note').blur();
  await list.getByRole('button', { name: 'Show all' }).click();
  await page.getByLabel('Marked messages').selectOption('starred');
  await expect(list.getByText('1 message', { exact: true })).toBeVisible();
  await expect(list.locator('article').first()).toContainText('note');
  await list.getByRole('button', { name: 'Keep this filter' }).click();
  await list.getByLabel('Name of the filter').fill('Starred');
  await list.getByRole('button', { name: 'Keep', exact: true }).click();
  await list.getByRole('button', { name: 'Show all' }).click();
  await expect(list.getByText('5,000 messages')).toBeVisible();
  await list.getByRole('button', { name: 'Starred', exact: true }).click();
  await expect(list.getByText('1 message', { exact: true })).toBeVisible();

  // Follower lists of one shape go in together, each with the account of its own name.
  await drop(page, 'followers of quay_traders.csv', 'followers of marsh_records.csv');
  await expect(page.getByLabel('These accounts follow')).toHaveValue('quay_traders');
  await page.getByRole('button', { name: 'Import all 2 of this shape' }).click();
  await expect(
    page.getByRole('button', { name: /marsh_records\.csv · 200 ties of following/ }),
  ).toBeVisible();
  await page.getByRole('tab', { name: 'Accounts' }).click();
  await page.getByPlaceholder('Find an account').fill('marsh_records');
  await expect(page.locator('pt-account-table tbody tr').first()).toContainText('200');

  // A sheet of people by meetings becomes a map; groups of another length are refused with the difference.
  await drop(page, 'sign-in-sheet.csv');
  await expect(page.getByText(/85 nodes and \d+ ties \(directed/)).toBeVisible();
  await page.getByRole('button', take).click();
  await expect(page.getByRole('button', { name: /^85 nodes$/ })).toBeVisible();
  await page.getByRole('link', { name: /Gather/ }).click();
  await drop(page, 'mail-groups.csv');
  await page.getByRole('button', take).click();
  await expect(page.getByRole('alert')).toContainText('The groups do not fit the network');
  await expect(page.getByRole('alert')).toContainText('85 nodes have no group');
});
