import { randomUUID } from 'node:crypto';
import { Weave, type Message, type Network, type TidySort, type Verdict } from '@pebble/contract';
import { hashtagKey, numbersOf, Random } from '@pebble/core';
import { addDecisions } from '../../storage/decisions';
import { findNetwork } from '../../storage/networks';
import { connect, type Store } from '../../storage/open';
import { placeFiles, StagedFiles } from '../../storage/files/stagedFiles';
import { readTable } from '../../storage/files/tables';
import { weave as weaveStep } from '../../operations/weave/weave';
import type { StepContext } from '../../operations/step';
import { buildThreads, TestApplication } from '../../testing/application';
import { estimateWeave } from '../estimateWeave';
import { evidenceOf } from '../evidenceOf';

const DAY = 86_400_000;
const PEOPLE = ['ada', 'bo', 'cem', 'dot', 'eli', 'fay', 'gus', 'hal'];
const TAGS = ['lamp', 'Moth', 'quay', 'night', 'tide', 'amber'];

/** Made-up posts in which everything happens: answers, several mentions, reposts, repeats, the same texts within seconds. */
function posts(chance: Random, count: number): string {
  const pick = <T>(from: readonly T[]): T => from[chance.below(from.length)];
  const lines = Array.from({ length: count }, (_, i) => {
    const author = pick(PEOPLE);
    const kind =
      i > 0 && chance.below(5) === 0 ? 'repost' : i > 0 && chance.below(3) === 0 ? 'reply' : 'post';
    const words = Array.from({ length: 1 + chance.below(7) }, () => {
      const what = chance.below(10);
      if (what < 3) return `@${pick(PEOPLE)}`;
      if (what < 7) return `#${pick(TAGS)}`;
      return pick([
        'walk',
        'lantern',
        'harbour',
        'ferry',
        'https://tide.example/a',
        'https://tide.example/b',
      ]);
    });
    const time = new Date(Date.UTC(2026, 2, 1 + chance.below(6), 10, 0, chance.below(90))).toISOString();
    const parent = kind === 'post' ? '' : `p${chance.below(i)}`;
    return `p${i},${author},"${words.join(' ')}",${time},${kind},${parent}`;
  });
  return ['id,author,text,created_at,kind,in_reply_to', ...lines].join('\n');
}

/** Some of what can be chosen in a sentence, drawn at random. */
function anyWeave(chance: Random, source: number): object {
  const pick = <T>(from: readonly T[]): T => from[chance.below(from.length)];
  const often = (percent: number): boolean => chance.below(100) < percent;
  const taken = {
    ...(often(30) ? { from: Date.UTC(2026, 2, 2), until: Date.UTC(2026, 2, 5) } : {}),
    ...(often(20)
      ? { only: { name: 'reposts not', filter: { kind: pick(['post', 'reply', 'repost']) } } }
      : {}),
    ...(often(20) ? { except: { name: 'ada', filter: { author: 'ada' } } } : {}),
    ...(often(10) ? { withoutSources: [{ id: source + 99, name: 'none' }] } : {}),
  };
  const after = { largestOnly: often(15), neighboursAtLeast: often(15) ? 2 : null };
  const things = {
    things: pick(['hashtag', 'hashtag', 'mention', 'link', 'domain', 'word']),
    mostInOne: pick([2, 3, 4, 30]),
    reposts: often(70),
    usedAtLeast: pick([1, 1, 2]),
    without: often(20) ? ['#lamp'] : [],
  };
  switch (
    pick([
      'accounts',
      'accounts',
      'accounts',
      'together',
      'together',
      'shared',
      'two-mode',
      'in-step',
      'alike',
    ])
  ) {
    case 'accounts':
      return {
        what: 'accounts',
        kinds: pick([
          ['mention'],
          ['reply'],
          ['reply', 'mention'],
          ['reply', 'mention', 'repost'],
          ['repost'],
        ]),
        atLeast: pick([1, 1, 2, 3]),
        direction: pick(['kept', 'kept', 'sum', 'least', 'greatest', 'mutual']),
        mostReceivers: often(30) ? pick([1, 2, 3]) : null,
        share: pick(['whole', 'whole', 'divided']),
        selfTies: often(50),
        repostMentions: often(60),
        isolates: often(50),
        ...taken,
        ...after,
      };
    case 'together':
      return {
        what: 'together',
        unit: pick(['message', 'near', 'thread', 'author', 'author-day']),
        within: pick([1, 2, 5]),
        weight: pick(['units', 'authors']),
        scale: pick(['count', 'count', 'newman', 'jaccard', 'cosine']),
        atLeast: pick([1, 2]),
        ...things,
        ...taken,
        ...after,
      };
    case 'shared':
      return {
        what: 'shared',
        scale: pick(['count', 'jaccard']),
        atLeast: pick([1, 2]),
        ...things,
        ...taken,
        ...after,
      };
    case 'two-mode':
      return { what: 'two-mode', atLeast: pick([1, 2]), ...things, ...taken, ...after };
    case 'in-step':
      return {
        what: 'in-step',
        same: pick(['text', 'link', 'hashtags']),
        seconds: pick([5, 30]),
        atLeast: pick([1, 2]),
        reposts: often(50),
        ...taken,
        ...after,
      };
    default:
      return {
        what: 'alike',
        nodes: pick(['message', 'account']),
        likeness: pick([0, 0.5]),
        atLeast: 2,
        ...taken,
        ...after,
      };
  }
}

