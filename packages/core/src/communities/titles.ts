/** How often words stand in the messages of one group. */
export interface GroupWords {
  readonly group: string;
  readonly messages: number;
  /** Messages with each word. */
  readonly words: ReadonlyMap<string, number>;
}

/** Words in a title. */
const WORDS = 2;
/** The likelihood ratio from which on a word is more frequent than by chance at one in a thousand (chi-squared with one degree of freedom). */
const CLEAR = 10.83;
/** Words in fewer messages of a group are no title for it. */
const LEAST = 3;

/**
 * For each group the words that are most typical of it: in a clearly larger share of its messages than of the others', by the log-likelihood
 * ratio (Dunning 1993, Computational Linguistics 19(1)). A word that is typical of several groups goes to the one of which it is most so.
 * Groups without such words are left out.
 */
export function typicalWords(groups: readonly GroupWords[]): Map<string, string[]> {
  const allMessages = groups.reduce((sum, { messages }) => sum + messages, 0);
  const all = new Map<string, number>();
  for (const { words } of groups)
    for (const [word, count] of words) all.set(word, (all.get(word) ?? 0) + count);
  const candidates = groups.flatMap(({ group, messages, words }) =>
    [...words]
      .filter(([, count]) => count >= LEAST)
      .map(([word, count]) => ({
        group,
        word,
        score: likelihoodRatio(count, messages, all.get(word)! - count, allMessages - messages),
      })),
  );
  candidates.sort((a, b) => b.score - a.score || (a.word < b.word ? -1 : 1));
  const titles = new Map<string, string[]>();
  const taken = new Set<string>();
  for (const { group, word, score } of candidates) {
    if (score < CLEAR || taken.has(word)) continue;
    const own = titles.get(group) ?? [];
    if (own.length >= WORDS) continue;
    taken.add(word);
    titles.set(group, [...own, word]);
  }
  return titles;
}

/**
 * G² of a word in `a` of `m` messages here and `b` of `n` elsewhere; 0 where its share here is not the larger one.
 */
export function likelihoodRatio(a: number, m: number, b: number, n: number): number {
  if (m === 0 || (n > 0 && a / m <= b / n)) return 0;
  const [hits, total] = [a + b, m + n];
  const part = (found: number, expected: number): number =>
    found > 0 ? found * Math.log(found / expected) : 0;
  return (
    2 *
    (part(a, (hits * m) / total) +
      part(b, (hits * n) / total) +
      part(m - a, ((total - hits) * m) / total) +
      part(n - b, ((total - hits) * n) / total))
  );
}
