import {
  MessageKind,
  PortraitThing,
  Scorer,
  type Network,
  type PortraitBody,
  type PortraitSettings,
} from '@pebble/contract';
import {
  activityOf,
  graphOf,
  isNumbered,
  MessageGroups,
  nearestMessages,
  nodeLabels,
  nodeWords,
  wovenAs,
  numbersOf,
  portraitSentence,
  Random,
  standingIn,
  suggestTitles,
  typicalThings,
  type GroupThings,
  type Standing,
  type TableColumns,
} from '@pebble/core';
import { readTable } from '../storage/files/tables';
import type { Store } from '../storage/open';
import type { Progress } from '../threads/progress';
import { evidenceOf } from '../weaving/evidenceOf';
import type { TidyAccounts } from '../weaving/tidied';
import { accountsNow, answersTo, messagesIn } from './messagesOf';
import { toldGroups, type ToldGroups } from './groupsOf';
import { readPortraitThings } from './portraitThings';

/** Terms of each list, messages of each list, nodes of a list. */
const TERMS = 40;
const MESSAGES = 5;
const NODES = 8;
/** Typical terms by which messages are found that stand for a group. */
const TERMS_OF_NEAREST = 25;

export interface DrawnPortraits {
  readonly bodies: readonly PortraitBody[];
  readonly messages: number;
  readonly further: ToldGroups['further'];
}

/** Finds what is known of the groups of a column. */
export async function drawPortraits(
  store: Store,
  network: Network,
  column: string,
  settings: PortraitSettings,
  progress: Progress,
): Promise<DrawnPortraits> {
  const nodes = readTable(store.folder, network.id, 'nodes');
  const told = toldGroups(nodes[column], settings.most);
  const count = told.names.length;
  progress('Ties between the groups', null);
  const standing = standingIn(
    graphOf(network.nodes, readTable(store.folder, network.id, 'edges')),
    told.of,
    count,
    network.directed,
  );
  progress('Messages of the groups', null);
  // One more for all nodes that are not told of: they are the rest that groups are compared with.
  const evidence = await evidenceOf(store, network);
  const groups = evidence?.grouped(told.of, count + 1) ?? new MessageGroups(count + 1, 0);
  const spoken = await thingsIn(store, groups, settings, progress);
  progress('What is typical', null);
  const facts = messageFacts(store, groups, await accountsNow(store));
  const activity = activityOf(groups, facts.times);
  const labels = nodeLabels(nodes);
  const [nodeWord] = nodeWords(wovenAs(network));
  const leader = (g: number): string =>
    labels[standing[g].addressed[0]?.node ?? told.of.findIndex((own) => own === g)];
  const titles = suggestTitles(
    told.names.map((name, g) => ({
      // Computed groups have numbers.
      name: isNumbered(name) ? null : name,
      hashtags: spoken.things.hashtag[g].typical,
      words: spoken.things.word[g].typical,
      leader: leader(g),
    })),
  );
  const bodies = told.names.map((group, g): PortraitBody => {
    const { messages, authors } = { messages: groups.sizes[g], authors: facts.authors[g].size };
    const known = {
      ...standing[g],
      ...activity[g],
      messages,
      authors,
      sure: sureness(nodes, column, told.of, g),
    };
    const sentence = portraitSentence(known, {
      nodeWord,
      nodes: network.nodes,
      messages: groups.all,
      nameOf: (node) => labels[node],
      directed: network.directed,
    });
    return {
      ...known,
      ...titles[g],
      group,
      sentence,
      active: mostActive(nodes, told.of, g),
      things: spoken.of(g),
      nearest: spoken.nearest[g].map(({ message, terms }) => ({ message, terms })),
      kinds: MessageKind.options
        .map((kind) => ({
          kind,
          messages: facts.kinds[g].get(kind) ?? 0,
          elsewhere: (facts.allKinds.get(kind) ?? 0) - (facts.kinds[g].get(kind) ?? 0),
        }))
        .filter((one) => one.messages + one.elsewhere > 0),
      answers: facts.answers[g],
      scores: facts.scores(g),
      reposted: facts.reposted[g],
      answered: facts.answered[g],
      sample: sampleOf(groups, g, settings.seed),
    };
  });
  return { bodies, messages: groups.all, further: told.further };
}

/** What stands in the messages of groups, and which messages stand for them. */
interface Spoken {
  readonly things: Readonly<Record<PortraitThing, readonly GroupThings[]>>;
  readonly nearest: ReturnType<typeof nearestMessages>;
  of(group: number): PortraitBody['things'];
}

async function thingsIn(
  store: Store,
  groups: MessageGroups,
  { leastAuthors }: PortraitSettings,
  progress: Progress,
): Promise<Spoken> {
  const things = {} as Record<PortraitThing, readonly GroupThings[]>;
  let nearest: ReturnType<typeof nearestMessages> = Array.from({ length: groups.groups }, () => []);
  for (const [i, thing] of PortraitThing.options.entries()) {
    progress(PHASES[thing], i / PortraitThing.options.length);
    const { occurrences, labelOf } = await readPortraitThings(store, thing);
    things[thing] = typicalThings(occurrences, groups, labelOf, { leastAuthors, most: TERMS });
    if (thing !== 'word') continue;
    const scores = things.word.map(
      ({ typical }) => new Map(typical.slice(0, TERMS_OF_NEAREST).map(({ label, score }) => [label, score])),
    );
    nearest = nearestMessages(occurrences, groups, byThing(scores, labelOf), MESSAGES);
  }
  return {
    things,
    nearest,
    of: (g) =>
      Object.fromEntries(
        PortraitThing.options.map((thing) => [thing, things[thing][g]]),
      ) as PortraitBody['things'],
  };
}

