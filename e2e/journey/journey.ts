import { basename } from 'node:path';
import { expect, type Page } from '@playwright/test';

/** One thing that a researcher does, and how it went. */
export interface Act {
  readonly name: string;
  readonly seconds: number;
  /** The longest that the page answered nothing, milliseconds. */
  readonly longestTask: number;
  /** What was said instead, where it did not come about. */
  readonly error: string | null;
}

interface Journey {
  readonly acts: readonly Act[];
  /** Seconds from the drop of the file to the first map that can be read. */
  readonly toFirstMap: number;
  /** Answers that were errors: "500 GET /api/v1/…". */
  readonly faults: readonly string[];
}

/** The questions of Weave that can be asked of posts, after the first one. */
const QUESTIONS = [
  'What goes together?',
  'Who shares what?',
  'Who uses what?',
  'Who posts in step?',
  'Whose wording is alike?',
  'How do groups relate?',
  'Who meets through what?',
] as const;

/**
 * The whole job on the real interface: a file is taken in, every kind of network woven and its map opened, messages read behind a node, a tie
 * and a community, messages filtered, everything exported. An act that fails is noted, and the next one begins.
 * @param patience milliseconds that one act may take
 */
export async function goThrough(
  page: Page,
  file: string,
  { patience, told = () => undefined }: { patience: number; told?: (act: Act) => void },
): Promise<Journey> {
  const acts: Act[] = [];
  const faults: string[] = [];
  page.setDefaultTimeout(patience);
  await watchTasks(page);
  page.on('response', (response) => {
    const { pathname } = new URL(response.url());
    if (response.status() >= 400)
      faults.push(`${response.status()} ${response.request().method()} ${pathname}`);
  });
  page.on('pageerror', (error) => faults.push(`in the page: ${error.message}`));
  const visible = { timeout: patience };
  const act = async (name: string, work: () => Promise<void>): Promise<void> => {
    const begun = performance.now();
    let error: string | null = null;
    try {
      await work();
    } catch (thrown) {
      error = (thrown as Error).message.split('\n')[0].slice(0, 160);
      const shots = process.env['JOURNEY_SHOTS'];
      if (shots) await page.screenshot({ path: `${shots}/${acts.length}.png` });
    }
    const seconds = (performance.now() - begun) / 1000;
    const done = { name, seconds, longestTask: await longestTask(page), error };
    acts.push(done);
    told(done);
  };
  const rail = (stop: string) => page.getByRole('link', { name: new RegExp(stop) }).first();
  const button = (name: string | RegExp) => page.getByRole('button', { name });
  const download = async (name: string): Promise<void> => {
    const [saved] = await Promise.all([page.waitForEvent('download', visible), button(name).click()]);
    await saved.path();
  };

  await page.goto('/');
  await page.getByPlaceholder('Name of a new study').fill('Journey');
  await button('Begin study').click();
  await expect(page.getByRole('heading', { name: 'Gather' })).toBeVisible(visible);
  const dropped = performance.now();
  await act('look at the file', async () => {
    await page.locator('input[type=file]').first().setInputFiles(file);
    await expect(button('Import').first()).toBeEnabled(visible);
  });
  await act('import', async () => {
    await button('Import').first().click();
    await expect(page.getByRole('heading', { name: `${basename(file)} is in` })).toBeVisible(visible);
  });
  await act('weave, first map: Who addresses whom?', async () => {
    await page.getByRole('link', { name: 'Weave a network' }).click();
    await openMap(page, patience);
  });
  const toFirstMap = (performance.now() - dropped) / 1000;
  await act('read a node', async () => {
    await page.getByRole('tab', { name: /^Accounts/ }).click();
    await page.locator('.ag-center-cols-container .ag-row').first().click();
    await expect(page.locator('pt-reading-pane article').first()).toBeVisible(visible);
  });
  await act('read a tie', async () => {
    await page.getByRole('tab', { name: /Ties in/ }).click();
    await page.locator('.ties .count').first().click();
    await expect(page.locator('pt-reading-pane article').first()).toBeVisible(visible);
  });
  await act('read a community', async () => {
    await page.keyboard.press('Escape');
    await button(/^Community /)
      .first()
      .click();
    await expect(page.getByRole('link', { name: 'Read its portrait' })).toBeVisible(visible);
    await expect(page.locator('pt-reading-pane article').first()).toBeVisible(visible);
  });
  await act('read its portrait', async () => {
    await page.getByRole('link', { name: 'Read its portrait' }).click();
    const draw = page.getByRole('button', { name: 'Draw the portraits' });
    await expect(draw.or(page.getByRole('columnheader')).first()).toBeVisible(visible);
    // Of very many messages portraits are drawn when somebody asks for them.
    if (await draw.isVisible()) await draw.click();
    await expect(page.getByRole('columnheader')).toHaveCount(1, visible);
    await page.locator('.beside .evidence').first().click();
    await expect(page.locator('pt-messages-behind article').first()).toBeVisible(visible);
  });
  await act('figure as SVG', async () => {
    await rail('Publish').click();
    // A large map is not at rest yet; it is taken as it is by now.
    const stop = button('Stop here');
    await expect(stop.or(page.locator('pt-publish img')).first()).toBeVisible(visible);
    // It goes away by itself when the map comes to rest meanwhile.
    if (await stop.isVisible()) await stop.click({ timeout: 5000 }).catch(() => undefined);
    await expect(page.locator('pt-publish img')).toBeVisible(visible);
    await download('Save SVG');
  });
  await act('figure as PNG', () => download('Save PNG'));
  await act('GraphML', () => download('GraphML'));
  await act('nodes as CSV', () => download('Nodes, CSV'));
  await act('ties as CSV', () => download('Ties, CSV'));
  await act('search messages', async () => {
    await rail('Gather').click();
    await page.getByPlaceholder(/^Search/).fill('lamps council');
    await page.getByPlaceholder(/^Search/).press('Enter');
    await expect(page.locator('pt-reading-list article').first()).toContainText(/lamps/i, visible);
  });
  await act('filter by hashtag', async () => {
    await page.getByPlaceholder('with hashtag').fill('tag0');
    await page.getByPlaceholder('with hashtag').press('Enter');
    await expect(page.locator('pt-reading-list article').first()).toContainText('#tag0', visible);
  });
  const estimate = (question: string): Promise<void> =>
    act(`estimate: ${question}`, async () => {
      await rail('Weave').click();
      await page.getByRole('radio', { name: question }).click();
      // The estimate of the sentence before goes first.
      await page.waitForTimeout(300);
      await expect(page.getByText('Estimating …')).toBeHidden(visible);
      const wrong = page.locator('.result .error');
      if (await wrong.isVisible()) throw new Error(await wrong.innerText());
    });
  await estimate('Who addresses whom?');
  for (const question of QUESTIONS) {
    await estimate(question);
    await act(`weave, map: ${question}`, async () => {
      // What cannot even be estimated in time is not woven either.
      if (acts.at(-1)?.error) throw new Error('not woven');
      await expect(button('Weave and open the map')).toBeEnabled({ timeout: 5000 });
      await openMap(page, patience);
    });
  }
  await act('open Studies', async () => {
    await page.goto('/');
    await expect(page.getByRole('link', { name: 'Journey' })).toBeVisible(visible);
    await expect(page.locator('pt-study-picture').first()).toBeVisible(visible);
  });
  return { acts, toFirstMap, faults };
}

