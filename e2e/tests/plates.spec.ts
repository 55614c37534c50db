import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { rendered, unlike } from './pictures';
import { openFirstMap } from './steps';

test('states of a map are kept, opened again, and stand on one page of a PDF with one legend', async ({
  page,
}) => {
  test.setTimeout(240_000);
  await openFirstMap(page, 'Plates');
  await expect(page.getByRole('button', { name: /^Community / })).toHaveCount(8);
  await expect(page.getByRole('button', { name: 'Stop here' })).toBeHidden({ timeout: 60_000 });
  const caption = page.locator('.caption');
  const map = page.locator('pt-map-canvas canvas');

  // By one key; and taken away again, and kept once more.
  await page.keyboard.press('p');
  const notice = page.locator('mat-snack-bar-container');
  await expect(notice).toContainText('The map was kept as plate');
  await page.getByRole('button', { name: 'Plates', exact: true }).click();
  const panel = page.locator('pt-plates-panel');
  const plates = panel.getByRole('list', { name: 'Plates' }).getByRole('listitem');
  await expect(plates).toHaveCount(1);
  await notice.getByRole('button', { name: 'Undo' }).click();
  await expect(panel.getByText('No plate yet.', { exact: false })).toBeVisible();
  await expect(panel.getByText('Deleted plates (1)')).toBeVisible();
  await panel.getByRole('button', { name: 'Keep this map' }).click();
  await expect(plates).toHaveCount(1);

  // Another state: only strong ties, seen from nearby, with an account that is selected.
  await caption
    .getByRole('button')
    .filter({ hasText: /^1,320 accounts/ })
    .click();
  await page.getByLabel('Least weight of a tie').fill('3');
  await page.getByLabel('Least weight of a tie').press('Enter');
  await page.keyboard.press('Escape');
  await page.getByPlaceholder(/^Find/).fill('nightbus14');
  await page.keyboard.press('Enter');
  await expect(page.locator('pt-reading-pane h2')).toBeVisible();
  const heading = await page.locator('pt-reading-pane h2').textContent();
  await map.focus();
  await page.keyboard.press('p');
  await expect(plates).toHaveCount(2);
  await panel
    .getByRole('button', { name: /^More for/ })
    .last()
    .click();
  await page.getByRole('menuitem', { name: 'Title and note' }).click();
  await page.getByLabel('Title of the plate').fill('Strong ties <b>&');
  await page.getByLabel('Note on the plate').fill('Round the night bus.');
  await page.getByLabel('Title of the plate').press('Enter');
  await expect(panel.getByText('Round the night bus.')).toBeVisible();

  // The first one is opened: the map is as it was then, and Undo leads back.
  await plates.first().getByRole('link').click();
  await expect(caption).not.toContainText('at least 3');
  await expect(page.locator('pt-reading-pane')).toBeHidden();
  await page.getByRole('link', { name: 'Strong ties <b>&' }).click();
  await expect(caption).toContainText('at least 3');
  await expect(page.locator('pt-reading-pane h2')).toHaveText(heading!);
  await expect(page).not.toHaveURL(/plate=/);
  await page.keyboard.press('Escape');

  // Another order, by the menu.
  await page.getByRole('button', { name: 'Plates', exact: true }).click();
  await panel.getByRole('button', { name: 'More for Strong ties <b>&' }).click();
  await page.getByRole('menuitem', { name: 'Move up' }).click();
  await expect(plates.first()).toContainText('Strong ties');

  // Both on one page.
  await page
    .getByRole('navigation', { name: 'Stops' })
    .getByRole('link', { name: /^Publish/ })
    .click();
  await page.getByLabel('What of the map').selectOption('plates');
  const picture = page.locator('pt-publish .sheet img');
  await expect(picture).toHaveAttribute('alt', /^2 maps on a page: a, Strong ties <b>&; b, /, {
    timeout: 30_000,
  });
  const save = async (name: string): Promise<string> => {
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name }).click(),
    ]);
    return file.path();
  };
  const pdf = await save('Save PDF');
  expect(execFileSync('qpdf', ['--check', pdf], { encoding: 'utf8' })).toContain('No syntax or stream');
  const words = execFileSync('pdftotext', [pdf, '-'], { encoding: 'utf8' }).replace(/\s+/g, ' ');
  expect(words.split('Colour: community').length - 1).toBe(2); // Once in the legend, once in the caption.
  expect(words).toContain('Strong ties <b>&');
  expect(words).toContain('Both: Size: in-degree.');
  const saved = await save('Save PNG');
  expect(await unlike(page, readFileSync(saved), rendered(pdf, 300))).toBeLessThan(0.02);

  // What could be stumbled over is said before.
  await page.getByRole('button', { name: /^Before you save: \d to look at/ }).click();
  await expect(page.getByText(/\d+ accounts are named: think of the people/)).toBeVisible();

  // One alone, with a caption of one's own; millimetres.
  await page.getByRole('checkbox', { name: 'On the page: Strong ties <b>&' }).uncheck();
  await expect(picture).toHaveAttribute('alt', /^1 map on a page/);
  await page.getByLabel('Caption', { exact: true }).fill('The whole town.');
  await page.getByLabel('Unit').selectOption('millimetres');
  await page.getByLabel(/^Width, mm/).fill('120');
  await expect(page.getByText(/1417 × \d+ pixels · 12\.0 ×/)).toBeVisible();
  const alone = execFileSync('pdftotext', [await save('Save PDF'), '-'], { encoding: 'utf8' });
  expect(alone).toContain('The whole town.');
  await expect(page.getByText('The caption was written by hand: read it against the picture.')).toBeVisible();

  await page.getByRole('link', { name: /Logbook/ }).click();
  await expect(page.getByText(/^A page of 2 plates was exported as PDF/)).toBeVisible();
});
