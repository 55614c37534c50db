import type { Network, Step, StepKind } from '@pebble/contract';
import { adjustedRand, groupCodes } from '@pebble/core';
import { makePosts, postsAsJsonLines } from '@pebble/standins';
import { startedApplication } from './testing/application';
import { WovenNetworks, type Made } from './testing/wovenNetworks';

const { posts, truth } = makePosts(2000);

describe('groups of nodes', () => {
  const app = startedApplication();
  const woven = new WovenNetworks(app);
  let made: Made;
  beforeAll(async () => {
    await app.take('tidepost.jsonl', postsAsJsonLines(posts));
    made = await woven.make({
      what: 'accounts',
      kinds: ['reply', 'quote', 'mention', 'repost'],
      isolates: false,
    });
  }, 60_000);

  const run = async (kind: StepKind, parameters: object, status = 200): Promise<Step> =>
    (await app.step(kind, { network: made.id, ...parameters }).expect(status)).body as Step;
  const network = async (): Promise<Network> =>
    (await app.api.get(`/api/v1/studies/${app.study}/networks/${made.id}`).expect(200)).body as Network;
  const columnOf = async (step: Step, name: string) => (await woven.read(step, made.id)).nodes[name];

  it('are found by a method, kept by name with their settings, and said in the methods text', async () => {
    const step = await run('group-nodes', { name: 'Leiden groups', settings: { stability: 10, seed: 3 } });
    expect(step.sentence).toMatch(
      /^\d+ groups \(“Leiden groups”\) were found by the Leiden method \(Traag, Waltman & van Eck 2019; resolution 1, best of 5 runs, seed 3\); modularity 0\.\d+\. In 10 further runs a node stayed with its group in \d+ % on average\./,
    );
    const { groupings, columns } = await network();
    expect(columns.map(({ name }) => name)).toEqual(
      expect.arrayContaining(['Leiden groups', 'Leiden groups, sure']),
    );
    const info = groupings['Leiden groups'];
    expect(info.settings).toMatchObject({ method: 'leiden', seed: 3 });
    expect(info.stability!.mean).toBeGreaterThan(0.5);
    const sure = (await columnOf(step, 'Leiden groups, sure')) as Float64Array;
    expect(sure.every((share) => share >= 0 && share <= 1)).toBe(true);
    // Who belongs together in the story is mostly together here.
    const found = groupCodes(await columnOf(step, 'Leiden groups')).of;
    const known = made.handles.map((handle) => truth.group[handle] ?? 'none');
    expect(adjustedRand(found, groupCodes(known).of)).toBeGreaterThan(0.4);
  });

  it('can be split, the others staying as they are', async () => {
    const first = await run('group-nodes', { name: 'To split', settings: { stability: 0, resolution: 0.3 } });
    const before = (await columnOf(first, 'To split')) as string[];
    const step = await run('split-group', {
      column: 'To split',
      group: '1',
      name: 'Split',
      settings: { resolution: 2 },
    });
    const after = (await columnOf(step, 'Split')) as string[];
    expect(step.sentence).toMatch(
      /^The group “1” of “To split” \(\d+ nodes\) was split into \d+ groups by the Leiden method/,
    );
    before.forEach((group, v) => {
      if (group === '1') expect(after[v]).toMatch(/^1\.\d+$/);
      else expect(after[v]).toBe(group);
    });
    expect(new Set(after.filter((group) => group.startsWith('1.'))).size).toBeGreaterThan(1);
    await run('split-group', { column: 'To split', group: 'none', name: 'Split', settings: {} }, 422);
    await run(
      'split-group',
      { column: 'Split', group: '1.1', name: 'x', settings: { resolution: 0.01 } },
      422,
    );
  });

  it('stand beside each other: by labels, by components, by rings', async () => {
    for (const [method, told] of [
      ['labels', 'label propagation'],
      ['weak', 'weak components'],
      ['strong', 'Tarjan 1972'],
      ['core', 'rings by core number (Seidman 1983)'],
    ] as const) {
      const step = await run('group-nodes', { name: `by ${method}`, settings: { method, stability: 0 } });
      expect(step.sentence).toContain(told);
      expect((await network()).groupings[`by ${method}`]).toMatchObject({ stability: null });
    }
    const step = await run('group-nodes', { name: 'Rings', settings: { method: 'core' } });
    const rings = await columnOf(step, 'Rings');
    expect(groupCodes(rings).names).toContain('core 1');
  });

  it('can be renamed, put together and changed for single nodes, into a grouping of its own', async () => {
    await run('group-nodes', { name: 'G', settings: { method: 'louvain', stability: 0 } });
    const step = await run('regroup', {
      column: 'G',
      name: 'G, named',
      rename: { 1: 'Harbour', 2: 'Harbour', 3: 'Moths' },
      move: [{ nodes: [0], group: 'Alone' }],
    });
    const [before, after] = [
      groupCodes(await columnOf(step, 'G')),
      groupCodes(await columnOf(step, 'G, named')),
    ];
    expect(after.names).toEqual(expect.arrayContaining(['Harbour', 'Moths', 'Alone']));
    expect(after.names).toHaveLength(before.names.length);
    expect(step.sentence).toContain(
      '“1” to “Harbour”, “2” to “Harbour”, “3” to “Moths”; 1 node put elsewhere',
    );
    await run('regroup', { column: 'nothing', name: 'x' }, 422);
    await run('regroup', { column: 'G', name: 'degree' }, 422);
    await run('regroup', { column: 'G', name: 'x', rename: { nobody: 'y' } }, 422);
  });

  it('are counted over a range of resolutions', async () => {
    const step = await run('scan-resolutions', { settings: { runs: 1 } });
    const { found } = step.result as { found: { resolution: number; groups: number }[] };
    expect(found.at(-1)!.groups).toBeGreaterThan(found[0].groups);
    expect(step.sentence).toMatch(
      /^Over resolutions from 0\.25 to 4 the number of groups went from \d+ to \d+/,
    );
    await run('scan-resolutions', { settings: { method: 'core' } }, 422);
  });

  it('are refused a name that the nodes need, and answer questions about groups', async () => {
    await run('group-nodes', { name: 'community', settings: {} }, 422);
    await run('group-nodes', { name: ' ', settings: {} }, 400);
    await run('group-nodes', { name: 'Parts', settings: { method: 'weak' } });
    const step = await run('answer-questions', {
      questions: ['between-groups'],
      settings: { groups: 'Parts' },
    });
    expect(step.sentence).toContain('groups are those of “Parts”');
    // Nobody is tied out of a component.
    expect(Math.max(...((await columnOf(step, 'outwardness')) as Float64Array))).toBe(-1);
  });
});
