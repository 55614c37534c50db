import {
  MOST_COMBINATIONS,
  type AudienceMembers,
  type AudienceMembersRequest,
  type AudienceQuestion,
  type AudienceSets,
  type AudienceSetsQuery,
  type Audiences,
  type AudiencesRequest,
  type Network,
} from '@pebble/contract';
import {
  combinations,
  handleKey,
  isWithin,
  kindOf,
  membership,
  MessageGroups,
  nodeLabels,
  setsOf,
  textsIn,
  textsOf,
  tidyFollows,
  typicalThings,
} from '@pebble/core';
import { contentWords } from '@pebble/core/files';
import { BOUND_LIST } from '../storage/lists';
import { Names, Rows } from '../storage/occurrenceRows';
import { readFollows, readOccurrences } from '../storage/occurrences';
import { readTable } from '../storage/files/tables';
import { findNetwork } from '../storage/networks';
import type { Store } from '../storage/open';
import { readTies } from '../weaving/evidence/ties';
import { accountsNow } from './messagesOf';
import { readPortraitThings } from './portraitThings';

/** Sets that are offered. */
const OFFERED = 200;
/** Typical words of descriptions. */
const TERMS = 20;

/** What members can have in common, and what they are. */
interface Memberships {
  /** Members of each set, by the name of the set; a member may stand in it twice. */
  readonly sets: ReadonlyMap<string, readonly number[]>;
  handleOf(member: number): string;
  namesOf(members: readonly number[]): ReadonlyMap<number, string>;
  /** What is told of some members, or of all. */
  descriptions(members: readonly number[] | null): ReadonlyMap<number, string>;
}

export async function readAudienceSets(store: Store, asked: AudienceSetsQuery): Promise<AudienceSets> {
  const { sets } = await memberships(store, asked);
  const sought = asked.search.trim().toLowerCase();
  const all = [...sets]
    .filter(([name]) => name.toLowerCase().includes(sought))
    .map(([name, members]) => ({ name, members: new Set(members).size }))
    .sort((a, b) => b.members - a.members || (a.name < b.name ? -1 : 1));
  return { total: all.length, sets: all.slice(0, OFFERED) };
}

export async function readAudiences(store: Store, { names, ...asked }: AudiencesRequest): Promise<Audiences> {
  const masks = membership(chosen(await memberships(store, asked), names));
  return combinations(masks, names.length, MOST_COMBINATIONS);
}

/** Who is in some sets and not in others, with what is typical of their descriptions. */
export async function readAudienceMembers(
  store: Store,
  { offset, limit, ...question }: AudienceMembersRequest,
): Promise<AudienceMembers> {
  const { known, masks, found } = await answered(store, question);
  const page = found.slice(offset, offset + limit);
  // What is typical of all goes through the descriptions of all: it is told with the first of them.
  const descriptions = known.descriptions(offset === 0 ? null : page);
  const names = known.namesOf(page);
  return {
    total: found.length,
    members: page.map((member) => ({
      handle: known.handleOf(member),
      name: names.get(member) ?? null,
      description: descriptions.get(member) ?? null,
      sets: setsOf(masks[member]),
    })),
    ...(offset === 0 ? typicalOf(descriptions, masks, new Set(found)) : NOTHING_TYPICAL),
  };
}

/**
 * The nodes of a network that are in some sets and not in others: those that are the members themselves, or else accounts by their handles.
 * @returns also of how many members they were looked for
 */
export async function nodesOfAudience(
  store: Store,
  network: Network,
  question: AudienceQuestion,
): Promise<{ nodes: readonly number[]; members: number }> {
  const { known, found } = await answered(store, question);
  if (question.sort === 'network' && question.network === network.id)
    return { nodes: found, members: found.length };
  const sorts = network.weave && kindOf(network.weave).sorts(network.weave);
  if (sorts?.accounts === false) return { nodes: [], members: found.length };
  const table = readTable(store.folder, network.id, 'nodes');
  // Beside accounts there may be hashtags or links of the same name.
  const modes = sorts?.things && 'mode' in table ? textsIn(table['mode']) : null;
  const wanted = new Set(found.map((member) => handleKey(known.handleOf(member))));
  const nodes = [...textsOf(table, 'handle').entries()]
    .filter(([v, handle]) => wanted.has(handleKey(handle)) && (modes === null || modes[v] === 'account'))
    .map(([v]) => v);
  return { nodes, members: found.length };
}

/** Who is in all of some sets and in none of others, and of each member in which it is. */
async function answered(
  store: Store,
  { names, inside, outside, ...asked }: AudienceQuestion,
): Promise<{ known: Memberships; masks: Uint32Array; found: readonly number[] }> {
  const known = await memberships(store, asked);
  const masks = membership(chosen(known, names));
  const found: number[] = [];
  masks.forEach((mask, member) => {
    if (mask > 0 && isWithin(mask, inside, outside)) found.push(member);
  });
  return { known, masks, found };
}

