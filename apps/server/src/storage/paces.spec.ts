import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { StudyFolders } from './studyFolders';
import { learnedPaces, notePace } from './paces';

it('learns how long steps take here: by the median of the newest twenty of each kind', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'pebble-pace-'));
  const studies = await StudyFolders.open(folder);
  const { catalogue } = studies;
  try {
    expect((await learnedPaces(catalogue)).size).toBe(0);
    for (const seconds of [2, 40, 3, 5]) await notePace(catalogue, { kind: 'weave', expected: 2, seconds });
    await notePace(catalogue, { kind: 'tidy', expected: 1, seconds: 0.5 });
    expect(await learnedPaces(catalogue)).toEqual(
      new Map([
        ['weave', 2],
        ['tidy', 0.5],
      ]),
    );
    for (let i = 0; i < 25; i++) await notePace(catalogue, { kind: 'weave', expected: 1, seconds: 7 });
    expect((await learnedPaces(catalogue)).get('weave')).toBe(7);
    const { count } = await catalogue.query
      .selectFrom('pace')
      .select(({ fn }) => fn.countAll<number>().as('count'))
      .executeTakeFirstOrThrow();
    expect(count).toBe(21);
  } finally {
    await studies.close();
    rmSync(folder, { recursive: true, force: true });
  }
});