describe('evidence is the weight, whatever was chosen, filtered and tidied', () => {
  const app = new TestApplication();
  let store: Store;
  let source = 0;
  let isTidied = false;

  beforeAll(async () => {
    buildThreads();
    await app.begin();
    const step = await app.take('posts.csv', posts(new Random(3), 260));
    source = Number(step.result?.['source']);
    store = connect(app.studyFolder);
  }, 120_000);
  afterAll(async () => {
    await store.close();
    await app.end();
  });

  const context = (): StepContext => ({
    store,
    step: 1,
    limits: { mostRows: 1e6 },
    threads: { intake: '', paths: '' },
    now: '2026-04-01T00:00:00Z',
    newId: randomUUID,
    files: new StagedFiles(store, 1),
    shared: () => Promise.reject(new Error('Nothing is shared here.')),
  });
  const decide = (sort: TidySort, key: string, verdict: Verdict): Promise<number[]> =>
    addDecisions(store, 1, sort, [{ key, verdict }]);

  /** What the weight of a tie is by its sentence, computed from the messages that are listed behind it. */
  function bySentence(weave: Weave, behind: readonly Message[], ends: readonly string[]): number | null {
    const name = (handle: string): string => (isTidied && handle === 'bo' ? 'ada' : handle);
    const tag = (key: string): string => (isTidied && key === 'moth' ? 'tide' : key);
    const authors = new Set(behind.map(({ author }) => name(author.handle))).size;
    const day = (time: number | null): number => Math.floor((time ?? 0) / DAY);
    switch (weave.what) {
      case 'accounts':
      case 'two-mode':
        return behind.length;
      case 'together':
        if (weave.weight === 'authors' && weave.scale === 'count') return authors;
        if (weave.unit === 'message' || weave.unit === 'near') return behind.length;
        if (weave.unit === 'author') return authors;
        if (weave.unit === 'author-day')
          return new Set(behind.map(({ author, time }) => `${name(author.handle)} ${day(time)}`)).size;
        return null;
      case 'shared': {
        // Of messages with very many, what else they hold does not count, and cannot be told from the list alone.
        if (weave.things !== 'hashtag' || weave.mostInOne < 30 || weave.usedAtLeast > 1) return null;
        const used = ends.map(
          (end) =>
            new Set(
              behind
                .filter(({ author }) => name(author.handle) === end.replace('@', ''))
                .flatMap(({ spans }) => spans)
                .filter(({ what }) => what === 'hashtag')
                .map(({ key }) => tag(hashtagKey(key))),
            ),
        );
        const left = new Set(weave.without.map((one) => hashtagKey(one.slice(1))));
        if (isTidied) left.add('amber');
        return [...used[0]].filter((one) => used[1].has(one) && !left.has(one)).length;
      }
      case 'in-step':
        return weave.same === 'text' ? new Set(behind.map(({ text }) => text.toLowerCase())).size : null;
      case 'alike':
        return weave.nodes === 'message' ? 2 : null;
      default:
        return null;
    }
  }

  async function check(recipe: object): Promise<number> {
    const weave = Weave.parse(recipe);
    let network: Network;
    try {
      const given = context();
      const made = await weaveStep.run(given, { name: 'Test', weave }, () => undefined, undefined);
      await given.files.note();
      await placeFiles(store);
      network = (await findNetwork(store, made.network))!;
    } catch (error) {
      if ((error as Error).message.startsWith('This sentence gives no')) return 0;
      throw error;
    }
    const evidence = (await evidenceOf(store, network))!;
    const edges = readTable(store.folder, network.id, 'edges');
    const handles = readTable(store.folder, network.id, 'nodes')['handle'] as readonly string[];
    const [from, to] = [edges['source'], edges['target']] as Uint32Array[];
    const counted =
      'messages' in edges
        ? 'messages'
        : 'scale' in weave && (weave.scale !== 'count' || !('weight' in weave) || weave.weight === 'units')
          ? 'shared'
          : 'weight';
    const weight = numbersOf(edges, counted in edges ? counted : 'weight');
    const dailyTieCounts = await evidence.dailyTieCounts();
    const inMoments = new Float64Array(from.length);
    dailyTieCounts?.edge.forEach((e, i) => (inMoments[e] += dailyTieCounts.messages[i]));
    const all = new Set<number>();
    for (let e = 0; e < from.length; e++) {
      const tie = { source: from[e], target: to[e] };
      const { total, messages } = await evidence.messages({ ties: [tie] }, { offset: 0, limit: 1000 });
      expect(messages).toHaveLength(total);
      expect(total).toBeGreaterThan(0);
      const expected = bySentence(weave, messages, [handles[tie.source], handles[tie.target]]);
      if (expected !== null && !(weave.what === 'alike')) expect(weight[e]).toBe(expected);
      if (weave.what === 'alike' && expected !== null) expect(total).toBe(expected);
      expect(inMoments[e]).toBe(total);
      for (const { id } of messages) all.add(id);
      if (e % 7 === 0) expect(await evidence.tiesOf(messages[0].id)).toContainEqual(tie);
    }
    // Together behind all ties, by the other way of finding them.
    const ties = Array.from(from, (a, e) => ({ source: a, target: to[e] }));
    expect((await evidence.messages({ ties }, { offset: 0, limit: 0 })).total).toBe(all.size);
    const size = await estimateWeave(store, weave);
    expect([size.nodes, size.edges, size.messages]).toEqual([network.nodes, from.length, all.size]);
    expect(network.messages).toBe(all.size);
    return from.length;
  }

  async function tryMany(seed: number, times: number): Promise<number> {
    const chance = new Random(seed);
    let ties = 0;
    for (let i = 0; i < times; i++) {
      const recipe = anyWeave(chance, source);
      try {
        ties += await check(recipe);
      } catch (error) {
        throw new Error(`${JSON.stringify(recipe)}: ${(error as Error).message}`);
      }
    }
    return ties;
  }

  it('before anything is tidied', async () => {
    expect(await tryMany(1, 120)).toBeGreaterThan(500);
  }, 240_000);

  it('when accounts and things were merged, dropped and called something else', async () => {
    await decide('account', 'bo', { verdict: 'merge', into: 'ada' });
    await decide('account', 'cem', { verdict: 'drop' });
    await decide('hashtag', 'moth', { verdict: 'merge', into: 'tide' });
    await decide('hashtag', 'amber', { verdict: 'drop' });
    isTidied = true;
    expect(await tryMany(2, 120)).toBeGreaterThan(400);
  }, 240_000);
});
