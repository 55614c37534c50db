import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, type Page } from '@playwright/test';

/** The path of a file in demo/. */
const demo = (name: string): string => join(import.meta.dirname, '../../demo', name);

/** Drops demo files on the page, as a hand would. */
export const drop = (page: Page, ...names: string[]): Promise<void> =>
  dropFiles(
    page,
    names.map((name) => ({ name, bytes: readFileSync(demo(name)) })),
  );

/** Drops a file with a text on the page. */
export const dropText = (page: Page, name: string, text: string): Promise<void> =>
  dropFiles(page, [{ name, bytes: Buffer.from(text) }]);

async function dropFiles(page: Page, files: readonly { name: string; bytes: Buffer }[]): Promise<void> {
  const sent = files.map(({ name, bytes }) => ({ name, base64: bytes.toString('base64') }));
  const transfer = await page.evaluateHandle((list) => {
    const data = new DataTransfer();
    for (const { name, base64 } of list) {
      const binary = atob(base64);
      data.items.add(new File([Uint8Array.from(binary, (character) => character.charCodeAt(0))], name));
    }
    return data;
  }, sent);
  await page.dispatchEvent('pt-gather', 'drop', { dataTransfer: transfer });
}

/** A study of the demo's posts, and the first network that is offered, on its map. */
export async function openFirstMap(page: Page, study: string): Promise<void> {
  await beginStudy(page, study);
  await drop(page, 'tidepost.csv');
  await page.getByRole('button', { name: 'Import', exact: true }).click();
  await expect(page.getByRole('button', { name: /tidepost\.csv · 9,000 messages/ })).toBeVisible({
    timeout: 60_000,
  });
  await page.getByRole('link', { name: 'Weave a network' }).click();
  await page.getByRole('button', { name: 'Weave and open the map' }).click();
  await expect(page.getByRole('tab', { name: 'Accounts 1,320' })).toBeVisible({ timeout: 60_000 });
}

export async function beginStudy(page: Page, name: string): Promise<void> {
  await page.goto('/');
  await page.getByPlaceholder('Name of a new study').fill(name);
  await page.getByRole('button', { name: 'Begin study' }).click();
  await expect(page.getByRole('heading', { name: 'Gather' })).toBeVisible();
}
