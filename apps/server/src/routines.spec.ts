import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  type KeptRoutine,
  type Network,
  type Plate,
  type Routine,
  type RoutineAnswers,
  type RoutineDraft,
  type RoutinePlan,
  type RoutineRun,
  type RunDifferences,
  type Step,
} from '@pebble/contract';
import { adjustedRand, groupCodes, onMessagesThere } from '@pebble/core';
import { makeEmails, makeFollowers, makePosts, makeVideos } from '@pebble/standins';
import { unzipSync } from 'fflate';
import { startedApplication } from './testing/application';

const demo = (name: string): Buffer => readFileSync(join(__dirname, '../../../demo', name));

describe('a routine', () => {
  const app = startedApplication();
  let ready: KeptRoutine[];

  beforeAll(async () => {
    ready = (await app.api.get('/api/v1/routines').expect(200)).body as KeptRoutine[];
  });

  const routine = (id: string): Routine => ready.find((one) => one.id === id)!.routine;
  const newStudy = async (name: string): Promise<void> => {
    const { body } = await app.api.post('/api/v1/studies').send({ name }).expect(201);
    app.study = (body as { id: string }).id;
  };
  const sent = async (...names: string[]) => {
    const files = [];
    for (const name of names) {
      const { id } = await app.look(name, demo(name));
      files.push({ upload: id, file: name });
    }
    return files;
  };
  const begin = async (of: Routine, answers: RoutineAnswers): Promise<RoutineRun> => {
    const { status, body } = await app.api
      .post(`/api/v1/studies/${app.study}/routine-runs`)
      .send({ routine: of, answers });
    expect([status, (body as { detail?: string }).detail]).toEqual([202, undefined]);
    return body as RoutineRun;
  };
  const ended = async (id: number): Promise<RoutineRun> => {
    for (let i = 0; i < 1200; i++) {
      const run = await app.get<RoutineRun>(`routine-runs/${id}`);
      if (run.state !== 'running' && run.state !== 'waiting') return run;
      await new Promise((done) => setTimeout(done, 50));
    }
    throw new Error('The run did not end.');
  };
  const run = async (of: Routine, answers: RoutineAnswers): Promise<RoutineRun> =>
    ended((await begin(of, answers)).id);
  const refused = async (of: unknown, answers: object = {}): Promise<string> => {
    const { status, body } = await app.api
      .post(`/api/v1/studies/${app.study}/routine-runs`)
      .send({ routine: of, answers });
    expect([400, 422]).toContain(status);
    return (body as { detail: string }).detail;
  };
  const table = async (network: string, name: 'csv-nodes' | 'csv-ties'): Promise<string> =>
    (await app.api.get(`/api/v1/studies/${app.study}/networks/${network}/export/${name}`).expect(200)).text;
  const logbook = async (): Promise<Step[]> => (await app.get<{ steps: Step[] }>('logbook')).steps;

  describe('that comes with the application finds what was planted, without a change of settings', () => {
    const { truth } = makePosts();
    const columns = (csv: string): Record<string, string>[] => {
      const [head, ...rows] = csv
        .replace(/^\uFEFF/, '')
        .trim()
        .split(/\r?\n/)
        .map((row) => row.split(','));
      return rows.map((row) => Object.fromEntries(head.map((name, i) => [name, row[i]])));
    };

    it('who talks to whom: the groups', async () => {
      await newStudy('Posts');
      const done = await run(routine('who-talks-to-whom'), { file: await sent('tidepost.csv') });
      expect(done.steps.map(({ state, error }) => [state, error])).toEqual([
        ['done', null],
        ['done', null],
        ['done', null],
        ['done', null],
      ]);
      expect(done.state).toBe('done');
      expect(done.fingerprint).toMatch(/^[0-9a-f]{64}$/);
      // The logbook says of which run its steps are; what follows by itself is of none.
      const ofRun = (await logbook()).filter((step) => step.run === done.id).map(({ kind }) => kind);
      expect(ofRun).toEqual(['keep-plate', 'arrange-map', 'weave', 'import-source']);
      const { networks } = await app.get<{ networks: Network[] }>('networks');
      expect(networks[0]).toMatchObject({ id: done.made['network'], nodes: 1320, edges: 6799 });
      const plates = await app.get<Plate[]>('plates');
      expect(plates).toMatchObject([{ id: done.made['plate'], title: 'Who addresses whom' }]);
      const nodes = columns(await table(String(done.made['network']), 'csv-nodes'));
      const handles = Object.keys(nodes[0]).find((name) => /handle/i.test(name))!;
      const known = nodes.map((node) => truth.group[node[handles]] ?? 'none');
      const found = nodes.map((node) => node['community'] ?? node['Community']);
      expect(adjustedRand(groupCodes(found).of, groupCodes(known).of)).toBeGreaterThan(0.4);
    });

    it('who posts in step: the ring', async () => {
      await newStudy('In step');
      const done = await run(routine('posts-in-step'), { file: await sent('tidepost.csv') });
      const nodes = columns(await table(String(done.made['network']), 'csv-nodes'));
      const handles = Object.keys(nodes[0]).find((name) => /handle/i.test(name))!;
      const ring = new Set(truth.ring.map((handle) => handle.toLowerCase()));
      const inRing = nodes.filter((node) => ring.has(node[handles].toLowerCase())).length;
      expect(inRing).toBeGreaterThanOrEqual(0.9 * ring.size);
      expect(inRing / nodes.length).toBeGreaterThan(0.7);
    });

    /** Pairs that are together at least so often, each counted once from either side. */
    const pairsOf = (units: Iterable<ReadonlySet<string>>, least: number): string[] => {
      const counts = new Map<string, number>();
      for (const unit of units) {
        const all = [...unit].sort();
        all.forEach((one, i) =>
          all.slice(i + 1).forEach((other) => {
            const pair = `${one} ${other}`;
            counts.set(pair, (counts.get(pair) ?? 0) + 1);
          }),
        );
      }
      return [...counts].filter(([, count]) => count >= least).map(([pair]) => pair);
    };
    /** The network that came out, with how far its groups agree with others over the nodes of which these are known. */
    const found = async (
      id: string,
      answers: RoutineAnswers,
      known: (name: string) => string | undefined = () => undefined,
    ) => {
      const done = await run(routine(id), answers);
      expect(done.steps.map(({ error }) => error)).toEqual(done.steps.map(() => null));
      const { networks } = await app.get<{ networks: Network[] }>('networks');
      const network = networks.find((one) => one.id === done.made['network'])!;
      const nodes = columns(await table(network.id, 'csv-nodes'));
      const names = Object.keys(nodes[0]).find((name) => /handle|name/i.test(name))!;
      const both = nodes.filter((node) => known(node[names]) !== undefined);
      const agreement = adjustedRand(
        groupCodes(both.map((node) => node['community'])).of,
        groupCodes(both.map((node) => known(node[names])!)).of,
      );
      return { network, agreement };
    };

    it('which videos share commenters: each pair with two or more', async () => {
      await newStudy('Videos');
      const [file, items] = [await sent('reelcove-comments.csv'), await sent('reelcove-videos.csv')];
      const { network } = await found('shared-commenters', { file, items });
      const { comments, videos } = makeVideos();
      const under = new Map<string, Set<string>>();
      for (const { author, video_id } of comments)
        under.set(author, (under.get(author) ?? new Set()).add(video_id));
      expect([network.nodes, network.edges]).toEqual([videos.length, pairsOf(under.values(), 2).length]);
    });

    it('which hashtags go together: each pair in two or more posts', async () => {
      await newStudy('Hashtags');
      const { network } = await found('hashtags-together', { file: await sent('tidepost.csv') });
      const tags = makePosts().posts.map(
        ({ text }) => new Set((text.match(/#[\p{L}\p{N}_]+/gu) ?? []).map((tag) => tag.toLowerCase())),
      );
      expect(network.edges).toBe(pairsOf(tags, 2).length);
    });

    it('who writes to whom: each pair of sender and receiver, and the offices', async () => {
      await newStudy('Mail');
      const { emails } = makeEmails();
      const office = (address: string): string | undefined =>
        /@(council|lightworks|harbourpost|estuarymail|nightshift)/
          .exec(address)?.[1]
          .replace('nightshift', 'estuarymail');
      const { network, agreement } = await found(
        'email-archive',
        { file: await sent('council.mbox') },
        office,
      );
      const pairs = emails.flatMap(({ from, to, cc }) =>
        [...to, ...cc].map((one) => `${from.address} ${one}`),
      );
      expect(network.edges).toBe(new Set(pairs).size);
      expect(agreement).toBeGreaterThan(0.1);
    });

    it('shared audiences: whoever follows two or more of the accounts', async () => {
      await newStudy('Audiences');
      const lists = makeFollowers();
      const files = await sent(...lists.map(({ followed }) => `followers of ${followed}.csv`));
      const { network } = await found('shared-audiences', { file: files });
      const of = new Map<string, number>();
      for (const { followers } of lists)
        for (const { handle } of followers) of.set(handle, (of.get(handle) ?? 0) + 1);
      const several = [...of].filter(([, count]) => count >= 2);
      expect([network.nodes, network.edges]).toEqual([
        several.length + lists.length,
        several.reduce((sum, [, count]) => sum + count, 0),
      ]);
    });
  });

  it('says what it will do, and about how long that takes', async () => {
    await newStudy('Planned');
    const { body } = await app.api
      .post(`/api/v1/studies/${app.study}/routine-plan`)
      .send({
        routine: routine('who-talks-to-whom'),
        answers: { file: await sent('tidepost.csv'), least: 2 },
      })
      .expect(200);
    const { paragraph, seconds, problems } = body as RoutinePlan;
    expect(problems).toEqual([]);
    expect(paragraph).toMatch(
      /^It will take in tidepost\.csv, weave “Who addresses whom” .* and keep the plate/,
    );
    expect(seconds).toBeGreaterThan(0);
    expect(await logbook()).toHaveLength(1);
  });

  describe('made of a logbook', () => {
    let draft: RoutineDraft;
    let source: { nodes: string; ties: string };

    it('takes along all that a plate rests on, and tells what cannot go along', async () => {
      await newStudy('First');
      await app.take('tidepost.csv', demo('tidepost.csv'));
      await app.step('tidy', {
        sort: 'hashtag',
        decisions: [{ key: 'latelampplan', verdict: { verdict: 'drop' } }],
      });
      const weave = { what: 'together', things: 'hashtag', atLeast: 3 };
      const { body: woven } = await app.step('weave', { name: 'Tags', weave }).expect(200);
      const network = String((woven as Step).result!['network']);
      await app.followed('portray-groups');
      await app
        .step('group-nodes', { network, name: 'Finer', settings: { resolution: 2, seed: 7 } })
        .expect(200);
      await app
        .step('arrange-map', { network, layout: { seed: 7 }, upload: null, iterations: null, moved: 0 })
        .expect(200);
      const map = await app.get<{ description: object; layout: object }>(`networks/${network}/map`);
      const { body: kept } = await app
        .step('keep-plate', {
          network,
          title: 'Tags of the lamps',
          description: { ...map.description, held: [0], colour: { column: 'Finer' } },
          layout: map.layout,
          iterations: null,
          moved: 0,
          view: null,
          selection: { what: 'node', node: 1 },
        })
        .expect(200);
      const plate = (kept as Step).result!['plate'];
      source = { nodes: await table(network, 'csv-nodes'), ties: await table(network, 'csv-ties') };
      draft = (
        await app.api
          .post(`/api/v1/studies/${app.study}/routine-draft`)
          .send({ name: 'Tags again', plate })
          .expect(200)
      ).body as RoutineDraft;
      expect(draft.routine.steps.map(({ kind }) => kind)).toEqual([
        'import-source',
        'tidy',
        'weave',
        'group-nodes',
        'arrange-map',
        'keep-plate',
      ]);
      expect(draft.routine.questions.map(({ name }) => name)).toEqual([
        'file',
        'least',
        'from',
        'until',
        'without',
        'resolution',
        'seed',
      ]);
      expect(draft.along).toHaveLength(5);
      expect(draft.left.map(({ why }) => why)).toEqual([
        'Without 1 node that is held: other data do not have that.',
        'Without what was selected: other data do not have that.',
      ]);
      const written = JSON.stringify(draft.routine);
      expect(written).not.toContain(network);
      expect(written).not.toMatch(/[0-9a-f]{8}-[0-9a-f]{4}-/);
    });

    it('gives the same network, groups and map to the last byte, in another study and again', async () => {
      const made: { nodes: string; ties: string; figure: string }[] = [];
      for (const name of ['Second', 'Third']) {
        await newStudy(name);
        const done = await run(draft.routine, { file: await sent('tidepost.csv') });
        expect(done.steps.map(({ error }) => error)).toEqual(done.steps.map(() => null));
        const network = String(done.made['tags']);
        const { body } = await app.api
          .get(`/api/v1/studies/${app.study}/networks/${network}/figure.svg`)
          .query({
            plate: Object.values(done.made).find(
              (id) => typeof id === 'number' && id !== done.made['tidepost-csv'],
            )!,
          })
          .expect(200);
        made.push({
          nodes: await table(network, 'csv-nodes'),
          ties: await table(network, 'csv-ties'),
          figure: String(body),
        });
      }
      expect(made[0].nodes).toBe(source.nodes);
      expect(made[0].ties).toBe(source.ties);
      expect(made[1]).toEqual(made[0]);
    });

    it('is run with other answers', async () => {
      await newStudy('Fourth');
      const done = await run(draft.routine, { file: await sent('tidepost.jsonl'), least: 8, resolution: 1 });
      expect(done.state).toBe('done');
      const { networks } = await app.get<{ networks: Network[] }>('networks');
      expect(networks[0].edges).toBeLessThan(source.ties.split('\n').length / 2);
      expect(networks[0].weave).toMatchObject({ atLeast: 8 });
    });
  });

  it('says what differs from the run before', async () => {
    await newStudy('Twice');
    const of = routine('who-talks-to-whom');
    const file = { file: await sent('tidepost.csv') };
    const first = await run(of, { ...file, until: '2026-04-15' });
    const differences = async (id: number, query: object = {}): Promise<RunDifferences> =>
      app.get<RunDifferences>(`routine-runs/${id}/differences`, query);
    expect(await differences(first.id)).toEqual({
      run: first.id,
      before: null,
      networks: [],
      plates: [],
    });
    // The same file again brings nothing but duplicates; the period is another one.
    const second = await run(of, { file: await sent('tidepost.csv'), from: '2026-04-15' });
    const { before, networks, plates } = await differences(second.id);
    expect(plates).toEqual([{ step: 'plate', before: first.made['plate'], now: second.made['plate'] }]);
    expect(before).toBe(first.id);
    expect(networks).toHaveLength(1);
    const [{ now, came, gone, agreement, groups, ranks }] = networks;
    const count = async (made: RoutineRun): Promise<Set<string>> =>
      new Set(
        (await table(String(made.made['network']), 'csv-nodes'))
          .trim()
          .split('\n')
          .slice(1)
          .map((row) => row.split(',')[0]),
      );
    // Counted once more, from the tables.
    const [ids, idsBefore] = [await count(second), await count(first)];
    expect(now.nodes).toBe(ids.size);
    expect(came.count).toBe([...ids].filter((id) => !idsBefore.has(id)).length);
    expect(gone.count).toBe([...idsBefore].filter((id) => !ids.has(id)).length);
    expect(agreement).toBeGreaterThan(0.3);
    expect(groups.length).toBeGreaterThan(3);
    expect(ranks).toHaveLength(10);
    const both = (await app.get<{ networks: Network[] }>('networks')).networks;
    const modularityOf = (made: RoutineRun) =>
      both.find(({ id }) => id === made.made['network'])!.measures['modularity'];
    expect(networks[0].measures.at(-1)).toEqual({
      title: 'modularity',
      before: modularityOf(first),
      now: modularityOf(second),
    });
    expect(await differences(second.id, { beside: first.id })).toEqual({
      run: second.id,
      before,
      networks,
      plates,
    });
    await app.api.get(`/api/v1/studies/${app.study}/routine-runs/99/differences`).expect(404);
  });

  describe('that is run with several answers', () => {
    const vary = (body: object) => app.api.post(`/api/v1/studies/${app.study}/routine-variations`).send(body);

    it('is run once for each, and what the question does not touch is done once', async () => {
      await newStudy('Varied');
      const asked = {
        routine: routine('hashtags-together'),
        answers: { file: await sent('tidepost.csv'), without: ['LateLampPlan'] },
      };
      const { body } = await vary({ ...asked, question: 'least', values: [2, 4, 8] }).expect(202);
      const runs = body as RoutineRun[];
      expect(runs.map(({ varied }) => varied)).toEqual(
        [2, 4, 8].map((value) => ({ question: 'least', value, first: runs[0].id })),
      );
      const done: RoutineRun[] = [];
      for (const { id } of runs) done.push(await ended(id));
      expect(done.map(({ state }) => state)).toEqual(['done', 'done', 'done']);
      expect((await logbook()).filter(({ kind }) => kind === 'import-source')).toHaveLength(1);
      const { networks } = await app.get<{ networks: Network[] }>('networks');
      const found = done.map(({ made }) => networks.find(({ id }) => id === made['network'])!);
      expect(found.map(({ name }) => name)).toEqual(
        [2, 4, 8].map((value) => `Hashtags that go together (least ${value})`),
      );
      // By hand: the ties of the first table that are that strong.
      const weights = (await table(found[0].id, 'csv-ties'))
        .trim()
        .split('\n')
        .map((row) => row.split(','));
      const at = weights[0].findIndex((name) => name.trim() === 'weight');
      for (const [i, least] of [2, 4, 8].entries())
        expect(found[i].edges).toBe(weights.slice(1).filter((row) => Number(row[at]) >= least).length);
      const beside = await app.get<RunDifferences>(`routine-runs/${runs[2].id}/differences`, {
        beside: runs[0].id,
      });
      expect(beside.networks[0].now.edges).toBe(found[2].edges);
      expect(beside.networks[0].agreement).not.toBeNull();
    });

    it('gives each its own groups where the resolution is varied', async () => {
      await newStudy('Resolutions');
      await app.take('tidepost.csv', demo('tidepost.csv'));
      const of = {
        form: 1,
        name: 'Finer',
        questions: [{ name: 'resolution', kind: 'number', ask: 'Resolution?', default: 1 }],
        steps: [
          {
            name: 'network',
            kind: 'weave',
            parameters: { name: 'N', weave: { what: 'accounts', kinds: ['reply', 'mention'] } },
          },
          {
            name: 'groups',
            kind: 'group-nodes',
            parameters: {
              network: { made: 'network' },
              name: 'Tried',
              settings: { resolution: { ask: 'resolution' }, stability: 0 },
            },
          },
        ],
      };
      const { body } = await vary({ routine: of, question: 'resolution', values: [0.5, 4] }).expect(202);
      const [coarse, fine] = body as RoutineRun[];
      await ended(coarse.id);
      await ended(fine.id);
      const { networks } = await app.get<RunDifferences>(`routine-runs/${fine.id}/differences`, {
        beside: coarse.id,
      });
      expect(networks[0].now.groups).toBeGreaterThan(networks[0].before.groups);
      expect(networks[0].agreement).toBeLessThan(1);
    });

    it('is refused with a value that does not fit, or a file to be varied; a run that waits can be stopped', async () => {
      await newStudy('Refused');
      const file = await sent('tidepost.csv');
      const of = { routine: routine('hashtags-together'), answers: { file } };
      await vary({ ...of, question: 'least', values: [1, 0] }).expect(422);
      await vary({ ...of, question: 'file', values: ['a', 'b'] }).expect(422);
      await vary({ ...of, question: 'least', values: [1] }).expect(400);
      const { body } = await vary({ ...of, question: 'least', values: [4, 5, 6] }).expect(202);
      const [first, , last] = body as RoutineRun[];
      await app.api.post(`/api/v1/studies/${app.study}/routine-runs/${last.id}/cancel`).expect(200);
      expect((await ended(first.id)).state).toBe('done');
      expect((await app.get<RoutineRun>(`routine-runs/${last.id}`)).state).toBe('cancelled');
    });
  });

  describe('that does not fit is refused in words, and nothing is done', () => {
    beforeAll(() => newStudy('Refusals'));
    const posts = () => routine('who-talks-to-whom');

    it.each<[string, (of: Routine) => unknown, RegExp]>([
      ['a later form', (of) => ({ ...of, form: 2 }), /needs a later version/],
      [
        'an unknown kind of step',
        (of) => ({ ...of, steps: [{ name: 'a', kind: 'guess', parameters: {} }] }),
        /kind/,
      ],
      [
        'a step that a routine cannot do',
        (of) => ({ ...of, steps: [{ name: 'a', kind: 'delete-study', parameters: {} }] }),
        /a: A routine cannot do this \(delete-study\)/,
      ],
      [
        'a circle',
        (of) => ({
          ...of,
          steps: of.steps.map((step) =>
            step.name === 'network'
              ? {
                  ...step,
                  parameters: {
                    name: 'x',
                    weave: { what: 'groups', network: { made: 'network' }, column: 'c' },
                  },
                }
              : step,
          ),
        }),
        /network, weave, network: It rests on “network”, which does not come before it\./,
      ],
      [
        'a reference to nothing',
        (of) => ({ ...of, questions: of.questions.slice(0, 1) }),
        /There is no question “tag”/,
      ],
      [
        'two steps of one name',
        (of) => ({ ...of, steps: [of.steps[0], of.steps[0]], outputs: [] }),
        /two of this name/,
      ],
    ])('%s', async (_, change, reason) => {
      expect(await refused(change(posts()), { file: await sent('tidepost.csv') })).toMatch(reason);
    });

    it.each<[string, object, RegExp]>([
      ['no file', {}, /file: The answer is to be a file/],
      ['a number below the least', { least: 0 }, /least: The answer is to be 1 or more/],
      ['a part of a number', { least: 1.5 }, /least: The answer is to be a whole number/],
      ['an empty period', { from: '2026-04-01', until: '2026-04-01' }, /network: The period is empty/],
      ['no day', { from: '2026-02-31x' }, /from: The answer is to be a day/],
      ['an unknown question', { colour: 'red' }, /colour: There is no such question/],
    ])('%s', async (_, answers, reason) => {
      const file =
        'least' in answers || 'from' in answers || 'colour' in answers
          ? { file: await sent('tidepost.csv') }
          : {};
      expect(await refused(posts(), { ...file, ...answers })).toMatch(reason);
    });

    it('a file outside of the study', async () => {
      const of = posts();
      const outside = { upload: '../../catalogue.sqlite', file: 'x.csv', name: 'x', reading: {} };
      const source = await app.look('tidepost.csv', demo('tidepost.csv'));
      const [first, ...rest] = of.steps;
      const bad = {
        ...of,
        questions: of.questions.slice(1),
        steps: [{ ...first, parameters: { ...outside, reading: source.preview.reading } }, ...rest],
      };
      const done = await run(bad, {});
      expect(done.steps[0]).toMatchObject({ state: 'failed', step: null });
      expect(done.steps[0].error).toContain('This uploaded file is not there');
      expect((await logbook()).some(({ kind }) => kind === 'import-source')).toBe(false);
    });

    it('a file without a column that is read', async () => {
      const source = await app.look('tidepost.csv', demo('tidepost.csv'));
      const of = posts();
      const [first, ...rest] = of.steps;
      const explicit = {
        ...of,
        steps: [{ ...first, parameters: { ...first.parameters, reading: source.preview.reading } }, ...rest],
      };
      const { id } = await app.look('other.csv', 'who,what\nann,hello\n');
      expect(await refused(explicit, { file: [{ upload: id, file: 'other.csv' }] })).toMatch(
        /other\.csv has no column “author”, which is read as author/,
      );
      expect((await logbook()).some(({ kind }) => kind === 'import-source')).toBe(false);
    });
  });

  it('is kept, changed, and forgotten', async () => {
    const own = { ...routine('email-archive'), name: 'Our mail' };
    const { body } = await app.api.post('/api/v1/routines').send(own).expect(201);
    const { id } = body as KeptRoutine;
    const { body: changed } = await app.api
      .patch(`/api/v1/routines/${id}`)
      .send({ ...own, description: 'Weekly.' })
      .expect(200);
    expect(changed).toMatchObject({ id, isReady: false, routine: { version: 2, description: 'Weekly.' } });
    await app.api.patch('/api/v1/routines/email-archive').send(own).expect(404);
    await app.api.delete(`/api/v1/routines/${id}`).expect(204);
    await app.api.delete(`/api/v1/routines/${id}`).expect(404);
  });

  describe('once it was run', () => {
    const at = (run: RoutineRun): string => `/api/v1/studies/${app.study}/routine-runs/${run.id}`;

    it('gives its files as a zip with the record of the run, and says where people can be found in them', async () => {
      await newStudy('Files');
      const done = await run(routine('who-talks-to-whom'), { file: await sent('tidepost.csv') });
      const { body } = await app.api
        .get(`${at(done)}/outputs`)
        .responseType('blob')
        .expect(200);
      const files = unzipSync(new Uint8Array(body as Buffer));
      expect(Object.keys(files)).toEqual([
        'plate.svg',
        'network.graphml',
        'network.nodes.csv',
        'network.ties.csv',
        'network.methods.md',
        'run.json',
      ]);
      const record = JSON.parse(Buffer.from(files['run.json']).toString()) as {
        files: Record<string, string>;
        inputs: object;
      };
      for (const [name, sum] of Object.entries(record.files))
        expect(createHash('sha256').update(files[name]).digest('hex')).toBe(sum);
      const sum = createHash('sha256').update(demo('tidepost.csv')).digest('hex');
      expect(record.inputs).toEqual({ file: [{ file: 'tidepost.csv', sha256: sum }] });
      expect(Buffer.from(files['network.ties.csv']).toString()).toBe(
        await table(String(done.made['network']), 'csv-ties'),
      );
      expect((await app.api.get(`${at(done)}/leaks`).expect(200)).body).toEqual({ leaks: [], total: 0 });
      // Words of a plate are written by hand: a handle in its title is found.
      await app.step('name-people', { form: 'words' }).expect(200);
      const plate = done.made['plate'];
      await app.step('name-plate', { plate, title: 'Led by wall_lamps_now', note: '' }).expect(200);
      await app
        .step('rename-network', { network: done.made['network'], name: 'Of wall_lamps_now' })
        .expect(200);
      const { leaks } = (await app.api.get(`${at(done)}/leaks`).expect(200)).body as {
        leaks: { place: string }[];
      };
      expect(leaks.map(({ place }) => place)).toContain('name of the network');
      const { body: step } = await app
        .step('export-run', { routineRun: done.id, files: 5, allowed: null })
        .expect(200);
      expect((step as Step).sentence).toBe(
        `What run ${done.id} of “Who talks to whom about a tag” gave was saved as 5 files.`,
      );
    });

    it('can be made again from the same file: what comes out is the same, and what was changed since is told', async () => {
      await newStudy('Again');
      const done = await run(routine('hashtags-together'), { file: await sent('tidepost.csv') });
      const verify = async (...names: string[]) =>
        app.api.post(`${at(done)}/verify`).send({ files: { file: await sent(...names) } });
      const { status, body } = await verify('tidepost.jsonl');
      expect([status, (body as { detail: string }).detail]).toEqual([
        422,
        expect.stringContaining('The run had tidepost.csv; what was given has not the same bytes'),
      ]);
      expect(((await verify('tidepost.csv')).body as RoutineRun).verified).toMatchObject({
        parts: [
          { step: 'network', what: 'network', isSame: true, isUnchanged: true },
          { step: 'plate', what: 'plate', isSame: true, isUnchanged: true },
        ],
      });
      // Nothing of it is left.
      expect(readdirSync(join(app.folder, 'verifying'))).toEqual([]);
      const { studies } = (await app.api.get('/api/v1/studies')).body as { studies: { name: string }[] };
      expect(studies.filter(({ name }) => name === 'Which hashtags go together')).toEqual([]);
      const network = done.made['network'];
      await app.step('group-nodes', { network, name: 'finer', settings: { resolution: 3 } }).expect(200);
      await app.step('delete-plate', { plate: done.made['plate'], title: 'Gone' }).expect(200);
      expect(((await verify('tidepost.csv')).body as RoutineRun).verified!.parts).toMatchObject([
        { isSame: true, isUnchanged: false },
        { isSame: true, isUnchanged: null },
      ]);
    });

    it('as one of several can be made again like any other', async () => {
      await newStudy('One of several');
      const asked = { routine: routine('hashtags-together'), answers: { file: await sent('tidepost.csv') } };
      const { body } = await app.api
        .post(`/api/v1/studies/${app.study}/routine-variations`)
        .send({ ...asked, question: 'least', values: [3, 5] })
        .expect(202);
      const [first, second] = body as RoutineRun[];
      await ended(first.id);
      await ended(second.id);
      const answer = await app.api
        .post(`${at(second)}/verify`)
        .send({ files: { file: await sent('tidepost.csv') } })
        .expect(200);
      expect((answer.body as RoutineRun).verified!.parts).toMatchObject([
        { step: 'network', isSame: true, isUnchanged: true },
        { step: 'plate', isSame: true, isUnchanged: true },
      ]);
    });

    it('on what a study has can be made again as long as that is the same', async () => {
      await newStudy('On these');
      await app.take('tidepost.csv', demo('tidepost.csv'));
      const done = await run(onMessagesThere(routine('who-talks-to-whom')), { least: 2 });
      const verify = () => app.api.post(`${at(done)}/verify`).send({});
      const { verified } = (await verify().expect(200)).body as RoutineRun;
      expect(verified!.parts.map(({ isSame }) => isSame)).toEqual([true, true]);
      const { things } = await app.get<{ things: { key: string }[] }>('tidy/hashtag', { limit: 1 });
      const decisions = [{ key: things[0].key, verdict: { verdict: 'drop' } }];
      await app.step('tidy', { sort: 'hashtag', decisions }).expect(200);
      expect(((await verify().expect(422)).body as { detail: string }).detail).toMatch(
        /messages of this study, or what was decided of them, are others/,
      );
      // Of a run that came into a study with messages nobody can tell which were there.
      const mixed = await run(routine('hashtags-together'), { file: await sent('tidepost.jsonl') });
      const files = { file: await sent('tidepost.jsonl') };
      const { body } = await app.api
        .post(`${at(mixed)}/verify`)
        .send({ files })
        .expect(422);
      expect((body as { detail: string }).detail).toMatch(/had messages already when it ran/);
    });
  });

  describe('that was ended in the middle', () => {
    it('by a stop of the application goes on, and does nothing twice', async () => {
      await newStudy('Stopped');
      const { id } = await begin(routine('who-talks-to-whom'), { file: await sent('tidepost.csv') });
      for (let i = 0; i < 400; i++) {
        if ((await logbook()).some(({ kind, state }) => kind === 'import-source' && state === 'done')) break;
        await new Promise((done) => setTimeout(done, 20));
      }
      await app.stop();
      await app.begin();
      const interrupted = await app.get<RoutineRun>(`routine-runs/${id}`);
      expect(interrupted.state).toBe('interrupted');
      await app.api.post(`/api/v1/studies/${app.study}/routine-runs/${id}/go-on`).expect(202);
      const done = await ended(id);
      expect(done.steps.map(({ error }) => error)).toEqual(done.steps.map(() => null));
      expect(done.state).toBe('done');
      const steps = await logbook();
      for (const kind of ['import-source', 'weave', 'keep-plate'])
        expect(steps.filter((step) => step.kind === kind && step.state === 'done')).toHaveLength(1);
      await app.api.post(`/api/v1/studies/${app.study}/routine-runs/${id}/go-on`).expect(409);
    });

    it('by whoever began it keeps what was done, and goes on', async () => {
      await newStudy('Cancelled');
      const { id } = await begin(routine('who-talks-to-whom'), { file: await sent('tidepost.csv') });
      const { body } = await app.api
        .post(`/api/v1/studies/${app.study}/routine-runs/${id}/cancel`)
        .expect(200);
      expect((body as RoutineRun).state).toBe('cancelled');
      await app.api.post(`/api/v1/studies/${app.study}/routine-runs/${id}/cancel`).expect(409);
      await app.api.post(`/api/v1/studies/${app.study}/routine-runs/${id}/go-on`).expect(202);
      expect((await ended(id)).state).toBe('done');
    });

    it('by a step that fails says why, and does what does not rest on it', async () => {
      await newStudy('Fails');
      const of = routine('who-talks-to-whom');
      const broken = {
        ...of,
        steps: [
          of.steps[0],
          {
            name: 'odd',
            kind: 'weave' as const,
            parameters: { name: 'Odd', weave: { what: 'follows' } },
          },
          {
            ...of.steps[2],
            name: 'odd-map',
            parameters: { ...of.steps[2].parameters, network: { made: 'odd' } },
          },
          ...of.steps.slice(1),
        ],
      };
      const done = await run(broken, { file: await sent('tidepost.csv') });
      expect(done.state).toBe('incomplete');
      expect(done.steps.map(({ name, state }) => [name, state])).toEqual([
        ['material', 'done'],
        ['odd', 'failed'],
        ['odd-map', 'left out'],
        ['network', 'done'],
        ['arrangement', 'done'],
        ['plate', 'done'],
      ]);
      expect(done.steps[1].error).toMatch(/follower lists/);
      expect(done.steps[2].error).toBe('It rests on “odd”, which was not done.');
    });
  });
});
