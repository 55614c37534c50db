import fc from 'fast-check';
import { Random } from '../../random';
import { logLikelihood } from './keyness';
import { MessageGroups } from './messageGroups';
import { typicalThings } from './typicalThings';

/** A message: its author, its groups, its things. */
type Row = readonly [author: number, groups: readonly number[], things: readonly number[]];

function study(groups: number, rows: readonly Row[]) {
  const of = new MessageGroups(groups, rows.length);
  const flat = rows.flatMap(([author, , things], message) =>
    things.map((thing) => ({ message, author, thing })),
  );
  rows.forEach(([, own], message) => own.forEach((g) => of.add(message, g)));
  const occurrences = {
    count: flat.length,
    message: flat.map((row) => row.message),
    author: flat.map((row) => row.author),
    thing: flat.map((row) => row.thing),
    time: flat.map(() => NaN),
  };
  return { of, occurrences };
}

const label = (thing: number): string => `t${thing}`;
const all = { leastAuthors: 1, most: 1000 };

describe('messages in groups', () => {
  it('count once in each group, however often they are added', () => {
    const groups = new MessageGroups(2, 3);
    for (const [message, group] of [
      [0, 0],
      [0, 0],
      [1, 0],
      [1, 1],
      [1, 1],
      [3, 1],
    ])
      groups.add(message, group);
    expect([...groups.sizes]).toEqual([2, 2]);
    expect(groups.all).toBe(3);
    expect([0, 1, 2, 3, 4].map((message) => groups.of(message))).toEqual([[0], [0, 1], [], [1], []]);
    expect(groups.messagesOf(1)).toEqual([1, 3]);
  });
});

describe('typicalThings', () => {
  it('counts as counting by hand does', () => {
    fc.assert(
      fc.property(fc.nat(1000), fc.integer({ min: 1, max: 4 }), (seed, groups) => {
        const random = new Random(seed);
        const rows = Array.from({ length: 80 }, (): Row => {
          const own = Array.from({ length: random.below(3) }, () => random.below(groups));
          return [random.below(12), own, Array.from({ length: random.below(5) }, () => random.below(7))];
        });
        const { of, occurrences } = study(groups, rows);
        const lists = typicalThings(occurrences, of, label, all);
        const within = rows.filter(([, own]) => own.length > 0);
        lists.forEach(({ used }, g) => {
          const here = within.filter(([, own]) => own.includes(g));
          const things = [...new Set(here.flatMap(([, , things]) => things))];
          expect(used.map((term) => term.label).sort()).toEqual(things.map(label).sort());
          for (const term of used) {
            const has = ([, , things]: Row): boolean => things.map(label).includes(term.label);
            const found = here.filter(has);
            expect(term.messages).toBe(found.length);
            expect(term.elsewhere).toBe(within.filter(has).length - found.length);
            expect(term.authors).toBe(new Set(found.map(([author]) => author)).size);
            const beside = {
              here: found.length,
              ofHere: here.length,
              elsewhere: term.elsewhere,
              ofElsewhere: within.length - here.length,
            };
            expect(term.score).toBeCloseTo(logLikelihood(beside), 9);
          }
        });
      }),
      { numRuns: 40 },
    );
  });

  const many = (count: number, author: (i: number) => number, group: number, things: number[]): Row[] =>
    Array.from({ length: count }, (_, i): Row => [author(i), [group], things]);

  it('lets nobody make a topic alone, and says so', () => {
    const { of, occurrences } = study(2, [
      ...many(40, () => 1, 0, [7]),
      ...many(40, (i) => 10 + (i % 9), 0, [8]),
      ...many(80, (i) => 100 + i, 1, [9]),
    ]);
    const [first] = typicalThings(occurrences, of, label, { leastAuthors: 3, most: 10 });
    expect(first.typical.map((term) => term.label)).toEqual(['t8']);
    expect(first.ofFewAuthors).toBe(1);
    expect(first.used.map((term) => term.label)).toEqual(['t7', 't8']);
  });

  it('tells what is missing, also what stands nowhere in a group', () => {
    const { of, occurrences } = study(2, [
      ...many(60, (i) => i, 0, [1]),
      ...many(60, (i) => 100 + i, 1, [1, 2]),
    ]);
    const [first, second] = typicalThings(occurrences, of, label, all);
    expect(first.missing.map(({ label, messages, elsewhere }) => [label, messages, elsewhere])).toEqual([
      ['t2', 0, 60],
    ]);
    expect(second.typical.map(({ label, times }) => [label, times])).toEqual([['t2', null]]);
    // What all have says nothing of any.
    expect(second.missing).toEqual([]);
  });

  it('counts a thing once in each message, and compares a group that is all with nothing', () => {
    const { of, occurrences } = study(1, [
      [1, [0], [1, 1]],
      [2, [0], [1]],
    ]);
    const [only] = typicalThings(occurrences, of, label, all);
    expect(only.used.map(({ label, messages, authors }) => [label, messages, authors])).toEqual([
      ['t1', 2, 2],
    ]);
    // Of a group that is all there is nothing else to be compared with.
    expect([only.typical, only.missing]).toEqual([[], []]);
  });

  it('keeps the best of very many', () => {
    const { of, occurrences } = study(2, [
      ...Array.from({ length: 900 }, (_, i): Row => [i, [0], [i, ...(i < 30 ? [1001] : [])]]),
      ...many(900, (i) => 2000 + i, 1, [1002]),
    ]);
    const [first] = typicalThings(occurrences, of, label, { leastAuthors: 1, most: 2 });
    expect(first.used.map((term) => term.label)).toEqual(['t1001', 't0']);
    expect(first.typical.map((term) => term.label)).toEqual(['t1001']);
  });
});
