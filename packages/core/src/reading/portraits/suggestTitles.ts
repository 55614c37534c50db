import type { PortraitHead, Term } from '@pebble/contract';

/** What a title can be made of. */
export interface TitleSource {
  readonly hashtags: readonly Term[];
  readonly words: readonly Term[];
  /** The node that leads the group. */
  readonly leader: string;
}

/** Terms in a title. */
const TERMS = 2;
/** A term says what a group is about where its share is at least so many times the one elsewhere. */
const TIMES = 2;

type Title = Pick<PortraitHead, 'suggested' | 'by'>;

/**
 * A title for each group: its most typical hashtags, or else its most typical words, or else "round" the node that leads it. A term that is
 * typical of several groups goes to the one of which it is most so; no two titles are the same.
 */
export function suggestTitles(groups: readonly TitleSource[]): Title[] {
  const hashtags = shareOut(groups.map((group) => group.hashtags));
  const words = shareOut(groups.map((group, g) => (hashtags[g].length > 0 ? [] : group.words)));
  const taken = new Set<string>();
  return groups.map(({ leader }, g) => {
    const [terms, by] =
      hashtags[g].length > 0 ? ([hashtags[g], 'hashtags'] as const) : ([words[g], 'words'] as const);
    if (terms.length > 0) return { suggested: terms.join(', '), by };
    let suggested = `round ${leader}`;
    // Two nodes can be called the same.
    for (let n = 2; taken.has(suggested); n++) suggested = `round ${leader} (${n})`;
    taken.add(suggested);
    return { suggested, by: 'node' };
  });
}

/** Gives each group some terms that no other has. */
function shareOut(lists: readonly (readonly Term[])[]): string[][] {
  const candidates = lists.flatMap((terms, group) =>
    terms
      .filter(({ times }) => times === null || times >= TIMES)
      .map(({ label, score }) => ({ group, label, score })),
  );
  candidates.sort((a, b) => b.score - a.score || a.group - b.group || (a.label < b.label ? -1 : 1));
  const taken = new Set<string>();
  const titles = lists.map((): string[] => []);
  for (const { group, label } of candidates) {
    if (taken.has(label) || titles[group].length >= TERMS) continue;
    taken.add(label);
    titles[group].push(label);
  }
  return titles;
}
