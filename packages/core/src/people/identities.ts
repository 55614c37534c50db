import type { Leak, LeakKind } from '@pebble/contract';

/** Something by which a person can be found. */
export interface Identity {
  readonly kind: LeakKind;
  /** As it is written. */
  readonly text: string;
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
  /** In small letters. */
  readonly key: string;
  readonly at: number;
}

/**
 * Finds all that people can be found by, as a stranger would who searches for it: whatever signs stand between the words of a handle or a
 * name ("harbour_post", "Harbour Post", "harbour-post"), in capitals or not, whole words only. A name of one word is found where it
 * is written alike, since many are words too; a number, from six digits on.
 */
export class IdentityFinder {
  private readonly known = new Map<string, Identity>();
  /** By their first words: of how many words those are that begin so. */
  private readonly lengths = new Map<string, number[]>();
  private readonly asWritten = new Map<string, Identity>();

  constructor(identities: Iterable<Identity>) {
    for (const identity of identities) {
      // A link leads to the same by either protocol.
      const words = wordsOf(identity.text.normalize('NFKC').replace(/^https?:\/\//i, '')).slice(-MOST_WORDS);
      if (words.length === 0 || isTooCommon(identity, words)) continue;
      if (identity.kind === 'name' && words.length === 1) {
        if (!this.asWritten.has(words[0].text)) this.asWritten.set(words[0].text, identity);
        continue;
      }
      const key = keyOf(words, 0, words.length);
      if (this.known.has(key)) continue;
      this.known.set(key, identity);
      const lengths = this.lengths.get(words[0].key);
      if (!lengths) this.lengths.set(words[0].key, [words.length]);
      else if (!lengths.includes(words.length)) lengths.push(words.length);
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
    const add = (found: Identity | undefined, first: number, length: number): void => {
      if (!found) return;
      const { at } = words[first];
      const last = words[first + length - 1];
      const context = `${at > BEFORE ? '…' : ''}${plain.slice(Math.max(0, at - BEFORE), last.at + last.text.length + BEFORE)}`;
      leaks.push({
        kind: found.kind,
        text: found.text,
        place,
        context: context.replace(/\s+/gu, ' ').trim(),
      });
    };
    for (let first = 0; first < words.length; first++) {
      for (const length of this.lengths.get(words[first].key) ?? NONE)
        if (first + length <= words.length) add(this.known.get(keyOf(words, first, length)), first, length);
      add(this.asWritten.get(words[first].text), first, 1);
    }
    return leaks;
  }
}

const NONE: readonly number[] = [];

function wordsOf(text: string): Word[] {
  return Array.from(text.matchAll(WORDS), ({ 0: word, index: at }) => ({
    text: word,
    key: word.toLowerCase(),
    at,
  }));
}

function keyOf(words: readonly Word[], first: number, length: number): string {
  let key = words[first].key;
  for (let i = first + 1; i < first + length; i++) key += ` ${words[i].key}`;
  return key;
}

function isTooCommon({ kind, text }: Identity, words: readonly Word[]): boolean {
  if (kind === 'message') return text.length < LEAST_DIGITS;
  return words.length === 1 && /^\p{N}+$/u.test(words[0].text) && words[0].text.length < LEAST_DIGITS;
}