function chosen({ sets }: Memberships, names: readonly string[]): (readonly number[])[] {
  return names.map((name) => sets.get(name) ?? []);
}

/** What is typical of the descriptions of some members beside all others; each description counts once. */
function typicalOf(
  descriptions: ReadonlyMap<number, string>,
  masks: Uint32Array,
  found: ReadonlySet<number>,
): Pick<AudienceMembers, 'typical' | 'described'> {
  const members = [...descriptions.keys()].filter((member) => member < masks.length && masks[member] > 0);
  if (members.length === 0) return NOTHING_TYPICAL;
  const groups = new MessageGroups(2, masks.length);
  const rows = new Rows();
  const words = new Names();
  for (const member of members) {
    groups.add(member, found.has(member) ? 0 : 1);
    for (const word of new Set(contentWords(descriptions.get(member)!, null)))
      rows.add(member, member, words.of(word), null);
  }
  const [own] = typicalThings(rows.occurrences, groups, (word) => words.labels[word], {
    leastAuthors: 2,
    most: TERMS,
  });
  return { typical: own.typical, described: { here: groups.sizes[0], elsewhere: groups.sizes[1] } };
}

const NOTHING_TYPICAL = { typical: [], described: { here: 0, elsewhere: 0 } };

type Asked = Pick<AudiencesRequest, 'sort' | 'network'>;

async function memberships(store: Store, { sort, network }: Asked): Promise<Memberships> {
  if (sort === 'network') return ofNetwork(store, network ?? '');
  const tidy = await accountsNow(store);
  const sets = new Map<string, number[]>();
  const add = (name: string, member: number): void => {
    const own = sets.get(name);
    if (own) own.push(member);
    else sets.set(name, [member]);
  };
  if (sort === 'followers') {
    const { follower, followed } = tidyFollows(readFollows(store), tidy.now);
    for (let i = 0; i < follower.length; i++) add(tidy.labels.get(followed[i]) ?? '', follower[i]);
  } else {
    const { occurrences, labelOf } =
      sort === 'hashtag'
        ? await readPortraitThings(store, 'hashtag')
        : readOccurrences(store, { from: null, until: null, reposts: true }, sort);
    for (let i = 0; i < occurrences.count; i++) {
      const author = tidy.now ? tidy.now(occurrences.author[i]) : occurrences.author[i];
      if (author >= 0) add(labelOf(occurrences.thing[i]), author);
    }
  }
  return {
    sets,
    handleOf: (member) => tidy.labels.get(member) ?? '',
    namesOf: (members) => readNames(store, members),
    descriptions: (members) => readDescriptions(store, members),
  };
}

function readNames(store: Store, accounts: readonly number[]): ReadonlyMap<number, string> {
  return ofAccounts(
    store,
    accounts,
    (within) => `select id, name from account where name is not null ${within('id')}`,
  );
}

/** What profiles say of accounts; of several sources the latest holds. */
function readDescriptions(store: Store, accounts: readonly number[] | null): ReadonlyMap<number, string> {
  return ofAccounts(
    store,
    accounts,
    (within) =>
      `select account_id, json_extract(profile, '$.description') from profile
       where json_extract(profile, '$.description') <> '' ${within('account_id')} order by account_id, source_id`,
  );
}

/**
 * What is told of accounts, by their ids.
 * @param accounts null for all
 * @param sql takes the words that keep it to these accounts
 */
function ofAccounts(
  { raw }: Store,
  accounts: readonly number[] | null,
  sql: (within: (column: string) => string) => string,
): ReadonlyMap<number, string> {
  const rows = raw.prepare(sql((column) => (accounts ? `and ${column} in ${BOUND_LIST}` : ''))).raw();
  return new Map(rows.all(...(accounts ? [JSON.stringify(accounts)] : [])) as [number, string][]);
}

/** Nodes of one sort of a network by the nodes of the other sort to which they are tied: participants of events. */
async function ofNetwork(store: Store, id: string): Promise<Memberships> {
  const network = await findNetwork(store, id);
  const nodes = network ? readTable(store.folder, id, 'nodes') : {};
  const sets = new Map<string, number[]>();
  const labels = network ? nodeLabels(nodes) : [];
  if (network && 'mode' in nodes) {
    const sorts = textsIn(nodes['mode']);
    const [members] = sorts;
    const { source, target } = readTies(store, id);
    source.forEach((a, e) => {
      const b = target[e];
      if (sorts[a] === sorts[b]) return;
      const [member, set] = sorts[a] === members ? [a, b] : [b, a];
      const own = sets.get(labels[set]);
      if (own) own.push(member);
      else sets.set(labels[set], [member]);
    });
  }
  const names = Array.isArray(nodes['name']) ? (nodes['name'] as readonly string[]) : null;
  return {
    sets,
    handleOf: (member) => labels[member],
    namesOf: (members) =>
      new Map(members.flatMap((member) => (names?.[member] ? [[member, names[member]]] : []))),
    descriptions: () => new Map(),
  };
}
