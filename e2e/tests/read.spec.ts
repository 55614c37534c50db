import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { beginStudy, drop, dropText, openFirstMap } from './steps';

test('what is this group about, and how do I know?', async ({ page }) => {
  await openFirstMap(page, 'What groups are about');
  // The legend of the first map calls groups by what is typical for them.
  await page.getByRole('navigation').getByRole('link', { name: 'Read' }).click();
  const beside = page.getByRole('region', { name: 'Portraits beside each other' });
  const columns = beside.getByRole('columnheader');
  await expect(columns).toHaveCount(4);
  const title = columns.nth(2).getByRole('textbox');
  await expect(title).toHaveAttribute('placeholder', '#mothcount, #BatLine');

  // What it says: the number opens the messages behind it, as many as it counts.
  const moths = beside.getByRole('button', { name: /^Read the messages with #mothcount: / });
  const told = Number((await moths.textContent())?.trim());
  await moths.click();
  const pane = page.getByRole('complementary', { name: 'Messages behind the number' });
  await expect(pane).toContainText(`${told} messages`);
  await expect(pane.getByRole('article').first()).toContainText(/#mothcount/i);
  await pane.getByRole('button', { name: 'Keep as quotation' }).first().click();
  await expect(pane.getByRole('button', { name: 'Quoted: take it away' })).toHaveCount(1);
  // A memo can point at a message, which is undone at once.
  await pane.getByRole('button', { name: 'Cite in the memo' }).first().click();
  await expect(beside.getByRole('button', { name: /^message \d+$/ })).toHaveCount(1);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(beside.getByRole('button', { name: /^message \d+$/ })).toHaveCount(0);
  await pane.getByRole('button', { name: 'Close' }).click();

  // Who leads it, and where that is on the map.
  const who = beside.getByRole('row', { name: /^Who/ }).getByRole('cell').nth(2);
  await expect(who.getByRole('link').first()).toHaveText('pale_notes');

  // In the researcher's own words: the title is the name of the group everywhere.
  await title.fill('Those who count moths');
  await title.press('Tab');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(title).toHaveValue('');
  await title.fill('Those who count moths');
  await title.press('Tab');
  await beside
    .getByLabel('Memo on Those who count moths')
    .fill('They measure (@pale_notes), and ask for amber.');
  await beside.getByLabel('Memo on Those who count moths').blur();
  await expect(beside.getByRole('link', { name: '@pale_notes' })).toBeVisible();
  await page.getByLabel('Which messages').selectOption('quotations');
  await expect(beside.getByRole('row', { name: /^What they said/ })).toContainText(/#mothcount/i);
  await page.reload();
  await expect(columns.nth(2).getByRole('textbox')).toHaveValue('Those who count moths');
  await expect(beside.getByLabel('Memo on Those who count moths')).toHaveValue(
    'They measure (@pale_notes), and ask for amber.',
  );

  // Which groups stand beside each other, and in which order, is kept in the address.
  await beside.getByRole('button', { name: 'Move Those who count moths to the left' }).click();
  await expect(columns.nth(1).getByRole('textbox')).toHaveValue('Those who count moths');
  await columns.nth(0).getByRole('button', { name: /^Hide/ }).click();
  await expect(columns).toHaveCount(3);
  await page.reload();
  await expect(columns).toHaveCount(3);
  await expect(columns.nth(0).getByRole('textbox')).toHaveValue('Those who count moths');

  // What leaves the application says how it was made.
  await page.getByRole('button', { name: 'Save as' }).click();
  const saving = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: 'Markdown' }).click();
  const path = await (await saving).path();
  const text = readFileSync(path, 'utf8');
  expect(text).toContain('## Those who count moths');
  expect(text).toContain('Dunning 1993');
  expect(text).toContain('They measure (@pale\\_notes), and ask for amber.');
  await page.getByRole('link', { name: /^Logbook/ }).click();
  await expect(page.getByText(/Portraits of 3 groups of “community” were saved as Markdown/)).toBeVisible();
  await page.getByRole('link', { name: /^Map/ }).click();
  await page.getByRole('tab', { name: 'Groups' }).click();
  await expect(page.getByLabel('Name of Those who count moths')).toBeVisible();
});

test('a network without messages has portraits of nodes and ties', async ({ page }) => {
  await beginStudy(page, 'Ties alone');
  await dropText(page, 'ties.csv', 'source,target\nann,ben\nben,cat\ncat,ann\ndan,eve\n');
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  await page.getByRole('navigation', { name: 'Stops' }).getByRole('link', { name: 'Read' }).click();
  await page.getByRole('button', { name: 'Draw the portraits' }).click();
  const beside = page.getByRole('region', { name: 'Portraits beside each other' });
  await expect(beside.getByRole('columnheader')).toHaveCount(2);
  await expect(beside.getByText(/^3 nodes, 60 % of all/)).toBeVisible();
  await expect(beside.getByRole('row', { name: /^Hashtags/ })).toHaveCount(0);
});

test('what changed in May?', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'The lamps of Sallowmere' }).first().click();
  await page.getByRole('navigation', { name: 'Stops' }).getByRole('link', { name: 'Read' }).click();
  await page.getByRole('tab', { name: 'Two beside each other' }).click();
  await page.getByLabel('What changed').selectOption('April 2026 beside May 2026');
  // The trend that came with the power failure.
  const told = page.getByText(/^A: 3,024 messages by 969 accounts; B: 3,350 messages/);
  await expect(told).toContainText('Typical of B: #blackoutnight');
  const row = page.getByRole('row', { name: /^hashtags/ });
  const number = row.getByRole('button', { name: /^Read #blackoutnight in B: / });
  await expect(number).toHaveText('233');
  await number.click();
  const pane = page.getByRole('complementary', { name: 'Messages behind the number' });
  await expect(pane).toContainText('233 messages');
  await expect(pane.getByRole('article').first()).toContainText(/May 2026/);
  // What is compared stands in the address; back leads to what was compared before.
  await page.reload();
  await expect(told).toBeVisible();
  await page.getByLabel('B is').selectOption('a group');
  await page.getByLabel('Group of B').selectOption('#mothcount, #BatLine');
  await expect(page.getByText(/Typical of B: #mothcount/)).toBeVisible();
  await page.goBack();
  await page.goBack();
  await expect(told).toBeVisible();
});

test('whom do two audiences share?', async ({ page }) => {
  await beginStudy(page, 'Shared followers');
  for (const list of ['harbour_post', 'quay_traders', 'sallow_sky_club']) {
    await drop(page, `followers of ${list}.csv`);
    await page.getByRole('button', { name: 'Import', exact: true }).click();
    await expect(page.getByRole('button', { name: new RegExp(`followers of ${list}`) })).toBeVisible();
  }
  await page.getByRole('navigation', { name: 'Stops' }).getByRole('link', { name: 'Read' }).click();
  await page.getByRole('tab', { name: 'Shared audiences' }).click();
  const pair = page.getByRole('button', { name: 'Who is in both harbour_post and quay_traders' });
  const both = Number((await pair.textContent())?.replaceAll(',', ''));
  await pair.click();
  const who = page.getByRole('region', { name: 'Members' });
  await expect(who.getByRole('status')).toHaveText(
    `${both} followers follow “harbour_post” and “quay_traders”`,
  );
  await who.getByRole('radiogroup', { name: 'sallow_sky_club' }).getByRole('radio', { name: 'not' }).click();
  // While they are looked for, the question stands there without a number.
  await expect(who.getByRole('status')).toHaveText(
    /^\s*[\d,]+ followers follow “harbour_post” and “quay_traders”, but not “sallow_sky_club”/,
  );
  const left = Number((await who.getByRole('status').textContent())!.trim().split(' ')[0]);
  expect(left).toBeLessThan(both);
  const saving = page.waitForEvent('download');
  await who.getByRole('button', { name: 'Save as CSV' }).click();
  const lines = readFileSync(await (await saving).path(), 'utf8')
    .trim()
    .split('\r\n');
  expect(lines).toHaveLength(left + 1);
  await who.getByLabel('What they are').fill('of the quay');
  await who.getByRole('button', { name: 'Make a category' }).click();
  await expect(page.getByText(new RegExp(`${left} accounts are “of the quay”`))).toBeVisible();

  // Or in the network at once, on whose map they are seen then.
  await page.getByRole('navigation', { name: 'Stops' }).getByRole('link', { name: 'Weave' }).click();
  await page.getByRole('button', { name: 'Weave and open the map' }).click();
  await expect(page.getByRole('tab', { name: /^Accounts/ })).toBeVisible({ timeout: 60_000 });
  await page.getByRole('navigation', { name: 'Stops' }).getByRole('link', { name: 'Read' }).click();
  await page.getByRole('tab', { name: 'Shared audiences' }).click();
  await pair.click();
  await who.getByLabel('Name of the category').fill('circle');
  await who.getByLabel('What they are').fill('both');
  await who.getByRole('button', { name: 'Mark them on the map' }).click();
  await who.getByRole('button', { name: 'Colour the map by “circle”' }).click();
  await expect(page.getByRole('button', { name: 'circle', exact: true })).toBeVisible();
  await expect(page.getByRole('button', { name: `both, ${both} nodes` })).toBeAttached();
  // What hands did on a map can be undone.
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: 'follows', exact: true })).toBeVisible();
});

