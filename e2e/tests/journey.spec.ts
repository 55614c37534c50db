import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import type { StudyList } from '@pebble/contract';
import { goThrough } from '../journey/journey';
import { writePosts } from '../journey/material';

test('the whole job is done with 10,000 posts, without an answer that is an error', async ({ page }) => {
  test.setTimeout(1_200_000);
  const folder = mkdtempSync(join(tmpdir(), 'pebble-journey-'));
  try {
    const file = join(folder, 'journey.csv');
    const written = writePosts(file, 10_000);
    const { acts, faults } = await goThrough(page, file, { patience: 150_000 });
    expect(acts.filter(({ error }) => error !== null)).toEqual([]);
    expect(faults).toEqual([]);
    const { studies } = (await (await page.request.get('/api/v1/studies')).json()) as StudyList;
    expect(studies.find(({ name }) => name === 'Journey')).toMatchObject({
      messages: written.posts,
      accounts: written.accounts,
    });
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
});
