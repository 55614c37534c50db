import fc from 'fast-check';
import type { Decision, NewDecision, Verdict } from '@pebble/contract';
import { effective, MergeCircle, resolve, tidyNumbers } from './resolve';
import { reviewOf, tallyThings } from './review';
import { editDistance, fold, suggestMerges, wordsOf } from './suggestions';

const say = (key: string, verdict: Verdict): NewDecision => ({ key, verdict });
const merge = (key: string, into: string): NewDecision => say(key, { verdict: 'merge', into });
const drop = (key: string): NewDecision => say(key, { verdict: 'drop' });
const kept = (list: readonly NewDecision[]): Decision[] =>
  list.map((one, id) => ({ ...one, id, sort: 'hashtag', step: 1 }));

describe('resolve', () => {
  it('follows mergers to their end, and gives all parts its label and fate', () => {
    const found = resolve([merge('a', 'b'), merge('b', 'c'), say('c', { verdict: 'rename', label: 'C' })]);
    expect([found.canonical('a'), found.label('a'), found.state('a'), found.state('c')]).toEqual([
      'c',
      'C',
      'merged',
      'kept',
    ]);
    expect(resolve([merge('a', 'b'), drop('b')]).isDropped('a')).toBe(true);
  });

  it('lets the later decision hold', () => {
    expect(resolve([drop('a'), say('a', { verdict: 'keep' })]).isDropped('a')).toBe(false);
    expect(resolve([merge('a', 'b'), say('a', { verdict: 'keep' })]).canonical('a')).toBe('a');
  });

  it('refuses a circle', () => {
    expect(() => resolve([merge('a', 'b'), merge('b', 'c'), merge('c', 'a')])).toThrow(MergeCircle);
    expect(() => resolve([merge('a', 'a')])).toThrow('circle');
  });

  it('never leads from one end to another by any order of mergers that make no circle', () => {
    const step = fc.tuple(fc.nat(8), fc.nat(8));
    fc.assert(
      fc.property(fc.array(step, { maxLength: 20 }), (steps) => {
        // Merging upwards alone cannot make a circle.
        const list = steps.filter(([a, b]) => a < b).map(([a, b]) => merge(String(a), String(b)));
        const found = resolve(list);
        for (let i = 0; i <= 8; i++) {
          const end = found.canonical(String(i));
          expect(found.canonical(end)).toBe(end);
        }
      }),
    );
  });
});

describe('tidyNumbers', () => {
  it('numbers things as they are now', () => {
    const tidy = tidyNumbers(['a', 'b', 'c', 'd'], kept([merge('b', 'a'), drop('c'), merge('d', 'gone')]))!;
    expect([...tidy.to]).toEqual([0, 0, -1, 3]);
    expect([tidy.merged, tidy.dropped]).toEqual([2, 1]);
    expect(tidyNumbers(['a'], kept([say('a', { verdict: 'keep' })]))).toBeNull();
    expect(tidyNumbers(['a'], kept([drop('a'), say('a', { verdict: 'keep' })]))).toBeNull();
    expect(effective([drop('a'), say('a', { verdict: 'keep' }), merge('b', 'a'), drop('b')])).toEqual([
      drop('b'),
    ]);
  });
});

describe('suggestMerges', () => {
  const of = (...labels: string[]) =>
    suggestMerges(labels.map((label, i) => ({ key: label, label, messages: 100 - i }))).map(
      ({ a, b, reason, label }) => `${a} = ${b}: ${reason} (${label})`,
    );

  it.each([
    [['#DimTheWall', '#dimthewall'], '#DimTheWall = #dimthewall: same letters (#DimTheWall)'],
    [['Café Quai', 'cafe-quai'], 'Café Quai = cafe-quai: same letters (Café Quai)'],
    [['Sallowmere', 'Salowmere'], 'Sallowmere = Salowmere: nearly the same letters (Salowmere)'],
    [
      ['Sallowmere Lighting Board', 'SLB'],
      'Sallowmere Lighting Board = SLB: abbreviation (Sallowmere Lighting Board)',
    ],
    [
      ['Sallowmere Lighting Board', 'Lighting Board'],
      'Sallowmere Lighting Board = Lighting Board: one inside the other (Lighting Board)',
    ],
  ])('%j', (labels, expected) => {
    expect(of(...labels)).toEqual([expected]);
  });

  it('leaves apart what only looks alike', () => {
    expect(of('lamp', 'lamps')).toEqual([]);
    expect(of('lantern12', 'lantern13')).toEqual([]);
    expect(of('Board', 'Lighting Board')).toEqual([]);
    expect(of('Mara Holm', 'Odd Holm')).toEqual([]);
  });

  it('finds two accounts of one person', () => {
    const found = suggestMerges([
      { key: 'a@x.example', label: 'a@x.example', messages: 2, personalName: 'Ada Holm' },
      { key: 'ada@y.example', label: 'ada@y.example', messages: 5, personalName: 'Áda  Holm' },
    ]);
    expect(found).toMatchObject([{ a: 'ada@y.example', b: 'a@x.example', reason: 'same personal name' }]);
  });

  it('measures edits as published: the examples of Damerau (1964) are one edit apart (from memory)', () => {
    for (const wrong of ['alphabe', 'alphabets', 'alphaget', 'alpahbet'])
      expect(editDistance('alphabet', wrong)).toBe(1);
    expect(editDistance('kitten', 'sitting')).toBe(3);
  });

  it('knows words by spaces, marks and capitals inside', () => {
    expect(wordsOf('#DimTheSea-Wall 2026')).toEqual(['Dim', 'The', 'Sea', 'Wall', '2026']);
    expect(fold('@Été_2026!')).toBe('ete2026');
  });
});

describe('a review', () => {
  it('counts messages, authors and moments of each thing', () => {
    const tallied = tallyThings(
      { count: 4, message: [1, 1, 2, 3], author: [7, 7, 8, 7], thing: [0, 0, 0, 1], time: [50, 50, 20, NaN] },
      3,
    );
    expect(tallied[0]).toEqual({ messages: 2, authors: 2, first: 20, last: 50, example: 1 });
    expect(tallied[1].messages).toBe(1);
    expect(tallied[1].first).toBeNaN();
    expect(tallied[2].messages).toBe(0);
  });

  it('says how far it is', () => {
    const states = (['kept', 'dropped', 'merged', 'open', 'kept'] as const).slice();
    expect(reviewOf(states, ['name', 'names'])).toMatchObject({
      reviewed: 4,
      mostUsed: 0.6,
      sentence:
        '4 of 5 names reviewed, the most used 60 % among them; 1 dropped (25.0 % of them); 1 merged into others.',
    });
    expect(reviewOf([], ['name', 'names']).sentence).toBe('0 of 0 names reviewed.');
  });
});
