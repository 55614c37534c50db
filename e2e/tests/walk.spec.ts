import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { rendered, unlike } from './pictures';
import { beginStudy, drop, dropText } from './steps';

/** Counts pixels of the map that are not ground. */
async function inked(page: Page): Promise<number> {
  return page.locator('pt-map-canvas canvas').evaluate((canvas: HTMLCanvasElement) => {
    const { data } = canvas.getContext('2d')!.getImageData(0, 0, canvas.width, canvas.height);
    let count = 0;
    for (let i = 0; i < data.length; i += 4)
      if (data[i] !== data[0] || data[i + 1] !== data[1] || data[i + 2] !== data[2]) count++;
    return count;
  });
}

test('a researcher goes from a dropped file to a published map', async ({ page }) => {
  const complaints: string[] = [];
  page.on('pageerror', (error) => complaints.push(error.message));
  const outside: string[] = [];
  page.on(
    'request',
    (request) =>
      void (!/^(http:\/\/127\.0\.0\.1|blob:|data:)/.test(request.url()) && outside.push(request.url())),
  );

  // Studies and Gather.
  await beginStudy(page, 'Walk through');
  await drop(page, 'tidepost.tsv');
  await expect(page.getByRole('heading', { name: 'tidepost.tsv' })).toBeVisible();
  await expect(page.getByLabel('How to read Handle', { exact: true })).toHaveValue('author');
  await expect(page.getByLabel('How to read Date')).toHaveValue('time');
  await page.getByRole('button', { name: 'Import' }).click();
  await expect(page.getByRole('heading', { name: 'tidepost.tsv is in' })).toBeVisible();
  await expect(page.locator('pt-import-report').getByText('9,000').first()).toBeVisible();
  // The time chart is drawn, whatever styles those who place it bring.
  const chart = page.locator('pt-time-chart canvas');
  await expect(chart).toBeVisible();
  expect((await chart.boundingBox())!.height).toBeGreaterThan(90);
  await page.getByPlaceholder('with hashtag').fill('PieFriday');
  await page.getByPlaceholder('with hashtag').press('Enter');
  await expect(page.locator('pt-reading-list article').first()).toContainText('#PieFriday');

  // Weave and Measure.
  await page.getByRole('link', { name: 'Weave a network' }).click();
  await expect(page.getByText('6,799')).toBeVisible();
  await page.getByLabel('Name of the network').fill('Who answers whom');
  await page.getByRole('button', { name: 'Weave and open the map' }).click();

  // Map: it is laid out and stops by itself.
  await expect(page.locator('.caption')).toContainText('1,320 accounts');
  await expect.poll(() => inked(page)).toBeGreaterThan(20_000);
  await expect(page.getByText('Arranging, round')).toBeHidden();

  // The caption's phrases are the controls, and what they do can be taken back.
  await page.getByRole('button', { name: 'in-degree', exact: true }).click();
  await page.getByRole('dialog').getByRole('combobox').first().selectOption('betweenness');
  await expect(page.locator('.caption')).toContainText('Size: betweenness');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.locator('.caption')).toContainText('Size: in-degree');

  // Read: the loud account, a tie, and the messages behind it.
  await page.getByLabel('Find an account').fill('wall_lamps');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'WALL LAMPS NOW' })).toBeVisible();
  await page.getByRole('tab', { name: /Ties in/ }).click();
  await page.locator('.ties .count').first().click();
  await expect(page.locator('pt-reading-pane article').first()).toContainText('@wall_lamps_now');
  await page.locator('pt-reading-pane article small').first().click();
  await expect(page.locator('pt-reading-pane article').first()).toContainText('on the map');
  await page.getByRole('button', { name: /^Community #mothcount/ }).click();
  await expect(page.getByRole('heading', { name: '#mothcount, #BatLine' })).toBeVisible();
  await expect(page.locator('.tags')).toContainText('#LateLampPlan');

  // The table and the chart.
  await page.getByRole('tab', { name: /^Accounts/ }).click();
  await page.locator('.ag-center-cols-container .ag-row').first().click();
  await expect(page.getByRole('heading', { name: 'WALL LAMPS NOW' })).toBeVisible();
  await page.getByRole('tab', { name: 'Charts' }).click();
  await expect(page.getByRole('img', { name: 'How in-degree is spread' }).locator('canvas')).toBeVisible();

  // Publish.
  await page.getByRole('link', { name: /Publish/ }).click();
  await expect(page.locator('pt-publish img')).toBeVisible();
  const [svg] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save SVG' }).click(),
  ]);
  const figure = readFileSync(await svg.path(), 'utf8');
  expect(figure).toContain('1,320 accounts tied when one replies to, quotes, mentions or reposts another');
  // Letters are shapes that say what they are.
  expect(figure).not.toContain('<text');
  expect(figure).toContain('aria-label="Colour: community"');
  const [png] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save PNG' }).click(),
  ]);
  const picture = readFileSync(await png.path());
  expect(picture.readUInt32BE(16)).toBe(1800);
  expect(picture.includes('pHYs')).toBe(true);
  expect(picture.includes('Map of a network: 1,320 accounts')).toBe(true);
  const [pdf] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save PDF' }).click(),
  ]);
  const saved = await pdf.path();
  expect(execFileSync('qpdf', ['--check', saved], { encoding: 'utf8' })).toContain('No syntax or stream');
  const words = execFileSync('pdftotext', [saved, '-'], { encoding: 'utf8' }).replace(/\s+/g, ' ');
  // Each once, though they have a soft edge.
  for (const word of ['wall_lamps_now', '1,320 accounts tied when one replies to'])
    expect(words.split(word)).toHaveLength(2);
  // By another renderer it has the colours of the PNG.
  expect(await unlike(page, picture, rendered(saved, 300))).toBeLessThan(0.02);
  // What it is for gives its size; what is told of it can be written otherwise.
  await page.getByLabel('What the figure is for').selectOption('a slide, 16:9');
  await expect(page.getByText('1920 × 1080 pixels')).toBeVisible();
  await expect(page.getByText(/smallest letters 1\d\.\d points/)).toBeVisible();
  await page.getByRole('button', { name: 'For those who cannot see it' }).click();
  await expect(page.getByLabel('What can be read from it')).toHaveValue(/Colours are groups by community: “/);
  await page.getByLabel('In a sentence').fill('Who talks to whom about lamps.');
  await expect(page.locator('pt-publish img')).toHaveAttribute('alt', 'Who talks to whom about lamps.');
  const [told] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save SVG' }).click(),
  ]);
  const slide = readFileSync(await told.path(), 'utf8');
  expect(slide).toContain('<title>Who talks to whom about lamps.</title>');
  expect(slide).toContain('width="1920" height="1080"');
  await page.getByRole('button', { name: 'As suggested' }).click();
  await expect(page.getByLabel('In a sentence')).toHaveValue(
    /^Map of a network: 1,320 accounts and 6,799 ties/,
  );
  const [graphml] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'GraphML' }).click(),
  ]);
  expect(readFileSync(await graphml.path(), 'utf8').match(/<edge /g)).toHaveLength(6799);
  const [csv] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Nodes, CSV' }).click(),
  ]);
  expect(
    readFileSync(await csv.path(), 'utf8')
      .trim()
      .split('\r\n'),
  ).toHaveLength(1321);

  // Logbook.
  await page.getByRole('link', { name: /Logbook/ }).click();
  for (const kind of [
    'import-source',
    'weave',
    'measure-network',
    'arrange-map',
    'export-figure',
    'export-network',
  ]) {
    await expect(page.getByText(`· ${kind} · done`).first()).toBeVisible();
  }
  await expect(page.getByText('9,000 messages of 1 March 2026 to 31 May 2026').first()).toBeVisible();
  expect(complaints).toEqual([]);
  expect(outside).toEqual([]);
});

