import { createHash } from 'node:crypto';
import type { Leaks, Methods, SharedPageCheck, Step } from '@pebble/contract';
import { fromArrow, type HeldPage } from '@pebble/core';
import { makePosts, postsAsJsonLines } from '@pebble/standins';
import { startedApplication } from './testing/application';
import { PLATE } from './testing/networkSteps';
import { WovenNetworks, type Made } from './testing/wovenNetworks';

const { posts } = makePosts(900);

describe('a page to share', () => {
  const app = startedApplication();
  const woven = new WovenNetworks(app);
  let made: Made;
  const at = (path: string, network = made.id): string =>
    `/api/v1/studies/${app.study}/networks/${network}/${path}`;
  const page = async (query: object = {}, network = made.id): Promise<string> => {
    const { text } = await app.api.get(at('page.html', network)).query(query).expect(200);
    return text;
  };
  const check = (query: object = {}): Promise<SharedPageCheck> =>
    app.get<SharedPageCheck>(`networks/${made.id}/page-check`, query);
  const heldIn = (html: string): HeldPage => {
    const [, data] = /<script type="application\/json" id="held">(.*?)<\/script>/s.exec(html)!;
    return JSON.parse(data) as HeldPage;
  };
  const name = (naming: object) => app.step('name-people', naming).expect(200);

  beforeAll(async () => {
    await app.take('tidepost.jsonl', postsAsJsonLines(posts));
    made = await woven.make({ what: 'accounts', kinds: ['reply', 'mention'] });
    await app.followed('portray-groups');
    await woven.arrange(made.id);
  }, 60_000);
  afterEach(() => name({ form: 'as they are' }));

  it('holds the nodes, the ties and the columns of the map, exactly', async () => {
    const { map } = heldIn(await page({ columns: 'messages|outDegree' }));
    expect(map.labels).toEqual(made.handles);
    expect(map.source).toEqual([...made.edges['source']]);
    expect(map.tieColumns['weight']).toEqual([...made.edges['weight']]);
    expect(map.columns['messages']).toEqual([...(made.nodes['messages'] as Float64Array)]);
    const { body } = await app.api
      .get(at('daily-tie-counts.arrow'))
      .buffer()
      .responseType('blob')
      .expect(200);
    const days = fromArrow(new Uint8Array(body as Buffer));
    const sum = (values: ArrayLike<number>): number => Array.from(values).reduce((a, b) => a + b, 0);
    expect(sum(map.days!.messages)).toBe(sum(days['messages'] as Uint32Array));
  });

  it('runs nothing but its own program, which its policy knows by a hash (CSP level 3), and loads nothing', async () => {
    const html = await page();
    const [, policy] = /Content-Security-Policy" content="([^"]*)"/.exec(html)!;
    const scripts = [...html.matchAll(/<script>(.*?)<\/script>/gs)].map(([, script]) => script);
    const styles = [...html.matchAll(/<style>(.*?)<\/style>/gs)].map(([, style]) => style);
    const hash = (text: string): string => `sha256-${createHash('sha256').update(text).digest('base64')}`;
    expect(scripts).toHaveLength(1);
    expect(policy).toContain(`script-src '${hash(scripts[0])}'`);
    expect(policy).toContain(`style-src '${hash(styles[0])}'`);
    expect(policy).toContain("default-src 'none'");
    expect(html).not.toMatch(/<(?:script|link|img|iframe)[^>]+(?:src|href)=/);
    expect(styles[0]).not.toMatch(/url\((?!data:)/);
  });

  it('takes texts as texts, whatever stands in them', async () => {
    const title = `</script><script>alert(1)</script><!-- "quoted" & שלום`;
    const html = await page({ title, author: '<b>', messages: 'texts' });
    expect(html.match(/<script/g)).toHaveLength(2);
    const held = heldIn(html);
    expect([held.title, held.author]).toEqual([title, '<b>']);
    expect(html).toContain('<title>&lt;/script&gt;&lt;script&gt;alert(1)');
  });

  it('holds of the messages what was chosen: nothing, numbers, or texts, whole or shortened', async () => {
    const none = heldIn(await page());
    expect([none.map.messages, Object.keys(none.map.tieColumns)]).toEqual([null, ['weight']]);
    const counts = heldIn(await page({ messages: 'counts' }));
    expect(Object.keys(counts.map.tieColumns)).toEqual(expect.arrayContaining(['replies', 'mentions']));
    const whole = heldIn(await page({ messages: 'texts' })).map;
    const texts = new Set(posts.map(({ text }) => text));
    expect(whole.messages!.all.length).toBeGreaterThan(100);
    for (const { text } of whole.messages!.all) expect(texts.has(text)).toBe(true);
    whole.messages!.behind.forEach((behind, tie) => {
      for (const message of behind)
        expect(whole.messages!.all[message].by).toBe(made.handles[whole.source[tie]]);
    });
    const short = heldIn(await page({ messages: 'texts', texts: 'short' })).map.messages!.all;
    expect(Math.max(...short.map(({ text }) => text.length))).toBeLessThanOrEqual(92);
    expect((await check({ messages: 'texts' })).texts).toBe(whole.messages!.all.length);
  });

  it('has nobody in it who has a pseudonym, and is as large as was said', async () => {
    await name({ form: 'numbers' });
    const html = await page({ columns: made.step ? 'messages' : '' });
    const gone = made.handles.filter((handle) => handle.includes('_'));
    expect(gone.filter((handle) => html.includes(handle))).toEqual([]);
    const said = await check({ columns: 'messages' });
    expect(said.leaks).toEqual({ leaks: [], total: 0 } satisfies Leaks);
    expect(said.bytes).toBe(Buffer.byteLength(html));
  });

  it('calls people in texts as on the map, and tells where they can be found all the same', async () => {
    await name({ form: 'words' });
    const { map } = heldIn(await page({ messages: 'texts' }));
    const called = new Set(map.labels);
    for (const { by } of map.messages!.all) expect(called.has(by)).toBe(true);
    const mentions = posts.filter(({ text }) => text.includes('@')).length;
    expect(mentions).toBeGreaterThan(100);
    const written = map.messages!.all.map(({ text }) => text).join('\n');
    expect(made.handles.filter((handle) => written.includes(`@${handle} `))).toEqual([]);
    expect([...called].some((one) => written.includes(`@${one}`))).toBe(true);
    const { leaks } = await check({ title: `About ${made.handles.find((one) => one.includes('_'))}` });
    expect(leaks.leaks.map(({ place }) => place)).toContain('title');
  });

  it('says how its own network was made, and nothing of others', async () => {
    const other = await woven.make({ what: 'together', things: 'hashtag', atLeast: 2 });
    await app.step('compute-column', { network: other.id, name: 'odd', formula: '3 * degree' }).expect(200);
    const { methods } = heldIn(await page());
    expect(methods[0]).toContain('tidepost.jsonl');
    expect(methods[1]).toMatch(/^Accounts were tied when /);
    expect(methods.join(' ')).not.toMatch(/odd|hashtags? .*same message/i);
    expect(methods.join(' ').match(/was arranged/g)).toHaveLength(1);
    const change = { network: made.id, name: 'Smaller', changes: [{ what: 'without-nodes', nodes: [0] }] };
    const smaller = (await app.step('change-network', change).expect(200)).body as Step;
    await app.step('draw-sample', { name: 'S', from: { what: 'filter', filter: {} }, most: 2 }).expect(200);
    const ofSmaller = await app.get<Methods>(`networks/${String(smaller.result?.['network'])}/methods`);
    expect(ofSmaller.paragraphs).toHaveLength(3);
    expect(ofSmaller.paragraphs[1]).toContain(smaller.sentence);
    expect(ofSmaller.paragraphs[1].join(' ')).toContain(methods[1].split('. ')[0]);
    // What is told of the network itself is the same, with the works that it cites.
    const told = await app.get<Methods>(`networks/${made.id}/methods`);
    expect(told.paragraphs.map((sentences) => sentences.join(' '))).toEqual(methods);
    const short = await app.get<Methods>(`networks/${made.id}/methods`, { length: 'short' });
    expect(short.paragraphs.flat().join(' ')).not.toMatch(/was arranged|portrayed/);
    expect(short.paragraphs[1][0]).toBe(told.paragraphs[1][0]);
    expect(told.references.map(({ id }) => id)).toEqual(
      expect.arrayContaining(['blondel2008', 'brandes2001', 'noack2009']),
    );
  });

  it('can be of a plate, and is refused for a map that was never arranged', async () => {
    const { body } = await app.step('keep-plate', { ...PLATE, network: made.id, title: 'Kept' }).expect(200);
    const plate = Number((body as Step).result?.['plate']);
    expect(heldIn(await page({ plate })).title).toBe('Kept');
    await app.api.get(at('page.html')).query({ plate: 999 }).expect(404);
    const other = await woven.make({ what: 'accounts', kinds: ['repost'] });
    await app.api.get(at('page.html', other.id)).expect(409);
    await app.api.get(at('page-check', other.id)).expect(409);
  });
});
