import { createHash } from 'node:crypto';
import { givePseudonyms, type Newcomer, type Taken } from './pseudonyms';

const FREE: Taken = { number: 0, hasWords: () => false, isCalled: () => false };
const newcomer = (key: string): Newcomer => ({
  key,
  digest: (attempt) => createHash('sha256').update(`${attempt} ${key}`).digest(),
});
const people = (count: number, from = 0): Newcomer[] =>
  Array.from({ length: count }, (_, i) => newcomer(`person_${i + from}`));

describe('pseudonyms', () => {
  it('are never those of somebody else, however many there are', () => {
    const given = [...givePseudonyms(people(60_000), FREE).values()];
    expect(new Set(given.map(({ words }) => words)).size).toBe(60_000);
    expect(new Set(given.map(({ number }) => number)).size).toBe(60_000);
    expect(Math.max(...given.map(({ number }) => number))).toBe(60_000);
  });

  it('follow from the digests alone, not from the order in which people come', () => {
    const forwards = givePseudonyms(people(500), FREE);
    const backwards = givePseudonyms(people(500).reverse(), FREE);
    expect([...backwards].sort()).toEqual([...forwards].sort());
    const numbers = people(500).map(({ key }) => forwards.get(key)!.number);
    expect(numbers).not.toEqual([...numbers].sort((a, b) => a - b));
  });

  it('stay with those who have them: later people get what is free', () => {
    const first = givePseudonyms(people(5000), FREE);
    const words = new Set([...first.values()].map((one) => one.words));
    const later = givePseudonyms(people(5000, 5000), {
      ...FREE,
      number: 5000,
      hasWords: (name) => words.has(name),
    });
    const all = [...first.values(), ...later.values()];
    expect(new Set(all.map((one) => one.words)).size).toBe(10_000);
    expect([...later.values()].every(({ number }) => number > 5000 && number <= 10_000)).toBe(true);
  });

  it('are nothing that somebody is really called', () => {
    const [[, { words }]] = givePseudonyms([newcomer('person_0')], FREE);
    const taken = { ...FREE, isCalled: (name: string) => name === words };
    const [[, other]] = givePseudonyms([newcomer('person_0')], taken);
    expect(other.words).not.toBe(words);
  });

  it('are two words, or two words and a number where these are taken', () => {
    for (const { words } of givePseudonyms(people(40_000), FREE).values())
      expect(words).toMatch(/^[a-z]+ [a-z]+( [0-9]{1,6})?$/);
  });
});
