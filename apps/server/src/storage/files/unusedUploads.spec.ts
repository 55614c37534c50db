import { mkdtempSync, readdirSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { connect, prepareStudy, type Store } from '../open';
import { beginStep, endStep } from '../steps';
import { clearUnusedUploads } from './unusedUploads';

const DAY = 86_400_000;
const now = Date.UTC(2026, 2, 31);
const id = (n: number): string => `0000000${n}-1111-4222-8333-444444444444`;

describe('clearUnusedUploads', () => {
  let store: Store;
  beforeEach(async () => {
    const folder = mkdtempSync(join(tmpdir(), 'pebble-uploads-'));
    await prepareStudy(folder);
    store = connect(folder);
  });
  afterEach(async () => {
    await store.close();
    rmSync(store.folder, { recursive: true, force: true });
  });
  const put = (name: string, days: number): void => {
    const path = join(store.folder, 'uploads', name);
    writeFileSync(path, 'text');
    utimesSync(path, new Date(now - days * DAY), new Date(now - days * DAY));
  };
  const step = async (
    upload: string,
    days: number,
    state: 'failed' | 'interrupted' | 'done',
  ): Promise<void> => {
    const at = new Date(now - days * DAY).toISOString();
    const row = {
      kind: 'import-source',
      parameters: { upload },
      sentence: '',
      seed: null,
      now: at,
    };
    const number = await beginStep(store, row as never);
    await endStep(store, number, {
      state: state,
      result: null,
      sentence: null,
      error: null,
      now: at,
      duration: 1,
    });
  };

  it('leaves what waits, what a step may be run again with, and lists of rows that were left out', async () => {
    put(id(1), 0.5);
    put(id(2), 3);
    put(`${id(3)}.part`, 3);
    put(id(4), 10);
    await step(id(4), 10, 'interrupted');
    put(id(5), 40);
    await step(id(5), 40, 'failed');
    put(`abcdef0123-${id(8)}`, 10);
    put(id(6), 10);
    await step(id(6), 10, 'done');
    put('skipped-7.csv', 100);
    expect(await clearUnusedUploads(store, now)).toBe(5);
    expect(readdirSync(join(store.folder, 'uploads')).sort()).toEqual([id(1), id(4), 'skipped-7.csv']);
    expect(await clearUnusedUploads(store, now)).toBe(0);
  });
});
