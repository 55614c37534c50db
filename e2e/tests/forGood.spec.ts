import { expect, test } from '@playwright/test';
import { makePosts, postsAsJsonLines } from '@pebble/standins';
import { beginStudy } from './steps';

test('a person is forgotten, a source and a network are removed for good, and so is the study', async ({
  page,
}) => {
  const { posts } = makePosts(400);
  const [{ author }] = posts;
  await beginStudy(page, 'To be emptied');
  await page
    .locator('input[type=file]')
    .first()
    .setInputFiles({
      name: 'posts.jsonl',
      mimeType: 'application/x-ndjson',
      buffer: Buffer.from(postsAsJsonLines(posts)),
    });
  await page.getByRole('button', { name: 'Import', exact: true }).press('Enter');
  await expect(page.getByRole('heading', { name: 'posts.jsonl is in' })).toBeVisible();

  await page.getByRole('tab', { name: 'Accounts' }).click();
  await page.getByPlaceholder('Find an account').fill(author);
  await page.getByRole('button', { name: `Forget ${author}`, exact: true }).click();
  const asks = page.getByRole('alertdialog', { name: 'Forget a person' });
  await expect(asks).toContainText('that it wrote');
  await asks.getByRole('button', { name: 'Forget for good' }).click();
  await expect(page.getByText('No account fits.')).toBeVisible();
  // What is read again meanwhile takes the focus from nobody: not from who types on.
  const field = page.getByPlaceholder('Find an account');
  await field.focus();
  await expect(page.getByRole('link', { name: /^Gather 3\d\d messages/ })).toBeVisible();
  await page.waitForTimeout(500);
  await expect(field).toBeFocused();
  await field.fill('');
  await expect(page.getByRole('button', { name: /^Forget / }).first()).toBeVisible();

  await page.getByRole('link', { name: 'Weave a network' }).click();
  await page.getByRole('button', { name: 'Weave and open the map' }).click();
  await expect(page).toHaveURL(/\/map/);
  await page.getByRole('link', { name: /^Weave/ }).click();
  await page.getByRole('button', { name: /^Delete / }).click();
  await page.getByText('Deleted networks (1)').click();
  await page.getByRole('button', { name: /^Remove .* for good$/ }).click();
  await page.getByRole('alertdialog').getByRole('button', { name: 'Keep' }).click();
  await page.getByRole('button', { name: /^Remove .* for good$/ }).click();
  await page.getByRole('alertdialog').getByRole('button', { name: 'Remove for good' }).click();
  await expect(page.getByText('Deleted networks')).toBeHidden();

  await page.getByRole('link', { name: /^Gather/ }).click();
  await page.getByRole('button', { name: /posts\.jsonl ·/ }).click();
  await page.getByRole('button', { name: 'Take out of the study' }).click();
  await page.getByRole('button', { name: /posts\.jsonl · taken out/ }).click();
  await page.getByRole('button', { name: 'Remove for good' }).click();
  await page.getByRole('alertdialog').getByRole('button', { name: 'Remove for good' }).click();
  await expect(page.getByRole('button', { name: /posts\.jsonl ·/ })).toBeHidden();

  await page.getByRole('link', { name: /Logbook/ }).click();
  await expect(page.getByText(/A person was forgotten: \d+ messages? of the account/).first()).toBeVisible();
  await expect(page.getByText('could not be saved')).toBeHidden();
  expect(await page.textContent('main')).not.toContain(author);

  await page.getByRole('link', { name: 'Studies' }).first().click();
  await page.getByRole('button', { name: 'Delete To be emptied' }).click();
  await page.getByText(/^Deleted \(\d+\)$/).click();
  await page.getByRole('button', { name: 'Remove To be emptied for good' }).click();
  await page.getByRole('alertdialog').getByRole('button', { name: 'Remove for good' }).click();
  await expect(page.getByRole('button', { name: 'Remove To be emptied for good' })).toBeHidden();
});
