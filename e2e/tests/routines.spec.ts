import { expect, test } from '@playwright/test';
import type { UploadAnswer } from '@pebble/contract';
import { unzipSync } from 'fflate';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { barriers, layoutFaults } from '../seen/faults';
import { keyFile } from '../key';
import { openFirstMap } from './steps';

const root = join(import.meta.dirname, '../..');
const demo = (name: string): string => join(root, 'demo', name);

test('a routine is made in the logbook, run on another file, and gives the same without the interface', async ({
  page,
}, { retry }) => {
  test.setTimeout(300_000);
  const name = `Lamps again${retry > 0 ? ` (${retry})` : ''}`;
  await openFirstMap(page, 'To be done again');
  await expect(page.getByRole('button', { name: 'Stop here' })).toBeHidden();
  await page.getByRole('link', { name: /^Logbook/ }).click();
  await expect(page.getByText(/^The map was arranged/)).toBeVisible();

  // From the logbook: what is chosen rests on the weave and the import.
  await page.getByRole('button', { name: 'Make a routine' }).click();
  await page.getByRole('checkbox', { name: /^The map was arranged/ }).check();
  await page.getByRole('button', { name: 'Make a routine of 1 step' }).click();
  await expect(page.getByRole('heading', { name: 'A new routine' })).toBeVisible();
  await expect(page.getByText('2 steps went along, since chosen ones rest on them.')).toBeVisible();
  await page.getByLabel('Name', { exact: true }).fill(name);
  expect([...(await barriers(page)), ...(await layoutFaults(page))]).toEqual([]);
  await page.getByRole('button', { name: 'Leave out arrange-map' }).click();
  await page.getByRole('button', { name: 'Keep the routine' }).click();

  // It says what it needs, and what it will do.
  const chosen = page.getByRole('region', { name: 'Chosen routine' });
  await expect(chosen.getByRole('heading', { name })).toBeVisible();
  await expect(chosen.getByRole('button', { name: 'Run the routine' })).toBeDisabled();
  await chosen.getByLabel('Which file in place of tidepost.csv?').setInputFiles(demo('sign-in-sheet.csv'));
  await expect(
    chosen.getByText(/sign-in-sheet\.csv has no column “author”, which is read as author/),
  ).toBeVisible();
  await chosen.getByLabel('Which file in place of tidepost.csv?').setInputFiles(demo('tidepost.jsonl'));
  await chosen.getByRole('spinbutton', { name: 'Ties of which weight at least?' }).fill('3');
  await expect(chosen.getByText(/^It will take in tidepost\.jsonl and weave “/)).toBeVisible();
  const [saved] = await Promise.all([
    page.waitForEvent('download'),
    chosen.getByRole('button', { name: 'Save as JSON' }).click(),
  ]);
  await chosen.getByRole('button', { name: 'Run the routine' }).click();
  const run = page.locator('pt-routine-run').first();
  await expect(run.getByText(/· done · 2 of 2 steps/)).toBeVisible({ timeout: 90_000 });
  await expect(run).toContainText('9,000 duplicates');
  expect([...(await barriers(page)), ...(await layoutFaults(page))]).toEqual([]);
  // Run once more with another answer, it says what differs.
  await chosen.getByLabel('Which file in place of tidepost.csv?').setInputFiles(demo('tidepost.csv'));
  await chosen.getByRole('spinbutton', { name: 'Ties of which weight at least?' }).fill('6');
  await expect(chosen.getByText(/another at least (?:six|6) times/)).toBeVisible();
  await chosen.getByRole('button', { name: 'Run the routine' }).click();
  const again = page.locator('pt-routine-run').first();
  await expect(again.getByText(/run 2 · .* · done · 2 of 2 steps/)).toBeVisible({ timeout: 90_000 });
  await again.getByText('What differs from the run before').click();
  await expect(again.getByText(/1,320 nodes \(1,320 before\), [\d,]+ ties \([\d,]+\)/)).toBeVisible();
  await expect(again.getByRole('table', { name: /^First by in-degree/ }).getByRole('row')).toHaveCount(11);
  expect([...(await barriers(page)), ...(await layoutFaults(page))]).toEqual([]);

  // Several values of one answer stand in one table.
  await chosen.getByLabel('Which file in place of tidepost.csv?').setInputFiles(demo('tidepost.csv'));
  await chosen.getByText('Try several values').click();
  await chosen.getByLabel('What is varied').selectOption('least');
  await chosen.getByLabel('Values, apart by |').fill('2 | 8');
  await chosen.getByRole('button', { name: 'Run with 2 values' }).click();
  const varied = page.getByRole('table', { name: /^What depends on/ });
  await expect(varied.getByRole('row', { name: /^2 / })).toContainText('1,320', { timeout: 90_000 });
  await expect(varied.getByRole('row', { name: /^8 / })).toContainText(/0\.\d\d/, { timeout: 90_000 });
  expect([...(await barriers(page)), ...(await layoutFaults(page))]).toEqual([]);
  await page
    .locator('pt-routine-run')
    .last()
    .getByRole('link', { name: /^Map of/ })
    .click();
  await expect(page.getByRole('tab', { name: /^Accounts 1,320/ })).toBeVisible();
  const [study, network] = /studies\/([^/]+)\/map\/([^/?]+)/.exec(page.url())!.slice(1);
  const inBrowser = await page.request.get(`/api/v1/studies/${study}/networks/${network}/export/csv-ties`);

  // The same file in a fresh folder, by the command line.
  const folder = mkdtempSync(join(tmpdir(), 'pebble-command-'));
  const routine = join(folder, 'lamps.routine.json');
  await saved.saveAs(routine);
  const command = (...words: string[]): string =>
    execFileSync(process.execPath, [join(root, 'apps/command/dist/main.js'), ...words], {
      encoding: 'utf8',
      env: { ...process.env, PEBBLE_DATA: join(folder, 'data') },
    });
  const made = JSON.parse(readFileSync(routine, 'utf8')) as { steps: { name: string; kind: string }[] };
  const woven = made.steps.find(({ kind }) => kind === 'weave')!.name;
  const output = { what: 'network', of: woven, format: 'csv-ties' };
  const given = join(folder, 'given.json');
  writeFileSync(given, JSON.stringify({ ...made, outputs: [output] }));
  const said = command(
    'run',
    given,
    '--in',
    demo('tidepost.csv'),
    '--set',
    'least=3',
    '--out',
    join(folder, 'out'),
  );
  expect(
    said
      .trim()
      .split('\n')
      .map((line) => (JSON.parse(line) as { event: string }).event),
  ).toContain('end');
  expect(readFileSync(join(folder, 'out', `${woven}.ties.csv`), 'utf8')).toBe(await inBrowser.text());

  // A study of its own, woven and saved there.
  command('study', 'new', 'By command');
  const [{ id }] = command('study', 'list')
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as { id: string });
  command('run', given, '--in', demo('tidepost.csv'), '--study', id, '--out', join(folder, 'in-study'));
  const zip = join(folder, 'study.zip');
  command('study', 'export', id, '--out', zip);
  expect(command('study', 'import', zip)).toContain('By command');
});

