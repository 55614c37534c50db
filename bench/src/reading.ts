import {
  combinations,
  followGroups,
  membership,
  MessageGroups,
  Random,
  typicalThings,
  type Occurrences,
  type SliceGroups,
} from '@pebble/core';
import { contentWords } from '@pebble/core/files';
import { atMost, faster, time, type Row } from './measure';

const MESSAGES = 1_000_000;
const GROUPS = 10;
const WORDS = 40_000;
const SETS = 30;
const MEMBERS = 1_000_000;

/** Texts of eight words, few of which are used by many (Zipf), as in what people write. */
function makeTexts(): { texts: string[]; author: Uint32Array } {
  const random = new Random(5);
  const zipf = (n: number): number => Math.min(n - 1, Math.floor(n ** random.real()) - 1);
  const names = Array.from(
    { length: WORDS },
    (_, i) => `word${i.toString(26).replace(/\d/g, (d) => 'abcdefghij'[+d])}`,
  );
  const texts = Array.from({ length: MESSAGES }, () =>
    Array.from({ length: 8 }, () => names[zipf(WORDS)]).join(' '),
  );
  return { texts, author: Uint32Array.from(texts, () => zipf(200_000)) };
}

const SLICES = 50;
const FOLLOWED = 20_000;
const FOLLOWED_GROUPS = 200;

/** The same nodes in every slice; from one to the next a tenth of them goes to another group. */
function plantedSlices(): SliceGroups[] {
  const random = new Random(3);
  let group = Int32Array.from({ length: FOLLOWED }, () => random.below(FOLLOWED_GROUPS));
  const node = Uint32Array.from({ length: FOLLOWED }, (_, v) => v);
  return Array.from({ length: SLICES }, () => {
    group = group.map((own) => (random.real() < 0.1 ? random.below(FOLLOWED_GROUPS) : own));
    return { node, group, groups: FOLLOWED_GROUPS };
  });
}

/** How many pairs of groups of next slices are alike, as one would count them with sets. */
function pairsBySets(slices: readonly SliceGroups[]): number {
  const sets = slices.map(({ group }) => {
    const own = Array.from({ length: FOLLOWED_GROUPS }, () => new Set<number>());
    group.forEach((g, v) => own[g].add(v));
    return own;
  });
  let alike = 0;
  for (let t = 1; t < sets.length; t++)
    for (const a of sets[t - 1])
      for (const b of sets[t]) {
        let both = 0;
        for (const v of a) if (b.has(v)) both++;
        if (both / (a.size + b.size - both) >= 0.2) alike++;
      }
  return alike;
}

/** What is typical for ten groups beside one pass that only cuts the texts into words; combinations of sets beside JavaScript's own. */
export async function reading(): Promise<Row[]> {
  const { texts, author } = makeTexts();
  const cut = await time(1, () => {
    let words = 0;
    for (const text of texts) words += contentWords(text, 'en').length;
    return words;
  });
  const groups = new MessageGroups(GROUPS, MESSAGES);
  for (let m = 0; m < MESSAGES; m++) groups.add(m, author[m] % GROUPS);
  let found = 0;
  const portray = await time(1, () => {
    const number = new Map<string, number>();
    const labels: string[] = [];
    const message: number[] = [];
    const who: number[] = [];
    const thing: number[] = [];
    texts.forEach((text, m) => {
      for (const word of new Set(contentWords(text, 'en'))) {
        let at = number.get(word);
        if (at === undefined) number.set(word, (at = labels.push(word) - 1));
        message.push(m);
        who.push(author[m]);
        thing.push(at);
      }
    });
    const rows: Occurrences = { count: message.length, message, author: who, thing, time: [] };
    found = typicalThings(rows, groups, (at) => labels[at], { leastAuthors: 3, most: 40 }).length;
  });
  const random = new Random(9);
  const sets = Array.from({ length: SETS }, (_, s) =>
    Uint32Array.from({ length: Math.floor(MEMBERS / (s + 2)) }, () => random.below(MEMBERS)),
  );
  let ours = 0;
  const masks = await time(2, () => {
    ours = combinations(membership(sets), SETS, 200).members;
  });
  let theirs = 0;
  const bySets = await time(1, () => {
    const all = sets.map((set) => new Set(set));
    const counts = new Map<string, number>();
    const seen = new Set<number>();
    for (const set of all)
      for (const member of set) {
        if (seen.has(member)) continue;
        seen.add(member);
        const key = all.map((one) => (one.has(member) ? '1' : '0')).join('');
        counts.set(key, (counts.get(key) ?? 0) + 1);
      }
    theirs = [...counts.values()].reduce((a, b) => a + b, 0);
  });
  const slices = plantedSlices();
  let lines = 0;
  const follow = await time(2, () => {
    lines = followGroups(slices, FOLLOWED, { threshold: 0.2, least: 3, patience: 1 }).lines.length;
  });
  let alike = 0;
  const pairs = await time(1, () => {
    alike = pairsBySets(slices);
  });
  return [
    faster(
      'groups through time',
      `${SLICES} slices of 20,000 nodes`,
      follow,
      pairs,
      5,
      `beside Jaccard of all pairs of next slices by JavaScript’s Set; ${lines} lines, ${alike} alike pairs`,
    ),
    atMost(
      'what is typical',
      `${GROUPS} groups, 1,000,000 messages`,
      portray,
      cut,
      2,
      `beside cutting the texts into words; ${found} groups`,
    ),
    faster(
      'combinations of sets',
      `${SETS} sets of 1,000,000 members`,
      masks,
      bySets,
      5,
      `beside JavaScript’s Set; ${ours === theirs ? 'the same members' : `${ours} and ${theirs} members`}`,
    ),
  ];
}
