import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { openFirstMap } from './steps';

test('a map is made ready for print in under two minutes', async ({ page }) => {
  test.setTimeout(180_000);
  await openFirstMap(page, 'Ready for print');
  const phrase = (text: string | RegExp) => page.locator('.caption button').filter({ hasText: text });
  const settings = page.getByRole('dialog');
  const began = Date.now();

  // Only who is tied with five others or more, which the caption says.
  await phrase(/1,320 accounts/).click();
  await settings.getByLabel('New condition').selectOption('range');
  await settings.getByRole('spinbutton', { name: 'At least' }).fill('5');
  await settings.getByRole('spinbutton', { name: 'At least' }).press('Tab');
  await expect(phrase(/with degree of at least 5/)).toBeVisible();
  await expect(settings.getByRole('status').first()).toContainText('of 1,320 accounts');
  await page.keyboard.press('Escape');

  // Communities as islands, outlined, with a title.
  await phrase('by attraction').click();
  await expect(settings.getByText('ties that cross')).toBeVisible();
  await settings.getByLabel('Arrangement', { exact: true }).selectOption('islands');
  await settings.getByRole('button', { name: 'Arrange', exact: true }).click();
  await expect(phrase('as islands')).toBeVisible();
  await page.getByRole('button', { name: 'Looks' }).click();
  await page.getByRole('button', { name: 'Communities', exact: true }).click();
  await page.getByRole('button', { name: 'Looks' }).click();
  await expect(phrase('bundled')).toBeVisible();
  await phrase('community').first().click();
  await settings.getByLabel('Title of 1', { exact: true }).fill('Night workers');
  await settings.getByLabel('Title of 1', { exact: true }).press('Tab');
  await page.keyboard.press('Escape');

  // The figure has all of it, and the sentence under it says so.
  await page.getByRole('link', { name: /Publish/ }).click();
  await expect(page.locator('pt-publish img')).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save SVG' }).click(),
  ]);
  const figure = readFileSync(await download.path(), 'utf8');
  expect(figure).toContain('Night workers');
  expect(figure).toContain('with degree of at least 5');
  expect(figure.match(/fill-opacity="0.11"/g)!.length).toBeGreaterThanOrEqual(6);
  expect(Date.now() - began).toBeLessThan(120_000);

  // Every step of it is in the logbook.
  await page.getByRole('link', { name: /Logbook/ }).click();
  await expect(page.getByText(/The map was arranged as islands/).first()).toBeVisible();
});

test('matrix, charts and map share one selection; what one arrangement cannot do is said', async ({
  page,
}) => {
  test.setTimeout(120_000);
  await page.goto('/');
  await page.getByRole('link', { name: 'The lamps of Sallowmere' }).first().click();
  await page.getByRole('link', { name: /^Map/ }).click();
  await expect(page.getByRole('tab', { name: /^Accounts/ })).toBeVisible({ timeout: 60_000 });
  await page.getByRole('tab', { name: 'Charts' }).click();
  await page.getByRole('radio', { name: 'Matrix' }).click();
  const canvas = page.locator('pt-matrix-panel canvas');
  await expect(canvas).toBeVisible();
  // The first row is that of the first account of the first community.
  await canvas.click({ position: { x: 156, y: 5 } });
  await expect(page.locator('pt-reading-pane h2')).toBeVisible();
  await page.getByRole('button', { name: 'Hold in place' }).click();
  await expect(page.getByRole('button', { name: 'Held in place: free it' })).toBeVisible();

  // A filter that leaves nothing says so, and is taken away.
  await page.locator('.caption button').first().click();
  await page.getByLabel('New condition').selectOption('named');
  await page.getByLabel('Text in the name').fill('nobody is called so');
  await page.keyboard.press('Escape');
  await expect(page.getByText('Nothing is left by what the caption asks for.')).toBeVisible();
  await page.getByRole('button', { name: 'Show all' }).click();
  await expect(page.getByRole('tab', { name: 'Accounts 1,320' })).toBeVisible();

  const phrase = page.locator('.caption button').filter({ hasText: 'by attraction' });
  await phrase.click();
  await page.getByLabel('Arrangement', { exact: true }).selectOption('few-crossings');
  await page.getByRole('button', { name: 'Arrange', exact: true }).click();
  await expect(page.getByText(/at most 60 nodes can be arranged/)).toBeVisible();
  await expect(phrase).toBeVisible();
  // What was changed last is kept when the page is left, not where it is ended from without.
  await page.goto('/');
});

