import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { beginStudy, drop } from './steps';

/** Codes the whole sample: by the key for each message, "0" for none. */
async function codeAs(page: Page, coder: string, keys: readonly string[]): Promise<void> {
  await page.getByLabel('Name of the coder').fill(coder);
  await page.getByLabel('Name of the coder').press('Tab');
  for (const [i, key] of keys.entries()) {
    await expect(page.getByText(`${i} of ${keys.length} messages coded by ${coder}`)).toBeVisible();
    await expect(page.getByRole('article', { name: 'Message to be coded' })).toContainText(`${i + 1} ·`);
    if (key !== '0') await page.keyboard.press(key);
    await page.keyboard.press('Enter');
  }
  await expect(page.getByText(`are coded by ${coder}.`)).toBeVisible();
}

test('do two coders agree?', async ({ page }) => {
  await beginStudy(page, 'Close reading');
  await drop(page, 'tidepost.csv');
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  await expect(page.getByRole('button', { name: /tidepost\.csv · 9,000 messages/ })).toBeVisible();
  await page.getByRole('navigation', { name: 'Stops' }).getByRole('link', { name: 'Read' }).click();
  await expect(page.getByRole('heading', { name: 'Read', level: 1 })).toBeVisible();
  // The address keeps what was shown in another view.
  await page.goto(`${page.url().split('?')[0]}?view=codes&show=leads`);

  // A codebook comes first.
  for (const [i, name] of ['ask', 'blame'].entries()) {
    await page.getByRole('button', { name: 'New code' }).click();
    await page.getByLabel(`Name of code ${i + 1}`).fill(name);
  }
  await page.getByLabel('Definition of code 1').fill('Somebody is asked for something.');
  await page.getByRole('button', { name: 'Keep the codes' }).click();
  await expect(page.getByText('kept', { exact: true })).toBeVisible();

  // What is coded is a sample by chance; keys give codes, two coders do it apart.
  await page.getByRole('radio', { name: 'code', exact: true }).click();
  await page.getByLabel('Messages to draw').fill('8');
  await page.getByRole('button', { name: 'Draw the sample' }).click();
  await codeAs(page, 'Ida', ['1', '1', '1', '2', '0', '0', '0', '0']);
  await codeAs(page, 'Oto', ['1', '1', '2', '2', '0', '0', '0', '1']);

  // Agreement, code by code: of "ask" a fourfold table of 2, 1, 1, 4, of which kappa is 7/15.
  await page.getByRole('radio', { name: 'agreement' }).click();
  await expect(
    page.getByText(/8 messages coded by Ida and Oto, each for itself;\s+6 got the same codes/),
  ).toBeVisible();
  const row = page.getByRole('row', { name: /^ask/ });
  await expect(row.getByRole('cell').last()).toHaveText('0.467');
  await page.getByRole('button', { name: 'Keep in the logbook' }).click();
  await expect(page.getByText('kept: the methods text has it')).toBeVisible();

  // Disagreements are settled; from then on what is agreed holds.
  const open = page.getByRole('group', { name: 'Disagreements' });
  await expect(open.getByRole('article')).toHaveCount(2);
  await open.getByRole('button', { name: 'as Ida' }).first().click();
  await expect(open.getByText(/^agreed: /)).toHaveCount(1);
  await open.getByRole('button', { name: 'as Ida' }).last().click();
  await expect(open.getByText(/^agreed: /)).toHaveCount(2);

  // Codes choose messages everywhere; what was coded leaves as a file.
  await page.getByRole('radio', { name: 'codebook' }).click();
  const saving = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save codings as CSV' }).click();
  const lines = readFileSync(await (await saving).path(), 'utf8')
    .trim()
    .split('\r\n');
  expect(lines).toHaveLength(1 + 16 + 2);

  // The map that is open has the share of a code as soon as it is there.
  await page.getByRole('navigation', { name: 'Stops' }).getByRole('link', { name: 'Weave' }).click();
  await page.getByRole('button', { name: 'Weave and open the map' }).click();
  await expect(page.getByRole('tab', { name: 'Accounts 1,320' })).toBeVisible({ timeout: 60_000 });
  await page.getByRole('navigation', { name: 'Stops' }).getByRole('link', { name: 'Read' }).click();
  await page.getByRole('tab', { name: 'Codes' }).click();
  await page.getByRole('radio', { name: 'codebook' }).click();
  await page.getByRole('button', { name: 'Compute', exact: true }).click();
  await expect(page.getByText('Of every node and tie the share')).toBeVisible();
  await page.getByRole('navigation', { name: 'Stops' }).getByRole('link', { name: /^Map/ }).click();
  await page.getByRole('button', { name: 'bent', exact: true }).click();
  await page.getByLabel('Colour of the ties').selectOption('by a number');
  await page.getByLabel('Number that colours the ties').selectOption('share of “ask”');
  await expect(page.getByRole('button', { name: 'bent, coloured by share of “ask”' })).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('link', { name: /^Gather/ }).click();
  await page.getByLabel('Code', { exact: true }).selectOption('ask');
  await expect(page.getByText(/^\s*3 messages/).first()).toBeVisible();
  await page.getByRole('link', { name: /^Logbook/ }).click();
  await expect(page.getByText(/8 messages were coded by Ida and Oto, each for itself/).first()).toBeVisible();
});
