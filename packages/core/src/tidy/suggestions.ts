import type { SuggestionReason } from '@pebble/contract';

/** A thing that may be the same as another. */
export interface Candidate {
  readonly key: string;
  readonly label: string;
  readonly messages: number;
  /** The name of the person behind an account, where it is known. */
  readonly personalName?: string;
}

export interface FoundPair {
  readonly a: string;
  readonly b: string;
  readonly reason: SuggestionReason;
  readonly label: string;
}

/** Shorter names differ by a letter without being the same. */
const SHORTEST_NEAR = 6;
const SHORTEST_INSIDE = 8;

/**
 * Pairs that may be the same thing, the most used first; each pair once, with the strongest reason. Names are compared without case, accents
 * and marks; "nearly" is one letter more, less, other or swapped (Damerau 1964), and no other digits.
 * @param most pairs at most
 */
export function suggestMerges(things: readonly Candidate[], most = 200): FoundPair[] {
  const found = new Map<string, FoundPair>();
  const byKey = new Map(things.map((thing) => [thing.key, thing]));
  const add = (a: Candidate, b: Candidate, reason: SuggestionReason): void => {
    if (a.key === b.key) return;
    const [x, y] = a.messages > b.messages || (a.messages === b.messages && a.key < b.key) ? [a, b] : [b, a];
    const pair = `${x.key}\n${y.key}`;
    if (!found.has(pair)) found.set(pair, { a: x.key, b: y.key, reason, label: clearest(x.label, y.label) });
  };
  const folded = things.map(({ label }) => fold(label));
  group(things, (_, i) => folded[i]).forEach((same) => pairs(same, (a, b) => add(a, b, 'same letters')));
  group(things, ({ personalName }) => fold(personalName ?? '')).forEach((same) =>
    pairs(same, (a, b) => add(a, b, 'same personal name')),
  );
  nearPairs(things, folded, (a, b) => add(a, b, 'nearly the same letters'));
  abbreviations(things, (a, b) => add(a, b, 'abbreviation'));
  insidePairs(things, folded, (a, b) => add(a, b, 'one inside the other'));
  const weight = ({ a, b }: FoundPair): number => byKey.get(a)!.messages + byKey.get(b)!.messages;
  return [...found.values()]
    .sort((p, q) => weight(q) - weight(p) || (p.a < q.a ? -1 : p.a > q.a ? 1 : p.b < q.b ? -1 : 1))
    .slice(0, most);
}

/** Letters and digits alone, small and without accents. */
export function fold(label: string): string {
  return label
    .normalize('NFKD')
    .replace(/[^\p{L}\p{N}]/gu, '')
    .toLowerCase();
}

/** Words of a label: apart by spaces and marks, and where small letters turn into capitals. */
export function wordsOf(label: string): string[] {
  return label
    .replace(/(\p{Ll})(\p{Lu})/gu, '$1 $2')
    .split(/[^\p{L}\p{N}]+/u)
    .filter((word) => word !== '');
}

