import { expect, test } from '@playwright/test';
import { openFirstMap } from './steps';

test('how do groups go on through time, and what rises?', async ({ page }) => {
  await openFirstMap(page, 'Groups through time');
  await page.getByRole('navigation', { name: 'Stops' }).getByRole('link', { name: 'Read' }).click();
  await page.getByRole('tab', { name: 'Through time' }).click();
  await page.getByLabel('Slices').selectOption('month');
  await page.getByRole('button', { name: 'Weave the slices' }).click();

  // What happened comes by itself, once all slices are measured; groups have their titles in every slice.
  const happened = page.getByRole('region', { name: 'What happened' });
  await expect(happened.getByRole('heading')).toHaveText(
    ['What happened', 'March 2026', 'April 2026', 'May 2026'],
    { timeout: 60_000 },
  );
  const grows = happened
    .getByRole('listitem')
    .filter({ hasText: /#mothcount, #BatLine\s*grows from 118 to 150/ });
  await expect(grows).toBeVisible({ timeout: 60_000 });

  // A group opens its accounts, where they go next, and what each wrote.
  await happened.getByRole('button', { name: 'Accounts of #mothcount, #BatLine in April 2026' }).click();
  const who = page.getByRole('region', { name: 'Who they are' });
  await expect(who).toContainText('150 accounts');
  const stay = who.getByRole('button', { name: 'Who they are: stay' });
  const staying = (await stay.textContent())!.trim();
  await stay.click();
  await expect(who).toContainText(`${staying} accounts`);
  await who.getByRole('button', { name: 'read their messages' }).click();
  const pane = page.getByRole('complementary', { name: 'Messages behind the number' });
  await expect(pane).toContainText(/In May 2026: \d+ messages/);
  await pane.getByRole('button', { name: 'Close' }).click();

  // Other settings are another step; the logbook has both.
  await page.getByLabel('Share of nodes in both, percent').fill('60');
  await page.getByRole('button', { name: 'Follow again' }).click();
  await expect(grows).toHaveCount(0);

  // What rises: the hashtag that came with the power failure, with its messages.
  await page.getByRole('radio', { name: 'leads, rises, falls' }).click();
  const rising = page.getByRole('region', { name: 'Rising', exact: true });
  await rising.getByRole('button', { name: 'Read #blackoutnight in May 2026: 233' }).click();
  await expect(pane).toContainText('In May 2026: 233 messages');
  await pane.getByRole('button', { name: 'Close' }).click();

  // Who comes back finds the network that was read.
  await page.getByRole('link', { name: /^Logbook/ }).click();
  await page.getByRole('navigation', { name: 'Stops' }).getByRole('link', { name: 'Read' }).click();
  await page.getByRole('tab', { name: 'Through time' }).click();
  await expect(happened).toBeVisible();

  // A moment of one's own stands on the axes of time; what is shown stands in the address.
  await page.getByRole('radio', { name: 'moments' }).click();
  await page.getByLabel('When (UTC)').fill('2026-05-04T21:00');
  await page.getByLabel('What happened').fill('The lamps went out');
  await page.getByRole('button', { name: 'Mark', exact: true }).click();
  const moments = page.getByRole('list', { name: 'Moments' });
  await expect(moments.getByRole('listitem')).toHaveText(/The lamps went out\s*4 May 2026/);
  await page.reload();
  await expect(moments.getByRole('listitem')).toHaveCount(1);
  await page.getByRole('radio', { name: 'groups' }).click();
  await expect(page.getByText('The lamps went out')).toBeVisible();
  await page.getByRole('link', { name: /^Logbook/ }).click();
  await expect(page.getByText(/Jaccard of at least 0\.6/).first()).toBeVisible();
});