test('a figure of very many ties has them as a picture, in the PDF too', async ({ page }) => {
  const below = (n: number, i: number): number => (i * 7919 + ((i * i) % 104_729)) % n;
  const ties = Array.from({ length: 44_000 }, (_, i) => `n${i % 3000},n${below(3000, i)}`);
  await beginStudy(page, 'Very many ties');
  await dropText(page, 'many.csv', ['source,target', ...new Set(ties)].join('\n'));
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  const stops = page.getByRole('navigation', { name: 'Stops' });
  await expect(stops.getByRole('link', { name: /^Weave 1 network/ })).toBeVisible({ timeout: 30_000 });
  await stops.getByRole('link', { name: /^Map/ }).click();
  await expect(page.getByRole('tab', { name: /^Nodes/ })).toBeVisible({ timeout: 60_000 });
  await stops.getByRole('link', { name: 'Publish' }).click();
  // Nobody waits for the best arrangement of so many, whenever it begins.
  const save = page.getByRole('button', { name: 'Save PDF' });
  const stop = page.getByRole('button', { name: 'Stop here' });
  await expect(async () => {
    if (await stop.isVisible()) await stop.click({ timeout: 1000 });
    await expect(save).toBeEnabled({ timeout: 3000 });
  }).toPass({ timeout: 120_000 });
  const [pdf] = await Promise.all([page.waitForEvent('download'), save.click()]);
  const saved = await pdf.path();
  expect(execFileSync('qpdf', ['--check', saved], { encoding: 'utf8' })).toContain('No syntax or stream');
  expect(execFileSync('pdfimages', ['-list', saved], { encoding: 'utf8' })).toMatch(/image\s+1800/);
});