const PHASES: Readonly<Record<PortraitThing, string>> = {
  hashtag: 'Hashtags',
  word: 'Words',
  domain: 'Domains',
  link: 'Links',
  name: 'Names',
  emoji: 'Emoji',
  language: 'Languages',
  code: 'Codes',
};

/** Scores by the label of a thing, to be asked by its number. */
function byThing(
  scores: readonly ReadonlyMap<string, number>[],
  labelOf: (thing: number) => string,
): { get(thing: number): number | undefined }[] {
  return scores.map((own) => ({ get: (thing) => own.get(labelOf(thing)) }));
}

/** What is known of messages beside their texts. */
function messageFacts(store: Store, groups: MessageGroups, accounts: TidyAccounts) {
  const each = <T>(make: () => T): T[] => Array.from({ length: groups.groups }, make);
  const authors = each(() => new Set<number>());
  const kinds = each(() => new Map<MessageKind, number>());
  const allKinds = new Map<MessageKind, number>();
  const times: [number, number][] = [];
  const add = <K>(counts: Map<K, number>, key: K): void => void counts.set(key, (counts.get(key) ?? 0) + 1);
  for (const { message, author, kind, time } of messagesIn(store, groups, accounts)) {
    times.push([message, time]);
    add(allKinds, kind);
    for (const g of groups.of(message)) {
      if (author >= 0) authors[g].add(author);
      add(kinds[g], kind);
    }
  }
  return {
    authors,
    kinds,
    allKinds,
    times,
    answers: answersIn(store.raw, groups),
    scores: scoresIn(store.raw, groups),
    reposted: mostFollowed(store.raw, groups, ['repost', 'quote']),
    answered: mostFollowed(store.raw, groups, ['reply', 'comment', 'email']),
  };
}

/** Answers of each group to messages that were collected, and how many of them are to messages of the group itself. */
function answersIn(raw: Store['raw'], groups: MessageGroups): PortraitBody['answers'][] {
  const found = Array.from({ length: groups.groups }, () => ({ all: 0, within: 0 }));
  for (const [message, parent] of answersTo(raw))
    for (const g of groups.of(message)) {
      found[g].all++;
      if (groups.of(parent).includes(g)) found[g].within++;
    }
  return found;
}

/** Mean scores of groups beside all others. */
function scoresIn(raw: Store['raw'], groups: MessageGroups): (group: number) => PortraitBody['scores'] {
  const sums = new Map<Scorer, { own: Float64Array; count: Float64Array; all: number; scored: number }>();
  const rows = raw.prepare('select message_id, scorer, value from message_score').raw().iterate();
  for (const [message, scorer, value] of rows as Iterable<[number, Scorer, number]>) {
    if (!groups.has(message)) continue;
    let sum = sums.get(scorer);
    if (!sum) {
      const empty = (): Float64Array => new Float64Array(groups.groups);
      sums.set(scorer, (sum = { own: empty(), count: empty(), all: 0, scored: 0 }));
    }
    sum.all += value;
    sum.scored++;
    for (const g of groups.of(message)) {
      sum.own[g] += value;
      sum.count[g]++;
    }
  }
  return (g) =>
    Scorer.options.flatMap((scorer) => {
      const sum = sums.get(scorer);
      if (!sum) return [];
      const [scored, elsewhere] = [sum.count[g], sum.scored - sum.count[g]];
      return {
        scorer,
        scored,
        mean: scored > 0 ? sum.own[g] / scored : null,
        scoredElsewhere: elsewhere,
        meanElsewhere: elsewhere > 0 ? (sum.all - sum.own[g]) / elsewhere : null,
      };
    });
}

/** The messages of each group that most others pass on, or answer. */
function mostFollowed(
  raw: Store['raw'],
  groups: MessageGroups,
  kinds: readonly MessageKind[],
): PortraitBody['reposted'][] {
  const found = Array.from({ length: groups.groups }, (): { message: number; times: number }[] => []);
  const rows = raw
    .prepare(
      `select p.id, count(*) from message m join message p on p.key = m.parent_key
       where m.kind in (${kinds.map((kind) => `'${kind}'`).join(', ')}) group by p.id`,
    )
    .raw()
    .iterate();
  for (const [message, times] of rows as Iterable<[number, number]>)
    for (const g of groups.of(message)) found[g].push({ message, times });
  return found.map((all) =>
    all.sort((a, b) => b.times - a.times || a.message - b.message).slice(0, MESSAGES),
  );
}

function sampleOf(groups: MessageGroups, group: number, seed: number): number[] {
  const own = groups.messagesOf(group);
  return new Random(seed + group).sample(own.length, MESSAGES).map((at) => own[at]);
}

/** How sure the nodes of a group are on average; null where that was not computed. */
function sureness(nodes: TableColumns, column: string, of: Uint32Array, group: number): number | null {
  const sure = nodes[`${column}, sure`];
  if (!ArrayBuffer.isView(sure)) return null;
  let [sum, count] = [0, 0];
  of.forEach((own, v) => {
    if (own !== group) return;
    sum += sure[v];
    count++;
  });
  return sum / count;
}

function mostActive(nodes: TableColumns, of: Uint32Array, group: number): Standing['addressed'] {
  if (!('messages' in nodes)) return [];
  const messages = numbersOf(nodes, 'messages');
  return Array.from(of.keys())
    .filter((v) => of[v] === group && messages[v] > 0)
    .sort((a, b) => messages[b] - messages[a] || a - b)
    .slice(0, NODES)
    .map((node) => ({ node, value: messages[node] }));
}
