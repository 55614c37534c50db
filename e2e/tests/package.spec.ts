import { expect, test, type Page } from '@playwright/test';
import { barriers, layoutFaults } from '../seen/faults';
import { listen } from '../seen/everybody';
import { openFirstMap } from './steps';

/** The Publish screen of a study whose map has come to rest and has a plate. */
async function publishWithPlate(page: Page, study: string): Promise<void> {
  await openFirstMap(page, study);
  await expect(page.getByRole('button', { name: 'Stop here' })).toBeHidden({ timeout: 60_000 });
  await expect(page.getByRole('button', { name: /^Community / })).toHaveCount(8);
  await page.keyboard.press('p');
  await expect(page.getByText(/was kept as plate/)).toBeVisible();
  await page.getByRole('link', { name: /^Publish/ }).click();
  await expect(page.locator('pt-publish .sheet img')).toBeVisible();
}

/** The same once portraits have given the groups their titles. */
async function titled(page: Page): Promise<void> {
  await expect(page.locator('pt-publish .sheet img')).not.toHaveAttribute('alt', /“1 · /);
}

test('a report is made of plates, saved in three forms, and read in a browser without the application', async ({
  page,
  context,
}, { outputDir }) => {
  test.setTimeout(240_000);
  await publishWithPlate(page, 'To be told');
  await page.getByRole('button', { name: 'Make a report' }).click();
  const dialog = page.getByRole('dialog', { name: 'A report' });
  await expect(dialog.getByLabel('Title')).toBeFocused();
  await dialog.getByLabel('Title').fill('Who answers whom');
  await dialog.getByLabel('Authors').fill('A. Reader');
  await expect(dialog.getByText(/[\d,]+ words, 1 figure and 3 tables\./)).toBeVisible();
  for (const heading of ['Material', 'The groups', 'What this cannot tell', 'References'])
    await expect(dialog.getByRole('listitem').filter({ hasText: heading })).toBeVisible();
  expect(await barriers(page)).toEqual([]);
  const save = async (form: string): Promise<string> => {
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      dialog.getByRole('button', { name: `Save ${form}` }).click(),
    ]);
    const file = `${outputDir}/${download.suggestedFilename()}`;
    await download.saveAs(file);
    return file;
  };
  expect(await save('DOCX')).toMatch(/Who answers whom\.docx$/);
  expect(await save('Markdown')).toMatch(/Who answers whom \(Markdown\)\.zip$/);
  const file = await save('HTML');

  const shared = await context.newPage();
  const said = listen(shared);
  const asked: string[] = [];
  shared.on('request', (request) => asked.push(request.url()));
  await shared.goto(`file://${file}`);
  await expect(shared.getByRole('heading', { level: 1, name: 'Who answers whom' })).toBeVisible();
  await expect(
    shared.getByText(/^9,000 records of 1 source were kept, 1 March to 31 May 2026/),
  ).toBeVisible();
  await expect(shared.getByRole('img', { name: /^Map of a network: 1,320 accounts/ })).toBeVisible();
  await expect(shared.getByRole('row', { name: /^1 wall_lamps_now/ })).toContainText('489');
  expect(asked.filter((url) => !/^(file|data):/.test(url))).toEqual([]);
  const found = [...(await barriers(shared)), ...(await layoutFaults(shared))];
  await shared.setViewportSize({ width: 390, height: 844 });
  found.push(...(await layoutFaults(shared)));
  await shared.emulateMedia({ colorScheme: 'dark' });
  found.push(...(await barriers(shared)));
  expect([...found, ...said]).toEqual([]);
  await dialog.getByRole('button', { name: 'Close' }).click();
  await page.getByRole('link', { name: /^Logbook/ }).click();
  await expect(page.getByText(/A report with 1 plate was saved as DOCX, “Who answers whom”/)).toBeVisible();
});

test('a package is saved, opened as a study of its own and in another one, and is the same map', async ({
  page,
}, { outputDir, retry }) => {
  test.setTimeout(240_000);
  const packed = `Lamps, packed${retry > 0 ? ` (${retry})` : ''}`;
  await publishWithPlate(page, 'To be packed');
  await titled(page);
  const map = (): Promise<string | null> => page.locator('pt-publish .sheet img').getAttribute('alt');
  const before = await map();
  await page.getByRole('button', { name: 'Make a package' }).click();
  const dialog = page.getByRole('dialog', { name: 'A package' });
  await expect(dialog.getByLabel('Title')).toBeFocused();
  await dialog.getByLabel('Title').fill(packed);
  await dialog.getByLabel('Licence').fill('CC BY 4.0');
  await expect(dialog.getByText('data/nodes.csv')).toBeVisible();
  await expect(dialog.getByText('CITATION.cff')).toBeVisible();
  expect(await barriers(page)).toEqual([]);
  const save = dialog.getByRole('button', { name: 'Save the package' });
  await expect(save).toBeEnabled();
  const [download] = await Promise.all([page.waitForEvent('download'), save.click()]);
  expect(download.suggestedFilename()).toBe(`${packed}.package.zip`);
  const file = `${outputDir}/lamps.zip`;
  await download.saveAs(file);

  // As a study of its own.
  await page.goto('/');
  await page.getByLabel('Saved study').setInputFiles(file);
  await expect(
    page.getByText(
      `“${packed}”, 1,320 nodes and 6,799 ties with their map and 1 plate, was opened from the package lamps.zip.`,
    ),
  ).toBeVisible();
  await page.getByRole('link', { name: packed, exact: true }).click();
  await expect(page.getByRole('tab', { name: 'Accounts 1,320' })).toBeVisible();
  await page.getByRole('link', { name: /^Publish/ }).click();
  await expect.poll(map).toBe(before);

  // Beside what is there, and a file that is none says why.
  await page.getByRole('link', { name: /^Weave/ }).click();
  await page
    .getByLabel('Package')
    .setInputFiles({ name: 'odd.zip', mimeType: 'application/zip', buffer: Buffer.from('PK odd') });
  await expect(page.getByRole('alert')).toContainText(
    /The package cannot be opened: .* Nothing was taken from it\./,
  );
  await page.getByLabel('Package').setInputFiles(file);
  await expect(page).toHaveURL(/\/map\//);
  await expect(page.getByRole('tab', { name: 'Accounts 1,320' })).toBeVisible();
  await page.getByRole('link', { name: /^Logbook/ }).click();
  await expect(page.getByText(/was opened from the package lamps\.zip/).first()).toBeVisible();
});
