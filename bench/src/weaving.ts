import { SharedWeave, TogetherWeave } from '@pebble/contract';
import { Random, weaveShared, weaveTogether, type Occurrences, type Woven } from '@pebble/core';
import { faster, time, under, type Row } from './measure';

const MESSAGES = 1_000_000;
const PLACINGS = 3_000_000;
const AUTHORS = 200_000;
const TAGS = 100_000;

/** Hashtags of messages: few are used by many, many by few (Zipf), as in what people write. */
function makeOccurrences(): Occurrences {
  const random = new Random(7);
  const zipf = (n: number): number => Math.min(n - 1, Math.floor(n ** random.real()) - 1);
  const author = Uint32Array.from({ length: MESSAGES }, () => zipf(AUTHORS));
  const message = new Float64Array(PLACINGS);
  const who = new Uint32Array(PLACINGS);
  const thing = new Uint32Array(PLACINGS);
  const when = new Float64Array(PLACINGS);
  for (let i = 0; i < PLACINGS; i++) {
    const m = Math.floor((i * MESSAGES) / PLACINGS);
    message[i] = m;
    who[i] = author[m];
    thing[i] = zipf(TAGS);
    when[i] = m * 1000;
  }
  return { count: PLACINGS, message, author: who, thing, time: when };
}

/** Pairs of things that units share, by plain objects and maps: as one would write it at first. */
function byMaps(
  { count, thing }: Occurrences,
  unitOf: (row: number) => number,
  nodeOf: (row: number) => number,
  kept: ReadonlySet<number>,
): number {
  const units = new Map<number, Set<number>>();
  for (let i = 0; i < count; i++) {
    if (!kept.has(thing[i])) continue;
    const unit = units.get(unitOf(i));
    if (unit) unit.add(nodeOf(i));
    else units.set(unitOf(i), new Set([nodeOf(i)]));
  }
  const pairs = new Map<string, { weight: number }>();
  for (const members of units.values()) {
    const list = [...members].sort((a, b) => a - b);
    for (let i = 0; i < list.length; i++)
      for (let j = i + 1; j < list.length; j++) {
        const key = `${list[i]} ${list[j]}`;
        const pair = pairs.get(key);
        if (pair) pair.weight++;
        else pairs.set(key, { weight: 1 });
      }
  }
  return pairs.size;
}

/** What stands together, and who shares what, of a million messages with three million hashtags. */
export async function weaving(): Promise<Row[]> {
  const occurrences = makeOccurrences();
  const none = (): boolean => false;
  const together = TogetherWeave.parse({ what: 'together', things: 'hashtag', mostUsed: 10_000 });
  let woven: Woven | null = null;
  const before = process.memoryUsage().rss;
  const ours = await time(2, () => (woven = weaveTogether(occurrences, together, none)));
  const grown = (process.memoryUsage().rss - before) / 1024 ** 2;
  const found = woven as unknown as Woven;
  const kept = new Set(found.id);
  let pairs = 0;
  const reference = await time(1, () => {
    pairs = byMaps(
      occurrences,
      (row) => occurrences.message[row],
      (row) => occurrences.thing[row],
      kept,
    );
  });
  const agree = pairs === found.source.length ? 'the same ties' : `${pairs} and ${found.source.length} ties`;
  const shared = SharedWeave.parse({
    what: 'shared',
    things: 'hashtag',
    usedAtLeast: 2,
    atLeast: 1,
    mostInOne: 30,
  });
  // Things that a few use: what everybody uses would tie everybody.
  const rare = (thing: number): boolean => thing < 20_000;
  let accounts: Woven | null = null;
  const projected = await time(2, () => (accounts = weaveShared(occurrences, shared, rare)));
  const rows = accounts as unknown as Woven;
  const things = new Set(Array.from(occurrences.thing as Uint32Array).filter((thing) => !rare(thing)));
  let others = 0;
  const plain = await time(1, () => {
    others = byMaps(
      occurrences,
      (row) => occurrences.thing[row],
      (row) => occurrences.author[row],
      things,
    );
  });
  return [
    faster(
      'Hashtags that stand together',
      `${MESSAGES.toLocaleString('en')} messages, ${PLACINGS.toLocaleString('en')} hashtags, the 10,000 most used`,
      ours,
      reference,
      3,
      `reference: plain objects and maps; ${agree}`,
    ),
    under('Hashtags that stand together: memory above the rows', 'the same', grown, 1500, 'MB'),
    faster(
      'Accounts that share hashtags',
      'the same, the rarer hashtags',
      projected,
      plain,
      3,
      `reference: plain objects and maps; ${rows.source.length.toLocaleString('en')} and ${others.toLocaleString('en')} ties`,
    ),
  ];
}
