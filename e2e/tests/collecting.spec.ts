import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test, type Page } from '@playwright/test';
import { keyOf, withKey } from '../key';
import { beginServer } from '../server';

const port = Number(process.env['E2E_PORT'] ?? 4655) + 20;
const address = `http://127.0.0.1:${port}`;

async function collect(page: Page, fill: () => Promise<void>): Promise<void> {
  await page.getByRole('button', { name: 'Collect from a service' }).click();
  await fill();
  await expect(page.getByText(/requests? at most/)).toBeVisible();
  await page.getByRole('button', { name: 'Begin', exact: true }).click();
}

test('a run goes through a spent budget and a killed server, and brings everything once', async ({
  page,
}) => {
  test.setTimeout(150_000);
  const data = mkdtempSync(join(tmpdir(), 'pebble-collecting-'));
  let server = await beginServer(port, data);
  try {
    await page.goto(`${address}/?key=${keyOf(data)}`);
    await page.getByPlaceholder('Name of a new study').fill('Collected');
    await page.getByRole('button', { name: 'Begin study' }).click();
    await collect(page, async () => {
      await page.getByLabel(/^What/).selectOption('followers');
      await page.getByLabel(/Handles of accounts/).fill('harbour_post');
      await page.getByLabel(/At most/).fill('1000');
    });

    // The hub answers 429 after 45 requests in 20 seconds.
    const card = page.locator('pt-run-card');
    await expect(card.getByText('waiting for the budget', { exact: true })).toBeVisible({ timeout: 30_000 });
    await expect(card).toContainText('The service asks to wait until');
    const come = Number(/([\d,]+) followers/.exec((await card.textContent())!)![1].replace(',', ''));
    expect(come).toBeGreaterThan(0);

    server.kill('SIGKILL');
    await new Promise((done) => server.once('exit', done));
    server = await beginServer(port, data);
    await page.reload();
    await expect(card.getByText('done', { exact: true })).toBeVisible({ timeout: 90_000 });
    await expect(card).toContainText('1,000 followers');

    // Everything is there once, and each account with what its profile tells.
    const source = page.getByRole('button', { name: /Followers of harbour_post · 1,000 ties of following/ });
    await expect(source).toBeVisible();
    await page.getByRole('tab', { name: 'Accounts' }).click();
    await page.getByRole('button', { name: 'followers here' }).click();
    const first = page.locator('pt-account-table tbody tr').first();
    await expect(first).toContainText('harbour_post');
    await expect(first).toContainText('1,000');
    await source.click();
    await expect(page.getByRole('link', { name: 'Download this report' })).toBeVisible();

    // The secret of the service stands neither in the logbook nor in the list of services.
    const services = await (await fetch(`${address}/api/v1/services`, { headers: withKey(data) })).text();
    await page.getByRole('link', { name: /Logbook/ }).click();
    await expect(
      page.getByRole('list').getByText(/the followers of harbour_post, at most 1,000 of each/),
    ).toBeVisible();
    expect((await page.textContent('body'))! + services).not.toContain('amber-lamp');
  } finally {
    server.kill();
    rmSync(data, { recursive: true, force: true });
  }
});
