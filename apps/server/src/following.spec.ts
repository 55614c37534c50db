import {
  THROUGH_TIME,
  type FollowedNodes,
  type Following,
  type MessagePage,
  type Moment,
  type Network,
  type OverTime,
  type SavedMap,
  type Step,
} from '@pebble/contract';
import { startedApplication } from './testing/application';

const MONTHS = ['01', '02', '03', '04'] as const;

/** Who addresses whom in a month: within each group everybody does everybody else, each in a post of its own. */
type Groups = readonly (readonly string[])[];

const people = (letter: string, from: number, count: number): string[] =>
  Array.from({ length: count }, (_, i) => `${letter}${from + i}`);

/** Two groups; one falls apart in March, its smaller part ends; another begins in February and goes into the first one in April. */
const PLANTED: readonly Groups[] = [
  [people('a', 0, 8), people('b', 0, 10)],
  [people('a', 0, 9), people('b', 0, 10), people('c', 0, 5)],
  [people('a', 0, 9), people('b', 0, 6), people('b', 6, 4), people('c', 0, 5)],
  [[...people('a', 0, 9), ...people('c', 0, 5)], people('b', 0, 6)],
];
/** Posts of each month with a hashtag that rises, one that falls, and one that one account writes alone. */
const TAGS: readonly (readonly [tag: string, counts: readonly number[]])[] = [
  ['rising', [2, 8, 25, 45]],
  ['falling', [45, 25, 8, 2]],
];
const LOUD = [0, 5, 15, 30];

function posts(): string {
  const rows = ['id,author,time,text'];
  PLANTED.forEach((groups, m) => {
    let day = 0;
    const add = (author: string, text: string): void => {
      const date = `2031-${MONTHS[m]}-${String(1 + (day++ % 27)).padStart(2, '0')}T10:00:00Z`;
      rows.push(`p${rows.length},${author},${date},${text}`);
    };
    const pairs = groups.flatMap((group) =>
      group.flatMap((author) => group.filter((one) => one !== author).map((one) => [author, one] as const)),
    );
    pairs.forEach(([author, one], i) => {
      const tags = TAGS.filter(([, counts]) => i < counts[m]).map(([tag]) => ` #${tag}`);
      add(author, `@${one} well${tags.join('')}`);
    });
    for (let i = 0; i < LOUD[m]; i++) add('a0', `@a${1 + (i % 7)} once more #loud`);
  });
  return rows.join('\n');
}

