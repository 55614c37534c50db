import { RE2JS, RE2JSException } from 're2js';
import type { TidyKind } from '@pebble/contract';
import { nameKey } from './tokens';
import type { NameFinder } from './names';
import { folded, requiredTexts } from './requiredText';

/** Patterns that find more than this in one text are too wide to be names. */
const MOST_IN_ONE = 50;
const LONGEST = 200;

/** A pattern that cannot be used. */
export class BadPattern extends Error {
  constructor(
    readonly pattern: string,
    readonly reason: string,
  ) {
    super(`The pattern “${pattern}” cannot be used: ${reason}.`);
  }
}

/**
 * Names by regular expressions, whole words or parts as they are written, without regard to case. The RE2 engine (re2js library) takes time
 * in proportion to the length of the text whatever the pattern is; what it cannot do in that time, such as looking back at groups, is no part
 * of its language. What a pattern finds is the name; several spellings become several names, which can be merged.
 * Throws BadPattern.
 */
export function patternNames(patterns: readonly string[], kind: TidyKind): NameFinder {
  const compiled = patterns.map((pattern) => {
    try {
      const made = RE2JS.compile(pattern, RE2JS.CASE_INSENSITIVE);
      if (made.matcher('').find()) throw new BadPattern(pattern, 'it fits where nothing stands');
      return { made, required: requiredTexts(pattern) };
    } catch (error) {
      if (error instanceof RE2JSException) throw new BadPattern(pattern, plain(error.message));
      throw error;
    }
  });
  return (text) => {
    const found = new Map<string, string>();
    const plainly = folded(text);
    for (const { made, required } of compiled) {
      // To look for a stretch is a hundred times as fast as to try a pattern.
      if (required !== null && !required.some((one) => plainly.includes(one))) continue;
      const matcher = made.matcher(text);
      for (let count = 0; count < MOST_IN_ONE && matcher.find(); count++) {
        const label = matcher.group()?.replace(/\s+/g, ' ').trim() ?? '';
        const key = nameKey(label);
        if (key !== '' && label.length <= LONGEST && !found.has(key)) found.set(key, label);
      }
    }
    return [...found.values()].map((label) => ({ label, kind }));
  };
}

/** The reason alone, without the pattern, which is named beside it. */
function plain(message: string): string {
  return message
    .replace(/^error parsing regexp:\s*/i, '')
    .replace(/: `[^]*`$/, '')
    .trim();
}
