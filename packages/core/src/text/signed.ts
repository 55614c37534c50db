import type { TextSpan } from '@pebble/contract';

/** What a kind of signed word ("@name", "#tag") looks like. */
export interface SignedWord {
  readonly what: 'mention' | 'hashtag';
  /** The sign, with the flag g. Without the Unicode flag: every text is searched for it, and that must be quick. */
  readonly sign: RegExp;
  /** A character before the sign that makes it a part of something else, with the flag u. */
  readonly inside: RegExp;
  /** What follows the sign, with the flags y and u. */
  readonly body: RegExp;
  /** The key of a match, or null when it is none after all. */
  key(match: RegExpExecArray): string | null;
}

/**
 * Signed words of a text, in order of place. Looking for the sign first and at its surroundings only then is several times
 * quicker than one expression with a look behind.
 */
export function findSigned(text: string, { what, sign, inside, body, key }: SignedWord): TextSpan[] {
  const found: TextSpan[] = [];
  sign.lastIndex = 0;
  while (sign.test(text)) {
    const after = sign.lastIndex;
    if (after > 1 && inside.test(characterBefore(text, after - 1))) continue;
    body.lastIndex = after;
    const match = body.exec(text);
    if (!match) continue;
    const known = key(match);
    if (known === null) {
      sign.lastIndex = after + match[0].length;
      continue;
    }
    // A key that is the beginning of what was found is all that is meant.
    const end = match[0].startsWith(known) ? after + known.length : body.lastIndex;
    found.push({ start: after - 1, end, what, key: known });
    sign.lastIndex = end;
  }
  return found;
}

/** The whole character that ends before `place`, also where it takes two code units. */
function characterBefore(text: string, place: number): string {
  const unit = text.charCodeAt(place - 1);
  const isSecondHalf = unit >= 0xdc00 && unit < 0xe000;
  return text.slice(isSecondHalf ? Math.max(0, place - 2) : place - 1, place);
}
