import type { Occurrences } from '../../weaves/common/occurrences';
import type { MessageGroups } from './messageGroups';

/** A message with how many of a group's typical terms stand in it. */
export interface NearMessage {
  readonly message: number;
  readonly terms: number;
}

/**
 * The messages of each group in which most of what is typical of it stands: by the sum of the scores of its terms, each term once.
 * Of each author one message, so that nobody speaks for a group alone.
 * @param scores of things, by group
 */
export function nearestMessages(
  { count, message, author, thing }: Occurrences,
  groups: MessageGroups,
  scores: readonly { get(thing: number): number | undefined }[],
  most: number,
): NearMessage[][] {
  const best = scores.map(() => new Map<number, NearMessage & { readonly score: number }>());
  for (let i = 0; i < count;) {
    let end = i + 1;
    while (end < count && message[end] === message[i]) end++;
    for (const g of groups.of(message[i])) {
      const own = scores[g];
      const found = new Set<number>();
      let score = 0;
      for (let j = i; j < end; j++) {
        const value = own.get(thing[j]);
        if (value === undefined || found.has(thing[j])) continue;
        found.add(thing[j]);
        score += value;
      }
      const before = best[g].get(author[i]);
      if (score > 0 && (!before || score > before.score))
        best[g].set(author[i], { message: message[i], terms: found.size, score });
    }
    i = end;
  }
  return best.map((own) =>
    [...own.values()]
      .sort((a, b) => b.score - a.score || a.message - b.message)
      .slice(0, most)
      .map(({ message: at, terms }) => ({ message: at, terms })),
  );
}
