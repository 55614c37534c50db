import { expect, test, type Locator, type Page } from '@playwright/test';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';

const POSTS = join(import.meta.dirname, '../../demo/tidepost.csv');
/** From anywhere on a screen to anywhere. */
const MOST_STOPS = 60;

/** Presses Tab until something has the focus; the focus is on something at each step, and seen where it arrives. */
async function tabTo(page: Page, target: Locator, key: 'Tab' | 'Shift+Tab' = 'Tab'): Promise<void> {
  await expect(target).toBeVisible();
  for (let stops = 0; stops < MOST_STOPS; stops++) {
    await page.keyboard.press(key);
    const isThere = await target.evaluate((element) => element === document.activeElement);
    if (!isThere) continue;
    await expectSeen(page, target);
    return;
  }
  throw new Error(`${target.toString()} is not reached by ${MOST_STOPS} times ${key}.`);
}

/** What has the focus looks different from what has not. */
async function expectSeen(page: Page, target: Locator): Promise<void> {
  await target.scrollIntoViewIfNeeded();
  const { x, y, width, height } = (await target.boundingBox())!;
  const clip = { x: Math.max(0, x - 6), y: Math.max(0, y - 6), width: width + 12, height: height + 12 };
  const picture = async (): Promise<Buffer> => {
    await page.waitForTimeout(250);
    return page.screenshot({ clip, animations: 'disabled', caret: 'hide' });
  };
  const focused = await picture();
  await target.evaluate((element: HTMLElement) => element.blur());
  const left = await picture();
  await target.evaluate((element: HTMLElement) => element.focus({ focusVisible: true } as FocusOptions));
  await expect(target).toBeFocused();
  expect(focused.equals(left), `the focus is seen on ${target.toString()}`).toBe(false);
}

test('the whole job is done by keys: begin, import, weave, find, read, change, undo, publish', async ({
  page,
}) => {
  test.setTimeout(180_000);
  // So that the browser tells of the chooser from the first key on.
  page.on('filechooser', () => undefined);
  await page.goto('/');
  const name = page.getByPlaceholder('Name of a new study');
  await tabTo(page, name);
  await page.keyboard.type('Without a mouse');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Gather' })).toBeFocused();

  await tabTo(page, page.getByRole('button', { name: 'Choose files' }));
  const [chooser] = await Promise.all([
    page.waitForEvent('filechooser', { timeout: 15_000 }),
    page.keyboard.press('Enter'),
  ]);
  await chooser.setFiles(POSTS);
  await tabTo(page, page.getByRole('button', { name: 'Import', exact: true }));
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'tidepost.csv is in' })).toBeFocused();

  // The list is read once more when languages are known.
  const [study] = /studies\/[^/]+/.exec(page.url())!;
  await expect
    .poll(async () => {
      const answer = await page.request.get(`/api/v1/${study}/logbook`);
      const { steps } = (await answer.json()) as { steps: { state: string }[] };
      return steps.every(({ state }) => state === 'done');
    })
    .toBe(true);
  await page.waitForTimeout(1000);

  // A list is one stop, however many messages and hashtags stand in it.
  const rows = page.locator('pt-reading-list article');
  await tabTo(page, rows.first());
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('ArrowDown');
  await expect(rows.nth(2)).toBeFocused();
  await page.keyboard.press('Enter');
  await expect(page.locator('pt-message-view')).toBeVisible();
  await page.keyboard.press('End');
  await expect(page.locator('article[data-row="8999"]')).toBeFocused();
  await page.keyboard.press('Home');
  await expect(rows.first()).toBeFocused();

  await tabTo(page, page.getByRole('link', { name: 'Weave a network' }), 'Shift+Tab');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Weave', exact: true })).toBeFocused();

  // Questions are gone through by arrows, and the first is taken again.
  await tabTo(page, page.getByRole('radio', { name: 'Who addresses whom?' }));
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('radio', { name: 'What goes together?' })).toBeChecked();
  await page.keyboard.press('ArrowUp');
  await expect(page.getByRole('radio', { name: 'Who addresses whom?' })).toBeChecked();
  await tabTo(page, page.getByRole('button', { name: 'Weave and open the map' }));
  await page.keyboard.press('Enter');
  await expect(page.getByRole('tab', { name: 'Accounts 1,320' })).toBeVisible({ timeout: 60_000 });
  await expect(page.getByRole('button', { name: 'Stop here' })).toBeHidden({ timeout: 60_000 });

  await page.keyboard.press('/');
  await expect(page.getByPlaceholder('Find an account')).toBeFocused();
  await page.keyboard.type('nightbus14');
  await page.keyboard.press('Enter');
  const pane = page.locator('pt-reading-pane');
  await expect(pane.getByRole('heading', { name: 'Night Bus 14' })).toBeVisible();
  await expect(pane.locator('article').first()).toBeVisible();
  await tabTo(page, pane.getByRole('button', { name: 'Hold in place' }));
  await page.keyboard.press('Enter');
  await expect(pane.getByRole('button', { name: 'Held in place: free it' })).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(pane).toBeHidden();

  const phrases = page.locator('.caption button');
  const phrase = phrases.nth((await phrases.allTextContents()).indexOf('in-degree'));
  await tabTo(page, phrase);
  const before = await phrase.textContent();
  await page.keyboard.press('Enter');
  const settings = page.getByRole('dialog');
  await expect(settings.locator(':focus')).toHaveCount(1);
  const size = settings.getByRole('combobox').first();
  if (!(await size.evaluate((element) => element === document.activeElement))) await tabTo(page, size);
  await page.keyboard.press('ArrowDown');
  await expect(phrase).not.toHaveText(before!);
  await page.keyboard.press('Escape');
  await expect(settings).toBeHidden();
  await expect(phrase).toBeFocused();
  await page.keyboard.press('Control+z');
  await expect(phrase).toHaveText(before!);

  await tabTo(page, page.getByRole('link', { name: /^Publish/ }), 'Shift+Tab');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Publish', exact: true })).toBeFocused();
  const save = page.getByRole('button', { name: 'Save PNG' });
  await expect(save).toBeEnabled();
  await tabTo(page, save);
  const [saved] = await Promise.all([page.waitForEvent('download'), page.keyboard.press('Enter')]);
  const png = await readFile(await saved.path());
  expect(png.subarray(1, 4).toString()).toBe('PNG');
  await expect(save).toBeFocused();
});
