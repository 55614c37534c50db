import { expect as playwrightExpect, type Page } from '@playwright/test';
import { beginStudy, dropText } from '../tests/steps';

const expect = playwrightExpect.configure({ timeout: 40_000 });

/** A screen in a state that no demo shows. */
interface State {
  readonly name: string;
  readonly show: (page: Page) => Promise<void>;
  /** What the console says is wanted here. */
  readonly says?: RegExp;
}

const stop = (page: Page, name: RegExp): Promise<void> =>
  page.getByRole('navigation').getByRole('link', { name }).click();

const LONG = 'Averyveryverylongnamewithoutanyspaceinitthatgoesonandon'.repeat(5);
const WORDY = 'a study about everything that was said by the river in the long winter, '
  .repeat(3)
  .slice(0, 200);

/** Accounts with names of some 300 characters, from right to left, and without a name; texts without a space; 200 hashtags. */
function oddMessages(): string {
  const rows = ['author,name,text,time,reply to'];
  const add = (...fields: string[]): void => {
    rows.push(fields.map((field) => `"${field.replaceAll('"', '""')}"`).join(','));
  };
  for (let i = 0; i < 240; i++) {
    const day = String(1 + (i % 28)).padStart(2, '0');
    const time = `2026-02-${day}T10:00:00Z`;
    const [own, other] = [i % 12, (i * 7 + 1) % 12].map((k) => `${LONG}${k}`);
    const tag = `#${LONG.slice(0, 80)}${i % 200} #موج${i % 5}`;
    const text = i % 3 === 0 ? `@${other} ${tag} ${LONG}` : `@${other} السلام على النهر ${tag}`;
    add(own, i % 2 ? 'قارئة النهر الطويلة جدا '.repeat(8) : LONG, text, time, '');
  }
  return rows.join('\n');
}

/** A study of them, of which a network is woven. */
async function odd(page: Page): Promise<void> {
  await beginStudy(page, WORDY);
  await dropText(page, `${LONG.slice(0, 120)}.csv`, oddMessages());
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  await expect(page.getByRole('link', { name: 'Weave a network' })).toBeVisible();
}