/** Weaves, and waits until nodes and ties can be seen, named by a caption. */
async function openMap(page: Page, patience: number): Promise<void> {
  await page.getByRole('button', { name: 'Weave and open the map' }).click();
  const refused = page.locator('.result [role=alert]');
  const caption = page.locator('.caption');
  await expect(caption.or(refused).first()).toBeVisible({ timeout: patience });
  if (await refused.isVisible()) throw new Error(await refused.innerText());
  await expect.poll(() => inked(page), { timeout: patience, intervals: [100] }).toBeGreaterThan(2000);
}

/** How many points of the map are not ground. */
function inked(page: Page): Promise<number> {
  return page
    .locator('pt-map-canvas canvas')
    .first()
    .evaluate((canvas: HTMLCanvasElement) => {
      const { width, height } = canvas;
      if (width === 0 || height === 0) return 0;
      const { data } = canvas.getContext('2d')!.getImageData(0, 0, width, height);
      let count = 0;
      for (let i = 0; i < data.length; i += 4)
        if (data[i] !== data[0] || data[i + 1] !== data[1] || data[i + 2] !== data[2]) count++;
      return count;
    })
    .catch(() => 0);
}

/** Has the page keep how long each of its tasks took. */
async function watchTasks(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const kept = globalThis as unknown as { tasks: number[] };
    kept.tasks = [];
    new PerformanceObserver((list) => {
      for (const { duration } of list.getEntries()) kept.tasks.push(duration);
    }).observe({ type: 'longtask', buffered: true });
  });
}

/** The longest task since it was asked last, milliseconds; 0 where none was longer than 50. */
const longestTask = (page: Page): Promise<number> =>
  page.evaluate(() => {
    const kept = globalThis as unknown as { tasks: number[] };
    const longest = Math.max(0, ...kept.tasks);
    kept.tasks = [];
    return longest;
  });