test('what was changed just before the page is left, or another map is opened, is kept', async ({ page }) => {
  await openFirstMap(page, 'Left in a hurry');
  const outlined = page.locator('.caption button').filter({ hasText: /^component$/ });
  await page
    .locator('.caption button')
    .filter({ hasText: /^community$/ })
    .click();
  await page.getByRole('dialog').getByRole('combobox').first().selectOption('component');
  await expect(outlined).toBeVisible();
  const map = page.url();
  await page.goto('/');
  await page.goto(map);
  await expect(page.getByRole('tab', { name: /^Accounts/ })).toBeVisible();
  await expect(outlined).toBeVisible();
});

test('what is open on the map stands in the address: back, forward and links go by it', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'The lamps of Sallowmere' }).first().click();
  await page.getByRole('navigation').getByRole('link', { name: /^Map/ }).click();
  const finder = page.getByPlaceholder('Find an account');
  const heading = (name: string) => page.locator('pt-reading-pane').getByRole('heading', { name });
  await finder.fill('nightbus14');
  await finder.press('Enter');
  await expect(heading('Night Bus 14')).toBeVisible();
  await page.getByRole('tab', { name: 'Measures' }).click();
  await page.getByRole('radio', { name: 'Ranking' }).click();
  await expect(page).toHaveURL(/node=nightbus14.*panel=ranks|panel=ranks.*node=nightbus14/);
  await expect(page).toHaveTitle('Map · The lamps of Sallowmere · Pebble Thread');
  const link = page.url();
  await page.goBack();
  await expect(page.getByRole('radio', { name: 'By question' })).toBeChecked();
  await page.goBack();
  await expect(page.getByRole('radio', { name: 'By question' })).toBeHidden();
  await page.goBack();
  await expect(page.locator('pt-reading-pane')).toBeHidden();
  await page.goForward();
  await expect(heading('Night Bus 14')).toBeVisible();
  await page.goto('/');
  await page.goto(link);
  await expect(heading('Night Bus 14')).toBeVisible();
  await expect(page.getByRole('radio', { name: 'Ranking' })).toBeChecked();
});

test('the table stays where it is scrolled to while the map is changed, and follows what is typed', async ({
  page,
}) => {
  await openFirstMap(page, 'A long table');
  await page.getByRole('tab', { name: 'Accounts 1,320' }).click();
  const rows = page.locator('.ag-pinned-left-cols-container .ag-row');
  await expect(rows.first()).toContainText('wall_lamps_now');
  await rows.first().hover();
  await page.mouse.wheel(0, 6000);
  const first = (): Promise<number> =>
    rows.evaluateAll((all) => Math.min(...all.map((one) => Number(one.getAttribute('row-index')))));
  await expect.poll(first).toBeGreaterThan(90);
  await page.waitForTimeout(500);
  const row = page.locator(`.ag-pinned-left-cols-container [row-index="${(await first()) + 12}"]`);
  await expect(row).toBeVisible();
  const name = (await row.textContent())!;
  await expect(row).toContainText(/\w/);

  await page
    .locator('.caption button')
    .filter({ hasText: /^community$/ })
    .click();
  await page.getByRole('dialog').getByRole('combobox').first().selectOption('component');
  await page.keyboard.press('Escape');
  await expect(page.locator('.caption button').filter({ hasText: /^component$/ })).toBeVisible();
  await page.waitForTimeout(500);
  await expect(row).toHaveText(name);

  // Ties have other columns; back at the accounts their filter is a word.
  await page.getByRole('tab', { name: 'Ties 6,799' }).click();
  await expect(page.locator('.ag-center-cols-container [row-index="0"]')).toContainText(/\w/);
  await page.getByRole('tab', { name: 'Accounts 1,320' }).click();
  await page.getByPlaceholder('Filter the table').fill('nightbus');
  await expect(rows).toHaveCount(1);
  await expect(rows.first()).toContainText('nightbus14');
});