test('how did this sentence spread?', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('link', { name: 'The lamps of Sallowmere' }).first().click();
  await page.getByRole('navigation', { name: 'Stops' }).getByRole('link', { name: 'Read' }).click();
  await page.getByRole('tab', { name: 'Spread' }).click();
  const told = page.getByRole('region', { name: 'How it spread' });
  // What most accounts have stands there first.
  await expect(told.getByRole('status').first()).toContainText(
    '#LateLampPlan: 6,067 messages by 1,203 accounts',
  );

  // The hashtag that came with the power failure: who had it first, and from whom as far as messages tell.
  await page.getByLabel('Find what spread').fill('blackout');
  await page.getByRole('button', { name: '#blackoutnight' }).click();
  const sentence = told.getByRole('status').first();
  await expect(sentence).toContainText('233 messages by 194 accounts, first by bat_counts on 9 May 2026');
  const known = /of (\d+) the messages tell it/.exec((await sentence.textContent())!)![1];
  await page.getByLabel(/guess by ties/).check();
  await expect(sentence).toContainText(`of ${known} the messages tell it, of`);
  await expect(sentence).toContainText('more ties make it likely');

  // Through whom it came into a group, and what the group wrote with it.
  await told.getByRole('button', { name: 'Read its messages in #mothcount, #BatLine' }).click();
  const pane = page.getByRole('complementary', { name: 'Messages behind the number' });
  await expect(pane.getByRole('article').first()).toContainText(/#blackoutnight/i);
  await pane.getByRole('button', { name: 'Close' }).click();

  // It is played on the map, in the places of the map.
  await told.getByRole('button', { name: 'Play' }).click();
  await expect(told.getByText(/^\s*\d+ of 194 accounts/)).toBeVisible();
  await told.getByRole('button', { name: 'Stop' }).click();
  await expect(told.getByRole('img', { name: /^Map of/ })).toBeVisible();

  // From any message that is read: how its text spread. The address holds what is asked, back leads to what was before.
  await told.getByRole('list', { name: 'Steps' }).getByRole('button').first().click();
  await pane.getByRole('link', { name: 'how its text spread' }).first().click();
  await expect(sentence).not.toContainText('#blackoutnight:');
  await page.goBack();
  await expect(sentence).toContainText('#blackoutnight: 233 messages');
  await page.reload();
  await expect(sentence).toContainText('#blackoutnight: 233 messages');
});
