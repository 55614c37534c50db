import { expect, test } from '@playwright/test';
import { beginStudy, dropText, openFirstMap } from './steps';

test('an address that leads to nothing says so, and where to go on', async ({ page }) => {
  await openFirstMap(page, 'Somewhere');
  const study = /studies\/[^/]+/.exec(page.url())![0];

  await page.goto('/nowhere/at/all');
  await expect(page.getByRole('heading', { name: 'There is no such page' })).toBeVisible();
  await expect(page.getByText('/nowhere/at/all')).toBeVisible();
  await page.getByRole('link', { name: 'All studies' }).click();
  await expect(page).toHaveTitle('Studies · Pebble Thread');

  await page.goto('/studies/nosuchstudy/weave');
  await expect(page.getByRole('heading', { name: 'There is no study here' })).toBeVisible();
  await expect(page.getByRole('navigation').getByRole('link')).toHaveCount(0);

  await page.goto(`/${study}/somewhere`);
  await expect(page.getByRole('heading', { name: 'There is no such page' })).toBeVisible();
  await expect(page.getByRole('navigation').getByRole('link', { name: /^Weave/ })).toBeVisible();

  for (const stop of ['map', 'publish']) {
    await page.goto(`/${study}/${stop}/nosuchnetwork`);
    await expect(page.getByRole('heading', { name: 'There is no network here' })).toBeVisible();
  }
  await page.getByRole('link', { name: 'Who addresses whom', exact: true }).click();
  await expect(page.getByRole('img', { name: /^Map of a network: 1,320 accounts/ })).toBeVisible();
  await page.getByRole('navigation').getByRole('link', { name: /^Map/ }).click();
  await expect(page.getByRole('tab', { name: 'Accounts 1,320' })).toBeVisible();
});

test('an estimate that is too large offers what would fit', async ({ page }) => {
  // 3,400 accounts share one hashtag, 5,778,300 pairs; 2,000 of them share two, 1,999,000 pairs.
  const rows = Array.from({ length: 3400 }, (_, i) => `writer${i},${i < 2000 ? '#tide #pier' : '#tide'}`);
  await beginStudy(page, 'All say the same');
  await dropText(page, 'same.csv', ['author,text', ...rows].join('\n'));
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  await page.getByRole('link', { name: 'Weave a network' }).click();
  await page.getByRole('radio', { name: 'Who shares what?' }).click();
  // The tag that all share is left out at first.
  await expect(page.getByLabel('Left out', { exact: true })).toHaveValue('tide');
  await page.getByLabel('Left out', { exact: true }).fill('');
  await page.getByLabel('Most used').fill('5');
  await page.getByLabel('Messages for each at least').fill('1');
  await page.getByLabel('Strength of a tie at least').fill('1');
  await expect(page.locator('pt-weave-size')).toContainText(
    'This would give 5,778,300 ties; at most 5,000,000 can be held. With at least 2 for each tie it would fit.',
  );
  await expect(page.getByRole('button', { name: 'Weave and open the map' })).toBeDisabled();
  await page.getByRole('button', { name: 'Ask for at least 2' }).click();
  await expect(page.getByLabel('Strength of a tie at least')).toHaveValue('2');
  await expect(page.locator('pt-weave-size')).toContainText('1,999,000');
});