test('a broken file keeps what is good and lists the rest', async ({ page }) => {
  await beginStudy(page, 'Broken files');
  for (const [name, reason] of [
    ['broken.csv', 'quotation mark'],
    ['broken.jsonl', 'Not valid JSON'],
    ['broken.tsv', 'The date cannot be read'],
  ]) {
    await drop(page, name);
    await page.getByRole('button', { name: 'Import' }).click();
    await expect(page.getByRole('heading', { name: `${name} is in` })).toBeVisible();
    await expect(page.locator('pt-import-report')).toContainText(reason);
    const [list] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name: 'Download the list of skipped rows' }).click(),
    ]);
    expect(readFileSync(await list.path(), 'utf8')).toContain('12,');
  }
});

test('a file that is no table is refused with a reason, and the study stays as it was', async ({ page }) => {
  await beginStudy(page, 'No table');
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'posts.csv', mimeType: 'text/csv', buffer: Buffer.from('%PDF-1.7 nothing') });
  await expect(page.getByRole('alert')).toContainText('This is a PDF document');
  await expect(page.getByRole('heading', { name: 'Drop what you have here' })).toBeVisible();
});

test('a study can be renamed, deleted and taken back', async ({ page }) => {
  await beginStudy(page, 'To be renamed');
  await page.goto('/');
  await page.getByRole('button', { name: 'Rename To be renamed' }).click();
  await page.getByLabel('New name').fill('Renamed study');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Delete Renamed study' }).click();
  await expect(page.getByRole('heading', { name: 'Renamed study' })).toBeHidden();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('heading', { name: 'Renamed study' })).toBeVisible();
});

test('a node can be dragged, the move taken back, and the map worked by keys', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'The lamps of Sallowmere' }).click();
  await expect(page.locator('.caption')).toContainText('1,320 accounts');
  await page.getByLabel('Find an account').fill('nightbus14');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Night Bus 14' })).toBeVisible();
  await page.waitForTimeout(400);
  const box = (await page.locator('pt-map-canvas canvas').boundingBox())!;
  // The node was brought to the middle; when the pane had opened, the middle moved with the size of the map.
  await page.getByLabel('Find an account').fill('nightbus14');
  await page.keyboard.press('Enter');
  await page.waitForTimeout(300);
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 90, y + 40, { steps: 5 });
  await page.mouse.up();
  await expect(page.locator('.caption')).toContainText('1 moved by hand');
  await page.keyboard.press('Control+z');
  await expect(page.locator('.caption')).not.toContainText('moved by hand');
  await page.keyboard.press('Escape');
  await expect(page.locator('pt-reading-pane')).toBeHidden();
  await page.keyboard.press('?');
  await expect(page.getByRole('heading', { name: 'Keys' })).toBeVisible();
});
