/** A stretch of a text that made its score, and what it counts for. */
export interface ScoreHit {
  readonly start: number;
  readonly end: number;
  readonly weight: number;
}

export interface Score {
  readonly value: number;
  readonly hits: readonly ScoreHit[];
}

/** Gives a message a number by its text alone. A scorer is one file; another one is put beside it in `scorers`. */
export interface Scorer {
  readonly name: 'tone' | 'incivility';
  /** Languages that it understands (ISO 639-1). */
  readonly languages: readonly string[];
  readonly range: readonly [least: number, most: number];
  /** What it is and where it comes from, for the methods of a paper. */
  readonly source: string;
  score(text: string): Score;
}

const WORD = /\p{L}[\p{L}\p{M}]*(?:['’]\p{L}+)*/gu;

/** A word of a text, in small letters, with its place. */
export interface PlacedWord {
  readonly word: string;
  readonly written: string;
  readonly start: number;
  readonly end: number;
}

/** The words of a text with their places; those inside the given stretches (links, mentions, hashtags) are left out. */
export function placedWords(
  text: string,
  aside: readonly { readonly start: number; readonly end: number }[],
): PlacedWord[] {
  return [...text.matchAll(WORD)].flatMap((match) => {
    const start = match.index;
    const end = start + match[0].length;
    if (aside.some((span) => start < span.end && span.start < end)) return [];
    return [{ word: match[0].toLowerCase().replaceAll('’', "'"), written: match[0], start, end }];
  });
}