async function oddMap(page: Page): Promise<void> {
  await odd(page);
  await stop(page, /^Weave/);
  await page.getByLabel('Name of the network').fill(WORDY);
  await page.getByRole('button', { name: 'Weave and open the map' }).click();
  await expect(page.getByRole('tab', { name: /^Accounts \d+/ })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Stop here' })).toBeHidden();
}

const onOddMap = (then: (page: Page) => Promise<unknown>) =>
  async function show(page: Page): Promise<void> {
    await oddMap(page);
    await then(page);
  };

const NOTHING: readonly State[] = ['Gather', 'Tidy', 'Weave', 'Map', 'Read', 'Publish', 'Logbook'].map(
  (name) => ({
    name: `${name} without data`,
    async show(page) {
      await beginStudy(page, 'Nothing yet');
      await stop(page, new RegExp(`^${name}`));
      await expect(page.getByRole('heading', { name, exact: true, level: 1 })).toBeVisible();
    },
  }),
);

const LONG_NAMES: readonly State[] = [
  { name: 'Gather with long names', show: odd },
  {
    name: 'accounts with long names',
    async show(page) {
      await odd(page);
      await page.getByRole('tab', { name: 'Accounts' }).click();
    },
  },
  {
    name: 'Tidy with long names',
    async show(page) {
      await odd(page);
      await stop(page, /^Tidy/);
    },
  },
  {
    name: 'Weave with long names',
    async show(page) {
      await oddMap(page);
      await stop(page, /^Weave/);
    },
  },
  { name: 'the map with long names', show: oddMap },
  {
    name: 'a node with a long name',
    show: onOddMap(async (page) => {
      await page.getByPlaceholder('Find an account').fill(LONG.slice(0, 20));
      await page.getByPlaceholder('Find an account').press('Enter');
      await expect(page.locator('pt-reading-pane article').first()).toBeVisible();
    }),
  },
  {
    name: 'tables with long names',
    show: onOddMap((page) => page.getByRole('tab', { name: /^Accounts \d+/ }).click()),
  },
  {
    name: 'plates with long names beside the map',
    show: onOddMap(async (page) => {
      await keepPlate(page);
      await page.getByRole('button', { name: 'Plates', exact: true }).click();
      await page.getByRole('button', { name: /^More for/ }).click();
      await page.getByRole('menuitem', { name: 'Title and note' }).click();
      await page.getByLabel('Title of the plate').fill(LONG.repeat(3).slice(0, 119));
      await page.getByLabel('Note on the plate').fill(`${LONG}. ${LONG}`);
      await page.getByRole('button', { name: 'Keep', exact: true }).click();
      await expect(page.locator('pt-plates-panel .note')).toBeVisible();
    }),
  },
  {
    name: 'a page of a plate with long names',
    show: onOddMap(async (page) => {
      await keepPlate(page);
      await stop(page, /^Publish/);
      await page.getByLabel('What of the map').selectOption('plates');
      await expect(page.locator('pt-publish .sheet img')).toHaveAttribute('alt', /on a page/);
      await page.getByRole('button', { name: /^Before you save/ }).click();
    }),
  },
  {
    name: 'groups with long names',
    show: onOddMap((page) => page.getByRole('tab', { name: 'Groups' }).click()),
  },
  {
    name: 'portraits with long names',
    show: onOddMap(async (page) => {
      await stop(page, /^Read/);
      await expect(page.getByRole('columnheader').first()).toBeVisible();
    }),
  },
  {
    name: 'two beside each other with long names',
    show: onOddMap(async (page) => {
      await stop(page, /^Read/);
      await page.getByRole('tab', { name: 'Two beside each other' }).click();
      await page.getByLabel('A is').selectOption('a group');
      await expect(page.getByRole('region', { name: 'Comparison' })).toBeVisible();
    }),
  },
  {
    name: 'groups through time with long names',
    show: onOddMap(async (page) => {
      await stop(page, /^Read/);
      await page.getByRole('tab', { name: 'Through time' }).click();
      await page.getByLabel('Slices').selectOption('week');
      await page.getByRole('button', { name: 'Weave the slices' }).click();
      await page.getByRole('region', { name: 'What happened' }).getByRole('button').first().click();
      await expect(
        page.getByRole('region', { name: 'Who they are' }).getByRole('listitem').first(),
      ).toBeVisible();
    }),
  },
  {
    name: 'a spread with long names',
    show: onOddMap(async (page) => {
      await stop(page, /^Read/);
      await page.getByRole('tab', { name: 'Spread' }).click();
      const told = page.getByRole('region', { name: 'How it spread' });
      await expect(told.getByRole('list', { name: 'Steps' }).getByRole('listitem').first()).toBeVisible();
    }),
  },
  {
    name: 'codes with long names',
    show: onOddMap(async (page) => {
      await stop(page, /^Read/);
      await page.getByRole('tab', { name: 'Codes' }).click();
      await page.getByRole('button', { name: 'New code' }).click();
      await page.getByLabel('Name of code 1').fill(LONG.slice(0, 60));
      await page.getByLabel('Group of code 1').fill(LONG.slice(0, 60));
      await page.getByRole('button', { name: 'Keep the codes' }).click();
      await expect(page.getByText('kept', { exact: true })).toBeVisible();
      await page.getByRole('radio', { name: 'code', exact: true }).click();
      await page.getByRole('button', { name: 'Draw the sample' }).click();
      await expect(page.getByRole('article', { name: 'Message to be coded' })).toBeVisible();
    }),
  },
  {
    name: 'shared audiences with long names',
    show: onOddMap(async (page) => {
      await stop(page, /^Read/);
      await page.getByRole('tab', { name: 'Shared audiences' }).click();
      await page.locator('.combos .evidence').first().click();
      await expect(page.getByRole('region', { name: 'Members' }).getByRole('listitem').first()).toBeVisible();
    }),
  },
  {
    name: 'Publish with long names',
    show: onOddMap((page) => stop(page, /^Publish/)),
  },
  {
    name: 'a routine with long names',
    show: onOddMap(async (page) => {
      await stop(page, /^Logbook/);
      await page.getByRole('button', { name: 'Make a routine' }).click();
      await page.getByRole('checkbox').first().check();
      await page.getByRole('button', { name: /^Make a routine of/ }).click();
      await page.getByRole('button', { name: 'Keep the routine' }).click();
      await expect(page.getByRole('button', { name: 'Save as JSON' })).toBeVisible();
    }),
  },
  { name: 'the logbook with long names', show: onOddMap((page) => stop(page, /^Logbook/)) },
  {
    name: 'studies with long names',
    async show(page) {
      await beginStudy(page, WORDY);
      await page.goto('/');
      await expect(page.getByRole('link', { name: WORDY.trim() }).first()).toBeVisible();
    },
  },
];

const REFUSED: readonly State[] = [
  {
    name: 'a file that is refused',
    async show(page) {
      await beginStudy(page, 'Refused');
      await dropText(page, 'empty.csv', '');
      await expect(page.getByText('empty.csv').first()).toBeVisible();
    },
    says: /422/,
  },
  {
    name: 'an application that does not answer',
    async show(page) {
      await page.goto('/');
      await expect(page.getByRole('link', { name: 'The lamps of Sallowmere' }).first()).toBeVisible();
      await page.route('**/api/**', (route) => route.abort());
      await page.getByRole('link', { name: 'The lamps of Sallowmere' }).first().click();
      await expect(page.getByText('does not answer').first()).toBeVisible();
    },
    says: /ERR_FAILED/,
  },
  {
    name: 'no study',
    async show(page) {
      await page.goto('/studies/nosuchstudy/weave');
      await expect(page.getByRole('heading', { name: 'There is no study here' })).toBeVisible();
    },
    says: /404/,
  },
  {
    name: 'a weave that gives nothing',
    async show(page) {
      await odd(page);
      await stop(page, /^Weave/);
      await page.getByLabel('Messages for each tie at least').fill('900');
      await expect(page.getByText('This gives no ties')).toBeVisible();
    },
  },
];

async function keepPlate(page: Page): Promise<void> {
  // The legend is there once the map is drawn.
  await expect(page.getByRole('button', { name: /^Legend, / }).first()).toBeVisible();
  await expect(page.getByRole('button', { name: 'Stop here' })).toBeHidden();
  await page.keyboard.press('p');
  await expect(page.locator('mat-snack-bar-container').last()).toContainText('was kept as plate');
}

export const STATES: readonly State[] = [...NOTHING, ...LONG_NAMES, ...REFUSED];
