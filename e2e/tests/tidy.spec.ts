import { expect, test } from '@playwright/test';
import { beginStudy, drop } from './steps';

const take = { name: 'Import', exact: true } as const;

test('what was tidied by keys is woven, and a network says when other decisions hold', async ({ page }) => {
  await beginStudy(page, 'Tidy');
  await drop(page, 'tidepost.csv');
  await page.getByRole('button', take).click();
  await expect(page.getByRole('button', { name: /tidepost\.csv · 9,000 messages/ })).toBeVisible();

  // The hashtag by which the posts were collected is left out, two others are merged.
  await page.getByRole('link', { name: /Tidy/ }).click();
  const rows = page.locator('pt-thing-table tbody tr');
  await expect(rows.first()).toContainText('#LateLampPlan');
  await page.keyboard.press('x');
  await expect(rows.first()).toContainText('left out');
  await expect(rows.nth(1)).toHaveAttribute('aria-selected', 'true');
  await page.keyboard.press('m');
  await expect(page.getByLabel(/is the same as/)).toBeFocused();
  await page.keyboard.type('pieFriday');
  await page.keyboard.press('Enter');
  await expect(rows.nth(1)).toContainText('→ #PieFriday');
  await expect(page.getByText(/^2 of \d+ hashtags reviewed/)).toBeVisible();

  // They are woven so, and every tie opens onto its messages.
  await page.getByRole('link', { name: /Weave/ }).click();
  await page.getByRole('radio', { name: /What goes together/ }).click();
  await page.getByRole('textbox', { name: 'Left out' }).fill('');
  await page.getByRole('textbox', { name: 'Left out' }).blur();
  await page.getByRole('button', { name: 'Weave and open the map' }).click();
  await expect(page.getByRole('button', { name: 'they stand in the same message' })).toBeVisible();
  await page.getByRole('tab', { name: /^Ties/ }).click();
  await page.locator('.ag-center-cols-container [role="row"]').first().click();
  await expect(page.locator('pt-reading-pane article').first()).toContainText('#');

  // Taken back, the network says that it was woven with other decisions.
  await page.getByRole('link', { name: /Tidy/ }).click();
  await expect(rows.first()).toContainText('left out');
  await rows.first().click();
  await page.keyboard.press('k');
  await expect(rows.first()).toContainText('kept');
  await page.getByRole('link', { name: /Weave/ }).click();
  await page.getByRole('button', { name: 'Weave again' }).click();
  await expect(page.getByRole('button', { name: /^\d+ hashtags$/ })).toBeVisible();
});