/** The shorter label, unless it is an abbreviation. */
function clearest(a: string, b: string): string {
  const [short, long] = a.length <= b.length ? [a, b] : [b, a];
  const isAbbreviation =
    /^[\p{Lu}\p{N}.]{2,6}$/u.test(short.replace(/^[#@]/, '')) && short.length < long.length;
  return isAbbreviation ? long : short;
}

function group(things: readonly Candidate[], keyOf: (thing: Candidate, i: number) => string): Candidate[][] {
  const groups = new Map<string, Candidate[]>();
  things.forEach((thing, i) => {
    const key = keyOf(thing, i);
    if (key === '') return;
    const same = groups.get(key);
    if (same) same.push(thing);
    else groups.set(key, [thing]);
  });
  return [...groups.values()].filter((same) => same.length > 1);
}

function pairs(things: readonly Candidate[], each: (a: Candidate, b: Candidate) => void): void {
  for (let i = 0; i < things.length; i++)
    for (let j = i + 1; j < things.length; j++) each(things[i], things[j]);
}

/** Names that share what is left when one letter is taken away are the only ones that can be so near. */
function nearPairs(
  things: readonly Candidate[],
  folded: readonly string[],
  each: (a: Candidate, b: Candidate) => void,
): void {
  const byPart = new Map<string, number[]>();
  folded.forEach((name, i) => {
    if (name.length < SHORTEST_NEAR) return;
    const parts = new Set([name]);
    for (let at = 0; at < name.length; at++) parts.add(name.slice(0, at) + name.slice(at + 1));
    for (const part of parts) {
      const same = byPart.get(part);
      if (same) same.push(i);
      else byPart.set(part, [i]);
    }
  });
  for (const same of byPart.values()) {
    // Very many names round one part are a pattern (numbered ones) and no slips.
    if (same.length < 2 || same.length > 20) continue;
    for (let i = 0; i < same.length; i++)
      for (let j = i + 1; j < same.length; j++) {
        const [a, b] = [same[i], same[j]];
        if (folded[a] !== folded[b] && isSlip(folded[a], folded[b])) each(things[a], things[b]);
      }
  }
}

/** One edit apart, and not by a digit: "lamp2" and "lamp3" are two things. */
function isSlip(a: string, b: string): boolean {
  if (editDistance(a, b) > 1) return false;
  const digits = (name: string): string => name.replace(/\D/g, '');
  return digits(a) === digits(b);
}

/** Letters added, left out, changed or swapped with their neighbour (optimal string alignment). */
export function editDistance(a: string, b: string): number {
  const rows: number[][] = [Array.from({ length: b.length + 1 }, (_, j) => j)];
  for (let i = 1; i <= a.length; i++) {
    rows[i] = [i];
    for (let j = 1; j <= b.length; j++) {
      const same = a[i - 1] === b[j - 1] ? 0 : 1;
      rows[i][j] = Math.min(rows[i - 1][j] + 1, rows[i][j - 1] + 1, rows[i - 1][j - 1] + same);
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1])
        rows[i][j] = Math.min(rows[i][j], rows[i - 2][j - 2] + 1);
    }
  }
  return rows[a.length][b.length];
}

/** "SLB" and "Sallowmere Lighting Board": capitals that are the first letters of the words, small ones such as "of" aside. */
function abbreviations(things: readonly Candidate[], each: (a: Candidate, b: Candidate) => void): void {
  const long = new Map<string, Candidate[]>();
  for (const thing of things) {
    const words = wordsOf(thing.label);
    if (words.length < 2) continue;
    const letters = [words, words.filter((word) => /^\p{Lu}|^\p{N}/u.test(word))].map((some) =>
      some
        .map(([letter]) => letter)
        .join('')
        .toLowerCase(),
    );
    for (const key of new Set(letters)) {
      if (key.length < 2) continue;
      const same = long.get(key);
      if (same) same.push(thing);
      else long.set(key, [thing]);
    }
  }
  for (const thing of things) {
    const name = thing.label.replace(/^[#@]/, '').replaceAll('.', '');
    if (/^[\p{Lu}\p{N}]{2,6}$/u.test(name))
      for (const other of long.get(name.toLowerCase()) ?? []) each(thing, other);
  }
}

/** "Lighting Board" in "Sallowmere Lighting Board", word by word; two words at least. */
function insidePairs(
  things: readonly Candidate[],
  folded: readonly string[],
  each: (a: Candidate, b: Candidate) => void,
): void {
  const byName = new Map<string, Candidate>();
  things.forEach((thing, i) => {
    if (folded[i].length >= SHORTEST_INSIDE && wordsOf(thing.label).length > 1) byName.set(folded[i], thing);
  });
  for (const thing of things) {
    const words = wordsOf(thing.label).map(fold);
    for (let from = 0; from < words.length; from++)
      for (let until = from + 2; until <= words.length; until++) {
        if (until - from === words.length) continue;
        const part = byName.get(words.slice(from, until).join(''));
        if (part) each(part, thing);
      }
  }
}