test('a routine runs in a new study, by itself after an import, gives its files, and is made again', async ({
  page,
}) => {
  test.setTimeout(300_000);
  page.setDefaultTimeout(60_000);
  await openFirstMap(page, 'Runs by itself');
  await page.getByRole('link', { name: /^Logbook/ }).click();
  await page.getByRole('link', { name: 'Routines' }).click();
  const chosen = page.getByRole('region', { name: 'Chosen routine' });
  const choose = (name: RegExp) =>
    page.getByRole('region', { name: 'All routines' }).getByRole('button', { name }).click();

  // On what the study has, after each import.
  await choose(/^Which hashtags go together/);
  await chosen.getByRole('checkbox', { name: /On the messages that this study has/ }).check();
  await expect(chosen.getByText(/^It will weave “Hashtags that go together”/)).toBeVisible();
  await chosen.locator('summary', { hasText: 'Let it run by itself' }).click();
  await chosen.getByLabel('When').selectOption('week');
  await chosen.locator('pt-standing-form select').nth(1).selectOption('Friday');
  await expect(chosen.getByText(/It will run each Friday at 07:00/)).toBeVisible();
  expect([...(await barriers(page)), ...(await layoutFaults(page))]).toEqual([]);
  await chosen.getByLabel('When').selectOption('import');
  await chosen.getByRole('button', { name: 'Let it run by itself' }).click();
  await expect(page.getByText('Which hashtags go together runs after each import of files.')).toBeVisible();
  const [study] = /studies\/([^/]+)/.exec(page.url())!.slice(1);
  const upload = await page.request.post(`/api/v1/studies/${study}/uploads`, {
    data: readFileSync(demo('tidepost.jsonl')),
    headers: { 'content-type': 'application/octet-stream', 'x-file-name': 'more.jsonl' },
  });
  const [{ id, preview }] = ((await upload.json()) as UploadAnswer).uploads;
  const parameters = { upload: id, file: 'more.jsonl', name: 'more', reading: preview.reading };
  await page.request.post(`/api/v1/studies/${study}/steps`, { data: { kind: 'import-source', parameters } });
  const own = page.locator('pt-routine-run').first();
  await expect(own.getByText(/run 1, by itself · .* · done · 3 of 3 steps/)).toBeVisible({ timeout: 90_000 });
  await expect(page.getByText('Last: run 1.')).toBeVisible();
  await page.getByRole('button', { name: /^Let it rest/ }).click();
  await expect(page.getByText(/runs after each import of files, but rests now/)).toBeVisible();
  await page.getByRole('button', { name: 'End Which hashtags go together' }).click();
  await page.getByRole('alertdialog').getByRole('button', { name: 'End' }).click();
  await expect(page.getByRole('heading', { name: 'Running by themselves' })).toBeHidden();

  // The logbook says which steps were of it.
  await page.getByRole('link', { name: /^Logbook/ }).click();
  await expect(page.getByRole('link', { name: 'of run 1' })).toHaveCount(3);
  await page.getByRole('link', { name: 'of run 1' }).first().click();

  // In a new study, with a file; its files are saved, and it is made again from the same file.
  await choose(/^Which hashtags go together/);
  await chosen.locator('summary', { hasText: 'Run it in a new study' }).click();
  await chosen.getByLabel('Name of the study').fill('Tags of its own');
  await chosen.getByRole('button', { name: 'Begin the study' }).click();
  await expect(page.getByText('None yet.')).toBeVisible();
  await expect(page.getByText('Tags of its own').first()).toBeVisible();
  await chosen.getByLabel('Which file of posts?').setInputFiles(demo('tidepost.csv'));
  await chosen.getByRole('button', { name: 'Run the routine' }).click();
  const run = page.locator('pt-routine-run').first();
  await expect(run.getByText(/· done · 4 of 4 steps/)).toBeVisible({ timeout: 90_000 });
  const [saved] = await Promise.all([
    page.waitForEvent('download'),
    run.getByRole('button', { name: 'Save its 5 files' }).click(),
  ]);
  const files = unzipSync(readFileSync(await saved.path()));
  expect(Object.keys(files)).toEqual(expect.arrayContaining(['plate.svg', 'network.graphml', 'run.json']));
  await run.locator('summary', { hasText: 'Verify' }).click();
  await run.getByLabel('The same once more: tidepost.csv').setInputFiles(demo('tidepost.jsonl'));
  await run.getByRole('button', { name: 'Make it again and compare' }).click();
  await expect(run.getByRole('alert')).toContainText('has not the same bytes');
  await run.getByLabel('The same once more: tidepost.csv').setInputFiles(demo('tidepost.csv'));
  await run.getByRole('button', { name: 'Make it again and compare' }).click();
  await expect(run.getByText('“network”, a network, comes out again to the last byte.')).toBeVisible({
    timeout: 90_000,
  });
  expect([...(await barriers(page)), ...(await layoutFaults(page))]).toEqual([]);

  // The same files by the command line, from what was saved.
  const folder = mkdtempSync(join(tmpdir(), 'pebble-verified-'));
  for (const [name, bytes] of Object.entries(files)) writeFileSync(join(folder, name), bytes);
  const verify = (...words: string[]): string =>
    execFileSync(process.execPath, [join(root, 'apps/command/dist/main.js'), 'verify', folder, ...words], {
      encoding: 'utf8',
      stdio: 'pipe',
    });
  const told = verify('--in', demo('tidepost.csv'));
  expect(told.match(/"state":"same"/g)).toHaveLength(5);
  expect(() => verify('--in', demo('tidepost.jsonl'))).toThrow(
    /were not given with the same bytes: tidepost\.csv/,
  );
  writeFileSync(join(folder, 'network.ties.csv'), 'changed');
  expect(() => verify('--in', demo('tidepost.csv'))).toThrow();

  // What is asked can be changed: a value is fixed, another is asked for.
  await chosen.getByRole('button', { name: 'Change a copy' }).click();
  await page.getByRole('button', { name: 'Do not ask seed' }).click();
  await expect(page.getByLabel('seed', { exact: true })).toBeHidden();
  const weave = page.getByRole('listitem').filter({ hasText: /^networkweave/ });
  await weave.locator('summary', { hasText: 'Settings' }).click();
  await weave.getByRole('button', { name: 'Ask for name', exact: true }).click();
  await expect(page.getByLabel('name', { exact: true })).toHaveValue('name?');
  expect([...(await barriers(page)), ...(await layoutFaults(page))]).toEqual([]);
});

test('the examples of the guide for scripts do what they say', async ({ baseURL }) => {
  const guide = readFileSync(join(root, 'docs/guide/command-line.md'), 'utf8');
  const example = (language: string): string =>
    new RegExp(`\`\`\`${language}\\n([\\s\\S]*?)\`\`\``).exec(guide)![1];
  const key = readFileSync(keyFile(process.env['E2E_DATA']!), 'utf8').trim();
  const env = { ...process.env, PEBBLE_URL: baseURL, PEBBLE_KEY: key, PEBBLE_FILE: demo('tidepost.csv') };
  const python = execFileSync('python3', ['-c', example('python')], { encoding: 'utf8', env });
  expect(python).toMatch(/^done 1320 nodes \d+ ties\n$/);
  const shell = execFileSync('sh', ['-c', example('sh')], { encoding: 'utf8', env });
  expect(JSON.parse(shell)).toMatchObject({ name: 'By curl' });
});
