import { createHash } from 'node:crypto';
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fromBufferPromise } from 'yauzl';
import { buffer } from 'node:stream/consumers';
import type { Plate, ReportCheck } from '@pebble/contract';
import { makePosts, postsAsJsonLines } from '@pebble/standins';
import { startedApplication } from './testing/application';
import { PLATE } from './testing/networkSteps';
import { WovenNetworks, type Made } from './testing/wovenNetworks';

const { posts } = makePosts(900);

describe('a report', () => {
  const app = startedApplication();
  const woven = new WovenNetworks(app);
  let made: Made;
  let other: Made;
  let plates: Plate[];
  const report = (format: string, query: object = {}) =>
    app.api.get(`/api/v1/studies/${app.study}/report.${format}`).query({ network: made.id, ...query });
  const html = async (query: object = {}): Promise<string> => (await report('html', query).expect(200)).text;
  const check = (query: object = {}): Promise<ReportCheck> =>
    app.get<ReportCheck>('report-check', { network: made.id, ...query });
  const bytes = async (format: string, query: object = {}): Promise<Buffer> => {
    const { body } = await report(format, query).buffer().responseType('blob').expect(200);
    return body as Buffer;
  };
  const textOf = (page: string): string => page.replace(/<[^>]+>/g, ' ').replace(/\s+/g, ' ');

  beforeAll(async () => {
    await app.take('tidepost.jsonl', postsAsJsonLines(posts));
    made = await woven.make({ what: 'accounts', kinds: ['reply', 'mention'] });
    await app.followed('portray-groups');
    other = await woven.make({ what: 'accounts', kinds: ['repost'] });
    for (const { id } of [made, other]) await woven.arrange(id);
    await app
      .step('keep-plate', { ...PLATE, network: made.id, title: 'Who answers', note: 'First.\n\nSecond.' })
      .expect(200);
    await app.step('keep-plate', { ...PLATE, network: other.id, title: 'Who passes on' }).expect(200);
    plates = await app.get<Plate[]>('plates');
  }, 60_000);
  afterEach(() => app.step('name-people', { form: 'as they are' }).expect(200));

  it('of a map has the material, the map, the groups, the numbers, how it was made, its limits and references', async () => {
    const { headings, figures, tables, problem } = await check();
    expect(headings).toEqual([
      'Material',
      'The map',
      'The groups',
      'In numbers',
      'How it was made',
      'What this cannot tell',
      'References',
      'How to cite this',
    ]);
    expect([figures, tables, problem]).toEqual([1, 3, null]);
    const page = await html({ title: 'The two towns', author: 'A. Reader', licence: 'CC BY 4.0' });
    expect(page).toContain('<h1 dir="auto">The two towns</h1>');
    expect(textOf(page)).toContain(`${posts.length} records of 1 source were kept`);
    expect(textOf(page)).toContain('A. Reader (');
    expect(textOf(page)).toContain('Licence: CC BY 4.0');
    expect(textOf(page)).toContain('Louvain');
    expect(textOf(page)).toContain('Blondel, V. D.');
  });

  it('names the nodes that lead, by the number of their size, with the values of the tables', async () => {
    const page = await html({ most: 3 });
    const [, table] = /<caption>Table \d+\. The first of [^<]*<\/caption>(.*?)<\/table>/s.exec(page)!;
    const rows = [...table.matchAll(/<tr>(.*?)<\/tr>/g)]
      .slice(1)
      .map(([, row]) => textOf(row).trim().split(' '));
    const edges = made.edges;
    const inDegree = made.handles.map(
      (_, v) => new Set([...edges['source']].filter((a, e) => edges['target'][e] === v && a !== v)).size,
    );
    const first = made.handles
      .map((handle, v) => ({ handle, value: inDegree[v], v }))
      .sort((a, b) => b.value - a.value || a.v - b.v)
      .slice(0, 3);
    expect(rows.map(([, handle]) => handle)).toEqual(first.map(({ handle }) => handle));
    expect(rows.map((row) => row.includes(String(first[rows.indexOf(row)].value)))).toEqual([
      true,
      true,
      true,
    ]);
  });

  it('of plates has each under its title with its note, and the methods of their networks once', async () => {
    const page = await html({ plates: plates.map(({ id }) => id).join('|') });
    expect(page.match(/<figure>/g)).toHaveLength(2);
    expect(page).toContain(
      '<h3 dir="auto">Who answers</h3>\n<p dir="auto">First.</p>\n<p dir="auto">Second.</p>',
    );
    expect(page).toContain('<h3 dir="auto">Who passes on</h3>');
    expect(textOf(page).match(/were imported from/g)).toHaveLength(1);
    expect(textOf(page).match(/resolution 1, best of 5 runs/g)).toHaveLength(2);
  });

  it('leaves out what is not wanted', async () => {
    const none = { portraits: 'false', tables: 'false', methods: 'none', limits: 'false' };
    expect((await check(none)).headings).toEqual(['Material', 'The map', 'How to cite this']);
  });

  it('runs nothing and loads nothing', async () => {
    const page = await html();
    const [, policy] = /Content-Security-Policy" content="([^"]*)"/.exec(page)!;
    const [, style] = /<style>(.*?)<\/style>/s.exec(page)!;
    expect(policy).toContain(`style-src 'sha256-${createHash('sha256').update(style).digest('base64')}'`);
    expect(policy).not.toContain('script-src');
    expect(page).not.toMatch(/<script|(?:src|href)="(?!data:)/);
  });

  it('as Markdown comes with its pictures, as PNG and SVG, and as DOCX in one file', async () => {
    const zip = await fromBufferPromise(await bytes('md'));
    const files = new Map<string, Buffer>();
    for await (const entry of zip.eachEntry())
      files.set(entry.fileName, await buffer(await zip.openReadStreamPromise(entry)));
    expect([...files.keys()].sort()).toEqual(['figures/figure-1.png', 'figures/figure-1.svg', 'report.md']);
    expect(files.get('report.md')!.toString()).toContain('](figures/figure-1.png)');
    expect(files.get('figures/figure-1.svg')!.toString()).toMatch(/^<svg /);
    const docx = await bytes('docx');
    expect(docx.subarray(0, 2).toString()).toBe('PK');
    writeFileSync(join(app.folder, 'report.docx'), docx);
  });

  it('calls people by their pseudonyms everywhere, and is refused for those who have none yet', async () => {
    await app.step('name-people', { form: 'words' }).expect(200);
    const { leaks, problem } = await check({ plates: plates.map(({ id }) => id).join('|') });
    expect([leaks.total, problem]).toEqual([0, null]);
    const page = await html();
    for (const handle of made.handles.slice(0, 200)) expect(page).not.toContain(handle);
    const planted = await check({ title: `About @${made.handles[0]}` });
    expect(planted.leaks.leaks).toMatchObject([
      { place: 'title', kind: 'handle' },
      { place: 'How to cite this' },
    ]);

    await app.take('late.csv', 'author,text\nlatecomer77,@somebody_else hello\n');
    const late = await woven.make({ what: 'accounts', kinds: ['reply', 'mention'] });
    await woven.arrange(late.id);
    await report('html', { network: late.id }).expect(409);
    expect((await check({ network: late.id })).problem).toMatch(/came after pseudonyms were given/);
  });

  it('says what is not there: a map that was never arranged, a plate of another study, numbers that are none', async () => {
    const { id } = await woven.make({ what: 'accounts', kinds: ['reply'] });
    expect((await check({ network: id })).problem).toMatch(/was never arranged/);
    await report('docx', { network: id }).expect(409);
    await report('html', { plates: '4711' }).expect(404);
    await report('html', { plates: '1;2' }).expect(400);
    await report('html', { network: 'none' }).expect(404);
  });
});