describe('groups through time', () => {
  const app = startedApplication();
  let whole: string;
  let slices: Network[];
  const following = () => app.get<Following | null>(`networks/${whole}/following`);
  const nodes = (query: string) => app.get<FollowedNodes>(`networks/${whole}/followed-nodes?${query}`);
  const overTime = (query: string) => app.get<OverTime>(`networks/${whole}/over-time?${query}`);
  const read = async (asked: object): Promise<MessagePage> =>
    (await app.api.post(`/api/v1/studies/${app.study}/set-messages`).send(asked).expect(200))
      .body as MessagePage;
  const settled = async (done: () => Promise<boolean>): Promise<void> => {
    for (let i = 0; i < 600 && !(await done()); i++) await new Promise((next) => setTimeout(next, 50));
  };

  beforeAll(async () => {
    await app.take('months.csv', posts());
    const weave = { what: 'accounts', kinds: ['mention'] };
    const made = (await app.step('weave-slices', { name: 'Months', weave, by: 'month' }).expect(200))
      .body as Step;
    whole = String(made.result?.['network']);
    // Measures, arrangement and what follows them come by themselves.
    await settled(async () => (await following()) !== null);
    await settled(async () => THROUGH_TIME in (await app.get<Network>(`networks/${whole}`)).titles);
    const all = await app.list<Network>('networks');
    slices = all.filter((one) => one.slice !== null).sort((a, b) => a.slice!.place - b.slice!.place);
  }, 120_000);

  it('follow by themselves once slices are woven: births, joins, splits, ends', async () => {
    const found = (await following())!;
    expect(found.outOfDate).toBe('');
    expect(found.slices.map(({ network, nodes: count, followed }) => [network, count, followed])).toEqual(
      slices.map(({ id }, m) => [id, PLANTED[m].flat().length, PLANTED[m].flat().length]),
    );
    const told = found.groups.map(
      ({ slice, line, nodes: count, happening }) => `${slice}:${line} ${happening} ${count}`,
    );
    expect(told).toEqual([
      '0:1 begins 8',
      '0:2 begins 10',
      '1:1 stays 9',
      '1:2 stays 10',
      '1:3 begins 5',
      '2:1 stays 9',
      '2:2 shrinks 6',
      '2:3 stays 5',
      '2:4 begins 4',
      '3:1 grows 14',
      '3:2 stays 6',
    ]);
    expect(found.lines.map(({ line, joined, hasEnded }) => [line, joined, hasEnded])).toEqual([
      ['1', null, false],
      ['2', null, false],
      ['3', '1', true],
      ['4', null, false],
    ]);
    expect(found.groups.find(({ slice, line }) => slice === 2 && line === '4')?.splitFrom).toBe('2');
    expect(found.groups.find(({ slice, line }) => slice === 3 && line === '1')?.joinedBy).toEqual(['3']);
    expect(found.bands.filter(({ slice }) => slice === 2)).toEqual([
      { slice: 2, from: '1', to: '1', nodes: 9 },
      { slice: 2, from: '2', to: '2', nodes: 6 },
      { slice: 2, from: '3', to: '1', nodes: 5 },
    ]);
    // The four that split off are not there in April at all.
    expect(found.groups.find(({ slice, line }) => slice === 2 && line === '4')?.gone).toBe(4);
  });

  it('open the accounts behind a group and a band, and their messages', async () => {
    const all = await nodes('slice=2&line=2');
    expect(all.nodes.map(({ label }) => label).sort()).toEqual(people('b', 0, 6));
    const went = await nodes('slice=2&line=3&to=1');
    expect(went.nodes.map(({ label }) => label).sort()).toEqual(people('c', 0, 5));
    expect((await nodes('slice=2&line=4&gone=true')).total).toBe(4);
    expect((await nodes('slice=9&line=1')).total).toBe(0);
    const set = {
      what: 'kept',
      network: slices[3].id,
      column: THROUGH_TIME,
      group: '1',
      before: { network: slices[2].id, group: '3' },
    };
    const { total, messages } = await read({ set, limit: 200 });
    // Five accounts, each to thirteen others.
    expect(total).toBe(5 * 13);
    expect([...new Set(messages.map(({ author }) => author.handle))].sort()).toEqual(people('c', 0, 5));
  });

  it('have one title in whole and slices, by what is written or found', async () => {
    const titlesOf = async (id: string) => (await app.get<Network>(`networks/${id}`)).titles[THROUGH_TIME];
    const before = await titlesOf(whole);
    expect(Object.keys(before)).toEqual(expect.arrayContaining(['1', '2', '3']));
    await app
      .step('note-group', { network: whole, column: THROUGH_TIME, group: '2', notes: { title: 'Bees' } })
      .expect(200);
    for (const { id } of slices) expect((await titlesOf(id))['2']).toBe('Bees');
  });

  it('colour the maps of slices, but for one whose colours were chosen', async () => {
    const colourOf = async (id: string) => (await app.get<SavedMap>(`networks/${id}/map`)).description.colour;
    for (const { id } of slices) expect((await colourOf(id)).column).toBe(THROUGH_TIME);
    expect((await colourOf(whole)).column).toBe('community');
    const [first, second] = slices;
    for (const [{ id }, chosen] of [
      [first, {}],
      [second, { '1': '#112233' }],
    ] as const) {
      const { description } = await app.get<SavedMap>(`networks/${id}/map`);
      const own = { ...description, colour: { ...description.colour, column: 'community', chosen } };
      await app.step('describe-map', { network: id, description: own }).expect(200);
    }
    await app.step('follow-groups', { network: whole, column: 'community', settings: {} }).expect(200);
    expect((await colourOf(first.id)).column).toBe(THROUGH_TIME);
    expect((await colourOf(second.id)).column).toBe('community');
  });

  it('are told to be out of date when groups are found anew, and can be followed by other settings', async () => {
    await app.step('measure-network', { network: slices[0].id, settings: { resolution: 40 } }).expect(200);
    await settled(async () => (await following())!.outOfDate !== '');
    expect((await following())!.outOfDate).toContain('the groups of the slices are others');
    await app.step('measure-network', { network: slices[0].id, settings: {} }).expect(200);
    await settled(async () => (await following())!.outOfDate === '');
    const { body } = await app
      .step('follow-groups', { network: whole, column: 'community', settings: { threshold: 0.9, least: 6 } })
      .expect(200);
    expect((body as Step).sentence).toContain('Jaccard of at least 0.9, groups of at least 6 nodes');
    expect((await following())!.lines.map(({ nodes: count }) => count)).toEqual(
      [18, 20, 12, 14, 8].sort((a, b) => b - a),
    );
  });

  it('are refused with a reason', async () => {
    const refused = async (parameters: object): Promise<string> =>
      (
        (await app.step('follow-groups', { network: whole, column: 'community', ...parameters }).expect(422))
          .body as { detail: string }
      ).detail;
    expect(await refused({ network: slices[0].id })).toContain('at least two slices');
    expect(await refused({ column: 'nothing' })).toContain('no column “nothing”');
    expect(await refused({ column: THROUGH_TIME })).toContain('followed already');
  });

  it('lead, rise and fall: what one account alone writes makes no trend', async () => {
    const found = await overTime('thing=hashtag');
    expect(found.rising.map(({ label, counts }) => [label, counts])).toEqual([['#rising', TAGS[0][1]]]);
    expect(found.falling.map(({ label, counts }) => [label, counts])).toEqual([['#falling', TAGS[1][1]]]);
    expect(found).toMatchObject({ tested: 2, clear: 2, tooFew: 1 });
    expect(found.leading.find(({ label }) => label === '#loud')).toMatchObject({ counts: LOUD, authors: 1 });
    for (const [s, count] of TAGS[0][1].entries()) {
      const set = { what: 'network', network: slices[s].id };
      expect((await read({ set, thing: 'hashtag', label: '#rising' })).total).toBe(count);
    }
  });

  it('count authors and addressed accounts, each with its messages', async () => {
    const authors = await overTime('thing=author');
    const loud = authors.leading.find(({ label }) => label === 'a0')!;
    for (const [s, count] of loud.counts.entries())
      expect((await read({ set: { what: 'network', network: slices[s].id }, author: 'a0' })).total).toBe(
        count,
      );
    const addressed = await overTime('thing=addressed');
    const one = addressed.leading.find(({ label }) => label === 'a1')!;
    for (const [s, node] of one.nodes!.entries()) {
      const behind = await app.get<MessagePage>(
        `networks/${slices[s].id}/group-messages?column=community&group=&way=in&node=${node}`,
      );
      expect(behind.total).toBe(one.counts[s]);
    }
    // Thirteen others address it, and the loud one every seventh time.
    expect(one.counts[3]).toBe(13 + Math.ceil(LOUD[3] / 7));
  });

  it('have moments of the researcher, which are steps', async () => {
    const step = (await app.step('mark-moment', { time: Date.UTC(2031, 2, 1), name: 'The fire' }).expect(200))
      .body as Step;
    expect(step.sentence).toBe('The moment “The fire” was marked on 1 March 2031.');
    await app.step('mark-moment', { time: Date.UTC(2031, 1, 1), name: 'The vote' }).expect(200);
    const marked = await app.get<Moment[]>('moments');
    expect(marked.map(({ name }) => name)).toEqual(['The vote', 'The fire']);
    await app.step('forget-moment', { id: marked[0].id, name: 'The vote' }).expect(200);
    expect(await app.get<Moment[]>('moments')).toHaveLength(1);
    await app.step('mark-moment', { time: 0, name: ' ' }).expect(400);
  });
});
