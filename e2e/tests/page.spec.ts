import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { barriers, layoutFaults } from '../seen/faults';
import { listen } from '../seen/everybody';
import { openFirstMap } from './steps';

test('a map goes out as one page with pseudonyms, opened from disk, searched and read by everybody', async ({
  page,
  context,
}, { outputDir }) => {
  test.setTimeout(300_000);
  await openFirstMap(page, 'Shared');
  await expect(page.getByRole('button', { name: 'Stop here' })).toBeHidden({ timeout: 60_000 });
  await expect(page.getByRole('button', { name: /^Community / })).toHaveCount(8);
  await page.getByRole('link', { name: /^Publish/ }).click();
  const figure = page.locator('pt-publish .sheet img');
  await expect(figure).toBeVisible();

  // People get pseudonyms, but for one account.
  await page.getByLabel('What people are called').selectOption('words');
  await page.getByLabel('And these accounts').fill('nightbus14');
  // What ends meanwhile elsewhere takes back nothing that is being chosen.
  const [, study, network] = /studies\/([^/]+)\/publish\/([^/]+)/.exec(page.url())!;
  const status = await page.evaluate(
    async ([of, kind, parameters]) => {
      const body = JSON.stringify({ kind, parameters });
      const headers = { 'content-type': 'application/json' };
      return (await fetch(`/api/v1/studies/${of}/steps`, { method: 'POST', headers, body })).status;
    },
    [study, 'answer-questions', { network, questions: ['close'], settings: {} }] as const,
  );
  expect(status).toBe(200);
  await expect(page.getByRole('button', { name: /^6 sentences/ })).toBeVisible();
  await expect(page.getByLabel('And these accounts')).toHaveValue('nightbus14');
  await page.getByLabel('And these accounts').blur();
  await page.getByRole('button', { name: 'Call them so' }).click();
  await expect(
    page.getByText('1,320 accounts of this study have a pseudonym; here 1 account keeps its name.'),
  ).toBeVisible();

  // What names somebody all the same is told, and nothing is saved before it is settled.
  await page.getByRole('button', { name: 'Make a page' }).click();
  const dialog = page.getByRole('dialog', { name: 'A page to share' });
  await dialog.getByLabel('Title').fill('Around wall_lamps_now');
  await expect(dialog.getByText(/^ *[0-9.]+ MB\./)).toBeVisible();
  await dialog.getByRole('button', { name: 'Save the page' }).click();
  const warning = page.getByRole('dialog', { name: 'People can be found in it' });
  await expect(warning.getByRole('row').filter({ hasText: 'title' })).toContainText('wall_lamps_now');
  await expect(warning.getByRole('button', { name: 'Save all the same' })).toBeDisabled();
  await warning.getByRole('button', { name: 'Do not save' }).click();
  await dialog.getByLabel('Title').fill('Who answers whom');
  await dialog.getByLabel('What of the messages').selectOption('counts');
  await dialog.getByLabel('out-degree', { exact: true }).check();
  await expect(dialog.getByText(/^ *[0-9.]+ MB\./)).toBeVisible();
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    dialog.getByRole('button', { name: 'Save the page' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('Who answers whom.html');
  const file = `${outputDir}/shared.html`;
  await download.saveAs(file);
  const html = readFileSync(file, 'utf8');
  expect(html.length).toBeLessThan(1_500_000);
  expect(html).toContain('nightbus14');
  for (const handle of ['wall_lamps_now', 'proud_voice', 'page_news', 'helm_hand'])
    expect(html).not.toContain(handle);

  // From disk, without the application, in a window of its own.
  const shared = await context.newPage();
  const said = listen(shared);
  const asked: string[] = [];
  shared.on('request', (request) => asked.push(request.url()));
  await shared.goto(`file://${file}`);
  await expect(shared.locator('canvas[data-painted]')).toBeVisible();
  await expect(shared).toHaveTitle('Who answers whom');
  await expect(shared.getByText('1,320 accounts and 6,799 ties.', { exact: true })).toBeVisible();
  expect(asked.filter((url) => !url.startsWith('file:') && !url.startsWith('data:'))).toEqual([]);

  // A node is found by its name, and its numbers and ties are read.
  const find = shared.getByRole('searchbox', { name: 'Find' });
  await find.fill('nightbus');
  await find.press('Enter');
  const reading = shared.getByRole('region', { name: 'What is picked' });
  await expect(reading.getByRole('heading', { name: 'nightbus14' })).toBeVisible();
  await expect(reading).toContainText('in-degree');
  await expect(reading.getByRole('heading', { name: /^From / })).toBeVisible();
  await reading.getByRole('list').last().getByRole('button').last().click();
  await expect(reading.getByRole('heading', { level: 3 })).toContainText('→');
  await expect(reading).toContainText(/replies|mentions|reposts/);

  // A part of it, by the conditions that the caption has, and by keys.
  await shared.getByLabel('Ties of at least this weight').fill('3');
  await shared.getByLabel('nodes without ties too').uncheck();
  await expect(shared.getByRole('status').filter({ hasText: 'of 1,320 accounts' })).toContainText(
    'by ties of weight 3 or more',
  );
  await shared.getByRole('button', { name: 'Show all again' }).click();
  await shared.getByRole('button', { name: 'Let it pass' }).click();
  await expect(shared.getByRole('status').filter({ hasText: 'by ties with messages' })).toBeVisible();
  await shared.getByRole('button', { name: 'Stop' }).click();
  await shared.getByRole('button', { name: 'Show all again' }).click();
  const map = shared.locator('canvas');
  await map.focus();
  const before = await map.screenshot();
  await map.press('+');
  await map.press('ArrowLeft');
  await expect.poll(async () => (await map.screenshot()).equals(before)).toBe(false);

  // Tables have what is shown; the text says how it was made and by whom it can be cited.
  await shared.getByText('The accounts that are shown: 1,320').click();
  const table = shared.getByRole('region', { name: 'The accounts that are shown' });
  await table.getByRole('button', { name: /^out-degree/ }).click();
  await expect(table.getByRole('columnheader', { name: /out-degree/ })).toHaveAttribute(
    'aria-sort',
    'descending',
  );
  await expect(shared.getByRole('heading', { name: 'How it was made' })).toBeVisible();

  const faults = async (where: string): Promise<string[]> =>
    [...(await barriers(shared)), ...(await layoutFaults(shared))].map((fault) => `${where}: ${fault}`);
  const found = [...(await faults('desk'))];
  await shared.emulateMedia({ colorScheme: 'dark' });
  found.push(...(await faults('night')));
  await shared.setViewportSize({ width: 390, height: 844 });
  found.push(...(await faults('telephone')));
  expect([...found, ...said]).toEqual([]);

  // And the logbook has it.
  await page.getByRole('link', { name: /^Logbook/ }).click();
  await expect(
    page.getByText(/The map was saved as a page of its own, “Who answers whom”, with numbers of messages/),
  ).toBeVisible();
});
