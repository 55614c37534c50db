import { existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { connect, prepareStudy, type Store } from '../open';
import { networkPath, skippedPath, uploadPath } from '../../files/places';
import { placeFiles, settleFiles, StagedFiles } from './stagedFiles';
import { readTable } from './tables';

const NETWORK = '11111111-2222-4333-8444-555555555555';
const UPLOAD = '99999999-2222-4333-8444-555555555555';

describe('the files of a step', () => {
  let store: Store;
  beforeEach(async () => {
    const folder = mkdtempSync(join(tmpdir(), 'pebble-staged-'));
    await prepareStudy(folder);
    store = connect(folder);
    await insertNetwork();
    writeFileSync(uploadPath(folder, UPLOAD), 'sent');
    await step(1, [1, 2], true);
  });
  afterEach(async () => {
    await store.close();
    rmSync(store.folder, { recursive: true });
  });

  const insertNetwork = () =>
    store.query
      .insertInto('network')
      .values({
        id: NETWORK,
        step_id: 1,
        name: 'N',
        weave: 'null',
        directed: 1,
        own_columns: '[]',
        sentence: '',
        nodes: 2,
        edges: 0,
        messages: 0,
        state: 'woven',
        measures: '{}',
        created_at: '',
        deleted_at: null,
      })
      .execute();
  const values = (): number[] => [...(readTable(store.folder, NETWORK, 'nodes')['value'] as Float64Array)];
  const waiting = (): string[] =>
    readdirSync(store.folder, { recursive: true })
      .map(String)
      .filter((name) => name.endsWith('.waiting'));
  /** A step that writes a table, up to its commit or its end. */
  const step = async (number: number, value: number[], isPlaced: boolean): Promise<StagedFiles> => {
    const files = new StagedFiles(store, number);
    store.raw.exec('begin immediate');
    files.table(NETWORK, 'nodes', { value: Float64Array.from(value) });
    await files.note();
    store.raw.exec('commit');
    if (isPlaced) await placeFiles(store);
    return files;
  };

  it('are not there before it is done, and gone with it where it is not', async () => {
    const files = new StagedFiles(store, 2);
    store.raw.exec('begin immediate');
    files.table(NETWORK, 'nodes', { value: Float64Array.of(3, 4) });
    files.skipped('row\n');
    files.spend(UPLOAD);
    expect(values()).toEqual([1, 2]);
    await files.note();
    store.raw.exec('rollback');
    files.drop();
    expect(await settleFiles(store)).toBe(0);
    expect([values(), waiting()]).toEqual([[1, 2], []]);
    expect(existsSync(uploadPath(store.folder, UPLOAD))).toBe(true);
    expect(existsSync(skippedPath(store.folder, 2))).toBe(false);
  });

  it('come to their places after a kill between the commit and that', async () => {
    await step(2, [5, 6], false);
    expect([values(), waiting().length]).toEqual([[1, 2], 1]);
    expect(await settleFiles(store)).toBe(0);
    expect([values(), waiting()]).toEqual([[5, 6], []]);
    expect(await store.query.selectFrom('staged_file').selectAll().execute()).toEqual([]);
  });

  it('are cleared away after a kill before the commit, with those that belong to no network', async () => {
    const files = new StagedFiles(store, 2);
    files.table(NETWORK, 'nodes', { value: Float64Array.of(7, 8) });
    files.skipped('row\n');
    files.table('77777777-2222-4333-8444-555555555555', 'edges', { source: Uint32Array.of(1) });
    mkdirSync(join(store.folder, 'networks', 'left-over'));
    // The skipped rows, the table, and two folders.
    expect(await settleFiles(store)).toBe(4);
    expect([values(), waiting()]).toEqual([[1, 2], []]);
    expect(readdirSync(join(store.folder, 'networks'))).toEqual([NETWORK]);
    expect(existsSync(networkPath(store.folder, NETWORK, 'nodes'))).toBe(true);
  });

  it('are taken away when it is done', async () => {
    const files = new StagedFiles(store, 2);
    files.spend(UPLOAD);
    await files.note();
    await placeFiles(store);
    expect(existsSync(uploadPath(store.folder, UPLOAD))).toBe(false);
  });
});
