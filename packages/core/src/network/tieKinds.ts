import type { TableColumns } from './tables';

/** Columns of the tie table that count messages by kind, with the words for one and for many. */
export const MESSAGE_KINDS = [
  ['replies', 'reply', 'replies'],
  ['comment replies', 'answer to a comment', 'answers to comments'],
  ['quotes', 'quote', 'quotes'],
  ['mentions', 'mention', 'mentions'],
  ['reposts', 'repost', 'reposts'],
  ['sent', 'email sent', 'emails sent'],
  ['copies', 'copy', 'copies'],
  ['blind copies', 'blind copy', 'blind copies'],
] as const;

/** More kinds than this are no kinds. */
const MOST_KINDS = 8;

/** Of which kind each tie is. */
export interface TieKinds {
  /** What they go by: "most messages", or the name of a column. */
  readonly by: string;
  readonly names: readonly string[];
  /** Place among the names, by tie; the number of names for a tie of no kind. */
  readonly of: Uint8Array;
}

/**
 * The kinds of ties: of messages the kind of most of them (the first of equals), otherwise the first text column with at most 8 different
 * values. Null where ties have no kinds.
 */
export function tieKinds(edges: TableColumns): TieKinds | null {
  const counted = MESSAGE_KINDS.filter(([column]) => column in edges);
  return counted.length > 0 ? byMessages(edges, counted) : byText(edges);
}

function byMessages(edges: TableColumns, kinds: readonly (typeof MESSAGE_KINDS)[number][]): TieKinds {
  const counts = kinds.map(([column]) => edges[column] as ArrayLike<number>);
  const of = Uint8Array.from(edges['source'] as ArrayLike<number>, (_, e) => {
    let best = kinds.length;
    let most = 0;
    counts.forEach((count, kind) => {
      if (count[e] > most) [best, most] = [kind, count[e]];
    });
    return best;
  });
  return {
    by: 'most messages',
    ...withoutUnused(
      kinds.map(([column]) => column),
      of,
    ),
  };
}

function byText(edges: TableColumns): TieKinds | null {
  for (const [by, column] of Object.entries(edges)) {
    if (!Array.isArray(column)) continue;
    const values = column as readonly string[];
    const names = [...new Set(values)].filter((value) => value !== '').sort();
    if (names.length === 0 || names.length > MOST_KINDS) continue;
    const place = new Map(names.map((name, i) => [name, i]));
    return { by, names, of: Uint8Array.from(values, (value) => place.get(value) ?? names.length) };
  }
  return null;
}

/** Without kinds that no tie is of. */
function withoutUnused(all: readonly string[], of: Uint8Array): Pick<TieKinds, 'names' | 'of'> {
  const used = all.map((_, kind) => of.includes(kind));
  const names = all.filter((_, kind) => used[kind]);
  const place = [...all.map((name) => names.indexOf(name)), names.length];
  return { names, of: of.map((kind) => place[kind]) };
}
