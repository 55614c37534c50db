import { ANSWER_COLUMNS, answerQuestions, graphOf, NODE_QUESTIONS } from '@pebble/core';
import { QuestionId, QuestionSettings, Shown, wholeShown, type Network, type Step } from '@pebble/contract';
import { makePosts, postsAsJsonLines } from '@pebble/standins';
import { startedApplication } from './testing/application';
import { WovenNetworks } from './testing/wovenNetworks';

const { posts, truth } = makePosts(2000);

describe('questions about the nodes of a network', () => {
  const app = startedApplication();
  const woven = new WovenNetworks(app);
  beforeAll(async () => {
    await app.take('tidepost.jsonl', postsAsJsonLines(posts));
  }, 60_000);
  const ask = (network: string, questions: readonly string[]) =>
    app.step('answer-questions', { network, questions, settings: {} });

  /** Communities come with the first measures, after weaving. */
  const measured = async (network: string): Promise<void> => {
    for (let i = 0; i < 200; i++) {
      const { state } = (await app.api.get(`/api/v1/studies/${app.study}/networks/${network}`).expect(200))
        .body as Network;
      if (state === 'measured') return;
      await new Promise((done) => setTimeout(done, 50));
    }
  };

  it('are answered by columns of the nodes, with how they were computed', async () => {
    const { id } = await woven.make({ what: 'accounts', kinds: ['reply', 'quote', 'mention', 'repost'] });
    await measured(id);
    const step = (
      await ask(
        id,
        QuestionId.options.filter((question) => question !== 'two-mode'),
      ).expect(200)
    ).body as Step;
    expect(step.sentence).toContain(
      'Of every node of the whole network betweenness by weight, betweenness either way, closeness',
    );
    const { nodes, handles } = await woven.read(step, id);
    for (const name of ANSWER_COLUMNS.filter((one) => one !== 'degreeBySort' && one !== 'redundancy'))
      expect(nodes[name]).toHaveLength(handles.length);
    const network = (await app.api.get(`/api/v1/studies/${app.study}/networks/${id}`).expect(200))
      .body as Network;
    expect(network.columns).toContainEqual(
      expect.objectContaining({
        name: 'pageRank',
        how: expect.stringContaining('Page et al. 1999') as string,
      }),
    );
    const ranks = nodes['pageRank'] as Float64Array;
    expect(ranks.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 8);
    // The loud account is much addressed, and answers nobody.
    const loud = handles.findIndex((handle) => handle.toLowerCase() === truth.loud.toLowerCase());
    expect(ranks[loud]).toBe(Math.max(...ranks));
    expect((nodes['receivedPerSent'] as Float64Array)[loud]).toBeNaN();
    expect((nodes['reciprocated'] as Float64Array)[loud]).toBe(0);
  });

  it('that need a direction are refused where there is none', async () => {
    const { id } = await woven.make({ what: 'together', things: 'hashtag' });
    const { body } = await ask(id, ['hubs']).expect(422);
    expect((body as { detail: string }).detail).toContain('no direction');
    const step = (await ask(id, ['hubs', 'core']).expect(200)).body as Step;
    expect(step.sentence).toContain('core number was computed');
    await ask('nothing', ['core']).expect(404);
    await ask(id, []).expect(400);
  });

  it('and what the whole is like, beside chance, goes into the methods text', async () => {
    const { id, edges, handles } = await woven.make({
      what: 'accounts',
      kinds: ['reply', 'quote', 'mention', 'repost'],
    });
    const step = (await app.step('describe-whole', { network: id, networks: 20, seed: 3 }).expect(200))
      .body as Step;
    const network = (await app.api.get(`/api/v1/studies/${app.study}/networks/${id}`).expect(200))
      .body as Network;
    const { figures, byChance } = network.whole!;
    const n = handles.length;
    expect(figures['density']).toBeCloseTo(edges['source'].length / (n * (n - 1)), 12);
    // People who answer each other do so more than chance would have it.
    expect(figures['reciprocity']).toBeGreaterThan(
      byChance['reciprocity'].mean + 3 * byChance['reciprocity'].deviation!,
    );
    expect(step.sentence).toMatch(
      /^The whole network: density 0\.\d+, reciprocity 0\.\d+ \(by chance 0\.\d+/,
    );
    expect(step.sentence).toContain(
      '20 random networks with the same degrees (Maslov & Sneppen 2002; seed 3)',
    );
    const { id: tags } = await woven.make({ what: 'together', things: 'hashtag' });
    await app.step('describe-whole', { network: tags, networks: 0 }).expect(200);
    const undirected = (await app.api.get(`/api/v1/studies/${app.study}/networks/${tags}`).expect(200))
      .body as Network;
    expect(undirected.whole).toMatchObject({ byChance: {}, figures: { reciprocity: null } });
  });

  it('and what falls apart without whom goes there too, and changes nothing', async () => {
    const { id, handles } = await woven.make({ what: 'accounts', kinds: ['reply', 'mention'] });
    await measured(id);
    const driver = handles.findIndex((handle) => handle.toLowerCase() === truth.driver.toLowerCase());
    const step = (
      await app.step('test-removal', { network: id, nodes: [driver], by: 'betweenness' }).expect(200)
    ).body as Step;
    expect(step.sentence).toContain(`Without 1 node with the highest betweenness (${handles[driver]})`);
    expect(step.sentence).toContain('The network was not changed.');
    const { components, largest } = step.result as Record<string, { before: number; after: number }>;
    expect(components.after).toBeGreaterThanOrEqual(components.before);
    expect(largest.after).toBeLessThan(largest.before);
    await app.step('test-removal', { network: id, nodes: [] }).expect(400);
    await app.step('test-removal', { network: id, nodes: [handles.length] }).expect(422);
  });

  it('and how sure the ranks are, by messages drawn anew', async () => {
    const { id, handles } = await woven.make({ what: 'accounts', kinds: ['reply', 'mention', 'repost'] });
    await measured(id);
    const ask = { network: id, measure: 'inDegree', runs: 40, seed: 2 };
    const step = (await app.step('doubt-ranks', ask).expect(200)).body as Step;
    expect(step.sentence).toContain('Ranks by in-degree were computed again on 40 networks');
    const { nodes } = await woven.read(step, id);
    const loud = handles.findIndex((handle) => handle.toLowerCase() === truth.loud.toLowerCase());
    // The loud account is first whichever messages there are.
    expect((nodes['in-degree, best rank'] as Float64Array)[loud]).toBe(1);
    expect((nodes['in-degree, worst rank'] as Float64Array)[loud]).toBe(1);
    const { id: shares } = await woven.make({ what: 'shared', things: 'hashtag', scale: 'jaccard' });
    const { body } = await app.step('doubt-ranks', { network: shares, measure: 'degree' }).expect(422);
    expect((body as { detail: string }).detail).toContain('no numbers of messages');
  });

  it('and columns of one’s own are computed by formulas over the others', async () => {
    const { id } = await woven.make({ what: 'accounts', kinds: ['reply', 'mention'] });
    await measured(id);
    const ask = { network: id, name: 'Share', formula: '[in-degree] / max([in-degree])' };
    const step = (await app.step('compute-column', ask).expect(200)).body as Step;
    expect(step.sentence).toBe(
      'Of every node “Share” was computed from in-degree as [in-degree] / max([in-degree]).',
    );
    const { nodes } = await woven.read(step, id);
    expect(Math.max(...(nodes['Share'] as Float64Array))).toBe(1);
    const { body } = await app.step('compute-column', { ...ask, formula: 'process.exit()' }).expect(422);
    expect((body as { detail: string }).detail).toContain('Nothing was computed.');
    await app.step('compute-column', { ...ask, name: 'degree' }).expect(422);
  });

  it('and chosen nodes are put in a category by hand, which is made, changed and taken back', async () => {
    const { id } = await woven.make({ what: 'accounts', kinds: ['reply', 'mention'] });
    await measured(id);
    const ask = { network: id, nodes: [0, 2], column: 'Role', value: 'press' };
    const step = (await app.step('mark-nodes', ask).expect(200)).body as Step;
    expect(step.sentence).toBe('“Role” of 2 chosen nodes was set to “press” by hand.');
    const again = await app.step('mark-nodes', { ...ask, nodes: [2, 3], value: 'city' }).expect(200);
    expect((again.body as Step).result).toMatchObject({ nodes: 2, changed: 2 });
    const last = (await app.step('mark-nodes', { ...ask, nodes: [3], value: '' }).expect(200)).body as Step;
    expect(last.sentence).toBe('The value of “Role” was taken from 1 chosen node.');
    const { nodes } = await woven.read(last, id);
    expect((nodes['Role'] as string[]).slice(0, 4)).toEqual(['press', '', 'city', '']);
    await app.step('mark-nodes', { ...ask, column: 'degree' }).expect(422);
    // Groups that a method found are not written over.
    const settings = { method: 'leiden', seed: 1 };
    await app.step('group-nodes', { network: id, name: 'Found', settings }).expect(200);
    const { body: refused } = await app.step('mark-nodes', { ...ask, column: 'Found' }).expect(422);
    expect((refused as { detail: string }).detail).toContain('“Found” was not set by hand');
    await app.step('mark-nodes', { ...ask, nodes: [999_999] }).expect(422);
    const { body: made } = await app.step('mark-nodes', { ...ask, nodes: [], column: 'Empty' }).expect(200);
    expect((made as Step).sentence).toBe('A category “Empty” was made, to be set by hand.');
  });

  it('can be asked of what is shown alone, in columns of their own that say of what', async () => {
    const { id } = await woven.make({ what: 'accounts', kinds: ['reply', 'quote', 'mention', 'repost'] });
    await measured(id);
    const conditions = [{ what: 'range', column: 'inDegree', from: 8 }];
    const shown = Shown.parse({ ...wholeShown, where: { joined: 'and', conditions } });
    const asked = { network: id, questions: ['basics', 'core', 'bridges'], settings: {}, shown };
    const step = (await app.step('answer-questions', asked).expect(200)).body as Step;
    const { nodes } = await woven.read(step, id);
    const whole = nodes['inDegree'] as Uint32Array;
    const part = nodes['in-degree, shown'] as Float64Array;
    const inside = [...whole.keys()].filter((v) => whole[v] >= 8);
    expect([...part.keys()].filter((v) => !Number.isNaN(part[v]))).toEqual(inside);
    expect(inside.every((v) => part[v] <= whole[v])).toBe(true);
    expect(step.sentence).toContain(
      `Of ${inside.length} of ${whole.length} nodes that were shown (with in-degree of at least 8) in-degree,`,
    );
    const network = (await app.api.get(`/api/v1/studies/${app.study}/networks/${id}`).expect(200))
      .body as Network;
    expect(network.columns.find(({ name }) => name === 'core number, shown')!.shown).toEqual(shown);
    const none = {
      ...shown,
      where: { joined: 'and', conditions: [{ what: 'named', text: 'nobody at all' }] },
    };
    const { body } = await app.step('answer-questions', { ...asked, shown: none }).expect(422);
    expect((body as { detail: string }).detail).toContain('Nothing is shown');
  });

  it('about who stands between others are computed in threads, to the last bit as in one', async () => {
    const { id } = await woven.make({ what: 'accounts', kinds: ['reply', 'mention'] });
    const step = (await ask(id, ['bridges']).expect(200)).body as Step;
    const { nodes, edges } = await woven.read(step, id);
    const graph = graphOf((nodes['id'] as Uint32Array).length, edges);
    const settings = QuestionSettings.parse({});
    const { columns } = answerQuestions(graph, true, ['bridges'], settings, { groups: null, sorts: null });
    expect(nodes['betweennessWeighted']).toEqual(columns['betweennessWeighted']);
    expect(nodes['betweennessEither']).toEqual(columns['betweennessEither']);
  });

  it('that are asked of two-mode networks alone, and those that make no sense there', async () => {
    const { id } = await woven.make({ what: 'two-mode', things: 'hashtag' });
    const step = (await ask(id, ['two-mode', 'circle']).expect(200)).body as Step;
    expect(step.sentence).toContain('degree by sort and redundancy were computed');
    expect(step.sentence).toContain('clustering is always 0');
    const { nodes, edges } = await woven.read(step, id);
    expect(nodes['clustering']).toBeUndefined();
    const mode = nodes['mode'] as string[];
    const tags = mode.filter((one) => one === 'hashtag').length;
    const degree = nodes['degreeBySort'] as Float64Array;
    // The collecting tag stands in nearly every account's posts.
    expect(Math.max(...degree.filter((_, v) => mode[v] === 'hashtag'))).toBeGreaterThan(0.5);
    await app.step('describe-whole', { network: id, networks: 0 }).expect(200);
    const network = (await app.api.get(`/api/v1/studies/${app.study}/networks/${id}`).expect(200))
      .body as Network;
    expect(network.whole!.figures['twoModeDensity']).toBeCloseTo(
      edges['source'].length / (tags * (mode.length - tags)),
      12,
    );
    const { id: accounts } = await woven.make({ what: 'accounts', kinds: ['reply'] });
    const { body } = await ask(accounts, ['two-mode']).expect(422);
    expect((body as { detail: string }).detail).toContain('two-mode networks alone');
  });

  it('have names that no category may take', async () => {
    for (const { columns } of NODE_QUESTIONS.slice(0, 2))
      await app
        .step('categorise-by-rule', {
          sort: 'hashtag',
          field: 'label',
          contains: 'moth',
          category: columns[0].name,
          value: 'x',
        })
        .expect(422);
  });
});
