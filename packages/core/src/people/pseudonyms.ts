import { FIRST_WORDS, SECOND_WORDS } from './pseudonymWords';

/** What somebody is called in what is published: a number, and words; each is nobody else's. */
export interface Pseudonym {
  readonly number: number;
  readonly words: string;
}

/** Someone who has no pseudonym yet. */
export interface Newcomer {
  /** By which the person is known in the study. */
  readonly key: string;
  /**
   * Bytes that follow from the person and a secret of the study, so that nobody can come to them by trying handles: a message
   * authentication code (HMAC, RFC 2104). At least 8 of them, others for each attempt.
   */
  digest(attempt: number): Uint8Array;
}

/** What is taken already. */
export interface Taken {
  /** The highest number. */
  readonly number: number;
  hasWords(words: string): boolean;
  /** Whether somebody really is called so: then it is no pseudonym. */
  isCalled(name: string): boolean;
}

/**
 * Gives each newcomer a number and words. The order of numbers follows from digests alone, so that it says nothing of who came first or
 * has most ties; two of the same words are told apart by trying others, and then by a number behind them.
 */
export function givePseudonyms(newcomers: readonly Newcomer[], taken: Taken): Map<string, Pseudonym> {
  const given = new Map<string, Pseudonym>();
  const used = new Set<string>();
  const drawn = newcomers
    .map((one) => ({ one, order: hex(one.digest(0)) }))
    .sort((a, b) => (a.order < b.order ? -1 : a.order > b.order ? 1 : a.one.key < b.one.key ? -1 : 1));
  let number = taken.number;
  for (const { one } of drawn) {
    const words = freeWords(one, (name) => !used.has(name) && !taken.hasWords(name) && !taken.isCalled(name));
    used.add(words);
    given.set(one.key, { number: ++number, words });
  }
  return given;
}

/** Attempts with two words alone, before a number comes behind them; further ones have longer numbers. */
const WORDS_ALONE = 3;
const SHORT_NUMBERS = 8;

function freeWords({ digest }: Newcomer, isFree: (name: string) => boolean): string {
  for (let attempt = 0; ; attempt++) {
    const bytes = digest(attempt);
    const two = `${FIRST_WORDS[uint16(bytes, 0) % FIRST_WORDS.length]} ${SECOND_WORDS[uint16(bytes, 2) % SECOND_WORDS.length]}`;
    const far = attempt < SHORT_NUMBERS ? 98 : 100_000;
    const name =
      attempt < WORDS_ALONE ? two : `${two} ${2 + ((uint16(bytes, 4) * 65_536 + uint16(bytes, 6)) % far)}`;
    if (isFree(name)) return name;
  }
}

function uint16(bytes: Uint8Array, at: number): number {
  return bytes[at] * 256 + bytes[at + 1];
}

function hex(bytes: Uint8Array): string {
  return Array.from(bytes, (byte) => byte.toString(16).padStart(2, '0')).join('');
}
