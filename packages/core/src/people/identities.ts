/** What a person, or what a person wrote, can be found by. */
export type IdentityKind = 'handle' | 'name' | 'mail address' | 'message' | 'link';

export interface Identity {
  readonly kind: IdentityKind;
  /** As it is written. */
  readonly text: string;
}

/** Where one of them stands in what is to go out. */
export interface Leak extends Identity {
  readonly place: string;
  /** The words about it. */
  readonly context: string;
}

/** Scripts that are written without spaces: each of their signs counts as a word. */
const ALONE =
  '\\p{Script=Han}\\p{Script=Hiragana}\\p{Script=Katakana}\\p{Script=Thai}\\p{Script=Khmer}\\p{Script=Lao}';
const WORDS = new RegExp(`[${ALONE}]|(?:(?![${ALONE}])[\\p{L}\\p{N}\\p{M}])+`, 'gu');
/** Longer ones, as links, are known by their last words. */
const MOST_WORDS = 8;
/** Numbers of fewer digits stand everywhere. */
const LEAST_DIGITS = 6;
const BEFORE = 30;

/** A word of a text, and where it stands. */
interface Word {
  readonly text: string;
  readonly at: number;
}

/**
 * Finds all that people can be found by, as a stranger would who searches for it: whatever signs stand between the words of a handle or a
 * name ("harbour_post", "Harbour Post", "harbour-post"), in capitals or not, whole words only. A name of one word is found where it
 * is written alike, since many are words too; a number, from six digits on.
 */
export class IdentityFinder {
  private readonly known = new Map<string, Identity>();
  private readonly lengths = new Set<number>();

  constructor(identities: Iterable<Identity>) {
    for (const identity of identities) {
      // A link leads to the same by either protocol.
      const words = wordsOf(identity.text.replace(/^https?:\/\//i, '')).slice(-MOST_WORDS);
      if (words.length === 0 || isTooCommon(identity, words)) continue;
      const key = keyOf(words, isAsWritten(identity, words));
      if (this.known.has(key)) continue;
      this.known.set(key, identity);
      this.lengths.add(words.length);
    }
  }

  /** Whether somebody is known by this. */
  knows(text: string): boolean {
    return this.find('', text).length > 0;
  }

  /** @param place where the text stands, for people */
  find(place: string, text: string): Leak[] {
    const plain = text.normalize('NFKC');
    const words = wordsOf(plain);
    const leaks: Leak[] = [];
    for (let first = 0; first < words.length; first++)
      for (const length of this.lengths) {
        if (first + length > words.length) continue;
        const part = words.slice(first, first + length);
        const found =
          this.known.get(keyOf(part, false)) ??
          (length === 1 ? this.known.get(keyOf(part, true)) : undefined);
        if (!found) continue;
        const { at } = part[0];
        const end = part[length - 1].at + part[length - 1].text.length;
        const context = `${at > BEFORE ? '…' : ''}${plain.slice(Math.max(0, at - BEFORE), end + BEFORE)}`;
        leaks.push({ ...found, place, context: context.replace(/\s+/gu, ' ').trim() });
      }
    return leaks;
  }
}

function wordsOf(text: string): Word[] {
  return Array.from(text.normalize('NFKC').matchAll(WORDS), (match) => ({ text: match[0], at: match.index }));
}

/** Words as written are marked, so that the others are not taken for them. */
function keyOf(words: readonly Word[], asWritten: boolean): string {
  return asWritten ? `=${words[0].text}` : words.map(({ text }) => text.toLowerCase()).join(' ');
}

function isAsWritten({ kind }: Identity, words: readonly Word[]): boolean {
  return kind === 'name' && words.length === 1;
}

function isTooCommon({ kind, text }: Identity, words: readonly Word[]): boolean {
  if (kind === 'message') return text.length < LEAST_DIGITS;
  return words.length === 1 && /^\p{N}+$/u.test(words[0].text) && words[0].text.length < LEAST_DIGITS;
}
