import { expect, test, type Page } from '@playwright/test';
import { openFirstMap } from './steps';

/** The rank that stands in a row of the table of first places, by the title of its column. */
async function rankOf(page: Page, account: string, measure: string): Promise<number> {
  await expect(page.locator('pt-ranks-panel thead th', { hasText: measure })).toBeVisible();
  const titles = await page.locator('pt-ranks-panel thead th').allInnerTexts();
  const column = titles.findIndex((title) => title.startsWith(measure));
  const row = page.locator('pt-ranks-panel tbody tr', { hasText: account });
  const [rank] = (await row.locator('td').nth(column).innerText()).trim().split(/\s/);
  return Number(rank.replace(',', ''));
}

test('three questions are answered: who is loud, who bridges, who posts in step', async ({ page }) => {
  test.setTimeout(240_000);
  await openFirstMap(page, 'Three questions');

  // The loud account is addressed most, and bridges nothing.
  await page.getByRole('tab', { name: 'Measures' }).click();
  await page.getByRole('radio', { name: 'Ranking' }).click();
  expect(await rankOf(page, 'wall_lamps_now', 'in-degree')).toBe(1);
  expect(await rankOf(page, 'wall_lamps_now', 'betweenness')).toBeGreaterThan(100);

  // The bus driver is a bridge: high by betweenness, and how sure that is can be asked.
  expect(await rankOf(page, 'nightbus14', 'betweenness')).toBeLessThanOrEqual(3);
  await page.getByRole('button', { name: 'how sure?' }).last().click();
  await expect(page.getByText(/Ranks by betweenness were computed again on 100 networks/)).toBeVisible({
    timeout: 120_000,
  });
  await expect(page.locator('pt-ranks-panel tbody tr', { hasText: 'nightbus14' })).toContainText(/1 to \d/);

  // Without the first ten by betweenness some are cut off, which can be noted.
  await page.getByRole('radio', { name: 'Removal' }).click();
  await page.getByLabel('How many are taken out').fill('10');
  await expect(page.getByRole('button', { name: 'nightbus14', exact: true })).toBeVisible();
  await expect(page.locator('pt-removal-panel dd').first()).not.toHaveText('0');
  await page.getByRole('button', { name: 'Note it in the logbook' }).click();
  await expect(page.getByText(/Without 10 nodes with the highest betweenness/)).toBeVisible();

  // Groups are found by another method, agree with the first, and colour the map.
  await page.getByRole('tab', { name: 'Groups' }).click();
  await page.getByRole('button', { name: 'Find groups' }).click();
  await expect(page.getByText(/found by the Leiden method/)).toBeVisible({ timeout: 60_000 });
  await expect(page.getByRole('button', { name: 'Colours the map' })).toBeVisible();
  await page.getByRole('radio', { name: 'Beside another' }).click();
  expect(Number(await page.locator('pt-group-compare dd').first().innerText())).toBeGreaterThan(0.8);

  // The ring posts the same texts in step.
  await page.getByRole('link', { name: /Weave/ }).click();
  await page.getByRole('radio', { name: 'Who posts in step?' }).click();
  await page.getByRole('button', { name: 'Weave and open the map' }).click();
  await expect(page.getByRole('combobox', { name: 'Network' })).toContainText(
    'Who posts the same text in step',
  );
  await page.getByRole('tab', { name: /^Accounts \d+$/ }).click();
  await expect(page.locator('.ag-row').first()).toBeVisible({ timeout: 60_000 });
  for (const account of ['proud_voice', 'honest_street', 'true_street'])
    await expect(page.locator('.ag-pinned-left-cols-container')).toContainText(account);
});
