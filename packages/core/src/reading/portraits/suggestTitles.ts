import type { PortraitHead, Term } from '@pebble/contract';

/** What a title can be made of. */
export interface TitleSource {
  /** What the group is called already; null where it has a number alone. */
  readonly name: string | null;
  readonly hashtags: readonly Term[];
  readonly words: readonly Term[];
  /** The node that leads the group. */
  readonly leader: string;
}

/** Terms in a title. */
const TERMS = 2;
/** Letters of a title of several terms. */
const LONGEST = 24;
/** A term says what a group is about where its share is at least so many times the one elsewhere. */
const TIMES = 2;

type Title = Pick<PortraitHead, 'suggested' | 'by'>;

/**
 * A title for each group: the name that it has, its most typical hashtags, or else its most typical words, or else "round" the node that leads it. A term that is
 * typical of several groups goes to the one of which it is most so; no two titles are the same.
 */
export function suggestTitles(groups: readonly TitleSource[]): Title[] {
  const hashtags = shareOut(groups.map((group) => (group.name === null ? group.hashtags : [])));
  const words = shareOut(
    groups.map((group, g) => (group.name === null && hashtags[g].length === 0 ? group.words : [])),
  );
  const taken = new Set<string>();
  return groups.map(({ leader, name }, g) => {
    if (name !== null) return { suggested: name, by: 'name' };
    const [terms, by] =
      hashtags[g].length > 0 ? ([hashtags[g], 'hashtags'] as const) : ([words[g], 'words'] as const);
    if (terms.length > 0) return { suggested: shortly(terms), by };
    let suggested = `round ${leader}`;
    // Two nodes can be called the same.
    for (let n = 2; taken.has(suggested); n++) suggested = `round ${leader} (${n})`;
    taken.add(suggested);
    return { suggested, by: 'node' };
  });
}

/** As many of the terms as a legend has room for, at least the first. */
function shortly([first, ...others]: readonly string[]): string {
  return others.reduce((title, term) => {
    const longer = `${title}, ${term}`;
    return [...longer].length <= LONGEST ? longer : title;
  }, first);
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
