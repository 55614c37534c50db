import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect as playwrightExpect, type Page } from '@playwright/test';
import { beginStudy, drop, openFirstMap } from '../tests/steps';

const expect = playwrightExpect.configure({ timeout: 40_000 });

/** A main view of the application, as it is shown in the documentation. */
interface View {
  /** Of the file in docs/screenshots, without its ending. */
  readonly name: string;
  readonly theme?: 'dark';
  /** Leads to it from an empty page, by the interface alone. */
  readonly show: (page: Page) => Promise<void>;
}

async function study(page: Page): Promise<void> {
  await page.goto('/');
  await page.getByRole('link', { name: 'The lamps of Sallowmere' }).first().click();
  await page.getByRole('link', { name: /^Gather/ }).click();
  await expect(page.getByRole('heading', { name: 'Gather' })).toBeVisible();
}

async function map(page: Page): Promise<void> {
  await study(page);
  await page.getByRole('navigation').getByRole('link', { name: /^Map/ }).click();
  await expect(page.getByRole('tab', { name: /^Accounts [\d,]+/ })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Stop here' })).toBeHidden();
}

/** The map with one of the panels below it. */
/** Codes of the picture, with the groups that they are in. */
const CODES = [
  ['ask', 'what it does'],
  ['blame', 'what it does'],
  ['thanks', 'what it does'],
  ['joke', 'how it is said'],
  ['own experience', 'how it is said'],
] as const;

async function stop(page: Page, name: RegExp): Promise<void> {
  await study(page);
  await page.getByRole('navigation').getByRole('link', { name }).click();
}

export const VIEWS: readonly View[] = [
  { name: 'gather', show: study },
  {
    name: 'gather-preview',
    async show(page) {
      await beginStudy(page, 'A preview');
      await drop(page, 'tidepost.tsv');
      await expect(page.getByRole('heading', { name: 'tidepost.tsv' })).toBeVisible();
    },
  },
  {
    name: 'gather-collecting',
    async show(page) {
      await beginStudy(page, 'Followers of the lamps');
      await page.getByRole('button', { name: 'Collect from a service' }).click();
      await page.getByLabel(/^What/).selectOption('followers');
      await page.getByLabel(/Handles of accounts/).fill('harbour_post');
      await page.getByLabel(/At most/).fill('1000');
      await expect(page.getByText(/requests? at most/)).toBeVisible();
      await page.getByRole('button', { name: 'Begin', exact: true }).click();
      await expect(page.getByText('waiting for the budget', { exact: true })).toBeVisible();
    },
  },
  { name: 'tidy', show: (page) => stop(page, /^Tidy/) },
  { name: 'weave', show: (page) => stop(page, /^Weave/) },
  { name: 'map', show: map },
  { name: 'map-night', theme: 'dark', show: map },
  {
    name: 'map-selection',
    async show(page) {
      await map(page);
      await page.getByPlaceholder('Find an account').fill('nightbus14');
      await page.getByPlaceholder('Find an account').press('Enter');
      await expect(page.locator('pt-reading-pane article').first()).toBeVisible();
    },
  },
  {
    name: 'read',
    async show(page) {
      await stop(page, /^Read/);
      await expect(page.getByRole('columnheader')).toHaveCount(4);
      // Each portrait is read by itself.
      await expect(page.getByText('…', { exact: true })).toHaveCount(0);
    },
  },
  {
    name: 'spread',
    async show(page) {
      await stop(page, /^Read/);
      await page.getByRole('tab', { name: 'Spread' }).click();
      await page.getByLabel('Find what spread').fill('blackout');
      await page.getByRole('button', { name: '#blackoutnight' }).click();
      await expect(page.getByText(/#blackoutnight: 233 messages/)).toBeVisible();
    },
  },
  {
    name: 'audiences',
    async show(page) {
      await beginStudy(page, 'Who follows whom');
      for (const list of ['harbour_post', 'marsh_records', 'quay_traders', 'sallow_sky_club']) {
        await drop(page, `followers of ${list}.csv`);
        await page.getByRole('button', { name: 'Import', exact: true }).click();
        await expect(page.getByRole('button', { name: new RegExp(`followers of ${list}`) })).toBeVisible();
      }
      await page.getByRole('navigation').getByRole('link', { name: /^Read/ }).click();
      await page.getByRole('tab', { name: 'Shared audiences' }).click();
      await page.getByRole('button', { name: /^Who is in both harbour_post and quay_traders/ }).click();
      await expect(page.getByRole('region', { name: 'Members' }).getByRole('listitem').first()).toBeVisible();
    },
  },
  { name: 'logbook', show: (page) => stop(page, /^Logbook/) },
  {
    name: 'routines',
    async show(page) {
      await stop(page, /^Logbook/);
      await page.getByRole('link', { name: 'Routines' }).click();
      await page.getByRole('button', { name: /^Who talks to whom/ }).click();
      const posts = join(import.meta.dirname, '../../demo/tidepost.csv');
      await page.getByLabel('Which file of posts?').setInputFiles(posts);
      await page.getByRole('spinbutton', { name: 'Messages for each tie at least?' }).fill('2');
      await expect(page.getByText(/^It will take in tidepost\.csv/)).toBeVisible();
      await page.getByRole('heading', { name: 'Routines', exact: true }).click();
    },
  },
  { name: 'studies', show: async (page) => void (await page.goto('/')) },
  // These change the demo, or add studies, and so come last.
  {
    name: 'report',
    async show(page) {
      await stop(page, /^Publish/);
      await page.getByRole('button', { name: 'Make a report' }).click();
      const dialog = page.getByRole('dialog', { name: 'A report' });
      await expect(dialog.getByLabel('Title')).toBeFocused();
      await dialog.getByLabel('Title').fill('Who answers whom in Sallowmere');
      await dialog.getByLabel('Authors').fill('The lamps group');
      const save = dialog.getByRole('button', { name: 'Save HTML' });
      await expect(save).toBeEnabled();
      const [download] = await Promise.all([page.waitForEvent('download'), save.click()]);
      const file = join(tmpdir(), `pebble-report-${process.pid}.html`);
      await download.saveAs(file);
      await page.goto(`file://${file}`);
      await page.getByRole('heading', { name: 'The map' }).scrollIntoViewIfNeeded();
      await page.evaluate(() => document.querySelector('figure')?.scrollIntoView({ block: 'center' }));
    },
  },
  {
    name: 'flow',
    async show(page) {
      await openFirstMap(page, 'Groups through time');
      await page.getByRole('navigation').getByRole('link', { name: /^Read/ }).click();
      await page.getByRole('tab', { name: 'Through time' }).click();
      await page.getByRole('button', { name: 'Weave the slices' }).click();
      const happened = page.getByRole('region', { name: 'What happened' });
      await happened.getByRole('button', { name: 'Accounts of #mothcount, #BatLine in March 2026' }).click();
      await expect(
        page.getByRole('region', { name: 'Who they are' }).getByRole('listitem').first(),
      ).toBeVisible();
    },
  },
  {
    name: 'coding',
    async show(page) {
      await beginStudy(page, 'Close reading');
      await drop(page, 'tidepost.csv');
      await page.getByRole('button', { name: 'Import', exact: true }).click();
      await page.getByRole('navigation').getByRole('link', { name: /^Read/ }).click();
      await page.getByRole('tab', { name: 'Codes' }).click();
      for (const [i, [name, set]] of CODES.entries()) {
        await page.getByRole('button', { name: 'New code' }).click();
        await page.getByLabel(`Name of code ${i + 1}`).fill(name);
        await page.getByLabel(`Group of code ${i + 1}`).fill(set);
      }
      await page.getByRole('button', { name: 'Keep the codes' }).click();
      await expect(page.getByText('kept', { exact: true })).toBeVisible();
      await page.getByRole('radio', { name: 'code', exact: true }).click();
      await page.getByRole('button', { name: 'Draw the sample' }).click();
      for (let i = 0; i < 5; i++) {
        await expect(page.getByText(`${i} of 50 messages coded`)).toBeVisible();
        await expect(page.getByRole('article', { name: 'Message to be coded' })).toContainText(`${i + 1} ·`);
        await page.keyboard.press(i < 4 ? 'Enter' : '2');
      }
    },
  },
  {
    name: 'publish',
    async show(page) {
      // A figure is as large as the map was on the screen.
      await openFirstMap(page, 'Two plates');
      await expect(page.getByRole('button', { name: /^Community / })).toHaveCount(8);
      await expect(page.getByRole('button', { name: 'Stop here' })).toBeHidden();
      await page.keyboard.press('p');
      const notice = page.locator('mat-snack-bar-container').last();
      await expect(notice).toContainText('The map was kept as plate');
      await page
        .locator('.caption button')
        .filter({ hasText: /^1,320 accounts/ })
        .click();
      await page.getByLabel('Least weight of a tie').fill('2');
      await page.getByLabel('Least weight of a tie').press('Enter');
      await page.getByRole('checkbox', { name: 'nodes without ties' }).uncheck();
      await page.keyboard.press('Escape');
      await page.locator('pt-map-canvas canvas').focus();
      await page.keyboard.press('p');
      await expect(notice).toContainText('ties of weight 2');
      await page
        .getByRole('navigation')
        .getByRole('link', { name: /^Publish/ })
        .click();
      await page.getByLabel('What of the map').selectOption('plates');
      await expect(page.locator('pt-publish .sheet img')).toHaveAttribute('alt', /^2 maps on a page/);
    },
  },
  {
    name: 'page',
    async show(page) {
      await openFirstMap(page, 'A page');
      await expect(page.getByRole('button', { name: /^Community / })).toHaveCount(8);
      await expect(page.getByRole('button', { name: 'Stop here' })).toBeHidden();
      await page
        .getByRole('navigation')
        .getByRole('link', { name: /^Publish/ })
        .click();
      await page.getByRole('button', { name: 'Make a page' }).click();
      const dialog = page.getByRole('dialog', { name: 'A page to share' });
      await dialog.getByLabel('Title').fill('Who answers whom in Sallowmere');
      await dialog.getByLabel('Authors').fill('The lamps group');
      const save = dialog.getByRole('button', { name: 'Save the page' });
      await expect(save).toBeEnabled();
      const [download] = await Promise.all([page.waitForEvent('download'), save.click()]);
      const file = join(tmpdir(), `pebble-page-${process.pid}.html`);
      await download.saveAs(file);
      await page.goto(`file://${file}`);
      await page.getByRole('searchbox').fill('nightbus14');
      await page.getByRole('searchbox').press('Enter');
      await expect(page.getByRole('heading', { name: 'nightbus14' })).toBeVisible();
      await page.locator('canvas').focus();
    },
  },
];
