import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { openFirstMap } from './steps';

/** A picture of one red point. */
const POINT =
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mP8z8BQDwAEhQGAhKmMIQAAAABJRU5ErkJggg==';

test('ties are bundled freely, the legend is written on the map, nodes show pictures, and the figure has it all', async ({
  page,
}) => {
  test.setTimeout(180_000);
  await openFirstMap(page, 'Looks');
  await expect(page.getByRole('button', { name: /^Community / })).toHaveCount(8);
  await expect(page.getByRole('button', { name: 'Stop here' })).toBeHidden({ timeout: 60_000 });
  const phrase = (text: string | RegExp) => page.locator('.caption button').filter({ hasText: text });
  const settings = page.getByRole('dialog');

  // The heading and a group of the legend get words of their own, and the legend goes to another corner.
  await page.getByRole('button', { name: /^Legend, Colour/ }).click();
  await page.getByLabel('Heading').fill('Who talks with whom');
  await page.getByLabel('Heading').press('Enter');
  const heading = page.getByRole('button', { name: 'Legend, Who talks with whom' });
  await expect(heading).toBeVisible();
  await page
    .getByRole('button', { name: /^Community / })
    .nth(1)
    .focus();
  await page.keyboard.press('F2');
  await page.getByLabel('Name of the group').fill('Traders');
  await page.getByLabel('Name of the group').press('Enter');
  await expect(page.getByRole('button', { name: /^Community Traders/ })).toBeVisible();
  const [map, from] = await Promise.all([
    page.locator('pt-map-canvas canvas').boundingBox(),
    heading.boundingBox(),
  ]);
  await page.mouse.move(from!.x + 30, from!.y + 8);
  await page.mouse.down();
  await page.mouse.move(map!.x + 0.8 * map!.width, map!.y + 0.2 * map!.height, { steps: 5 });
  await expect(page.getByText('The legend goes here')).toBeVisible();
  await page.mouse.up();
  await expect.poll(async () => (await heading.boundingBox())!.x).toBeGreaterThan(map!.x + map!.width / 2);

  // A picture for one account; the file that is no picture is told.
  await phrase('community').first().click();
  await page.getByLabel('Image files for nodes').setInputFiles([
    { name: 'Page_News.png', mimeType: 'image/png', buffer: Buffer.from(POINT, 'base64') },
    { name: 'notes.txt', mimeType: 'text/plain', buffer: Buffer.from('no picture') },
  ]);
  await expect(settings.getByText('1 picture for nodes of this network.')).toBeVisible();
  await expect(settings.getByText(/Not read: notes.txt/)).toBeVisible();

  // A rim says one thing more, and an outline has a title and a note; both stand in the caption.
  await settings.getByLabel('Rim by').selectOption({ label: 'betweenness' });
  await settings.getByLabel('Outlines round').selectOption({ label: 'community' });
  await settings.getByLabel('Title of 1').fill('The quay');
  await settings.getByLabel('Title of 1').press('Enter');
  await settings.getByLabel('Note of 1').fill('Those who trade here, late.');
  await settings.getByLabel('Note of 1').press('Enter');
  await page.keyboard.press('Escape');
  await expect(phrase('thicker the higher betweenness')).toBeVisible();
  await expect(page.locator('.caption')).toContainText('Outlined: community');

  await phrase('bent').click();
  await settings.getByRole('radio', { name: 'bundled freely' }).click();
  await page.keyboard.press('Escape');
  await expect(phrase('bundled freely')).toBeVisible();

  await page.getByRole('link', { name: /Publish/ }).click();
  await page.getByLabel('What of the map').selectOption('whole');
  await page.getByLabel('Names, ties and legend').selectOption('larger, for a page');
  const save = page.getByRole('button', { name: 'Save SVG' });
  await expect(save).toBeEnabled({ timeout: 30_000 });
  const [download] = await Promise.all([page.waitForEvent('download'), save.click()]);
  const figure = readFileSync(await download.path(), 'utf8');
  expect(figure).toContain('Who talks with whom');
  expect(figure).toContain('Traders');
  expect(figure).toContain('data:image/jpeg;base64,');
  expect(figure).toContain('Ties: bundled freely');
  expect(figure).toContain('Rim: betweenness');
  expect(figure).toMatch(/The quay.*Those who trade here, late\./s);
  // What has a size of its own is larger where the page is smaller.
  const shown = Number(/viewBox="0 0 ([\d.]+)/.exec(figure)![1]);
  expect(shown).toBeCloseTo(map!.width / 1.35, 0);
  // Each tie that runs with others is made of fifteen curves.
  expect(figure.match(/Q/g)!.length).toBeGreaterThan(30_000);

  await page.getByRole('link', { name: /Logbook/ }).click();
  await expect(page.getByText('For nodes 1 picture from image files was added.')).toBeVisible();
});
