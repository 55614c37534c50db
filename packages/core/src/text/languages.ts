// eslint-disable-next-line @typescript-eslint/triple-slash-reference -- every part that compiles this file must find the declaration
/// <reference path="./eld.d.ts" />
import { findSpans } from './spans';

/** Letters that a text must have, beside its links, mentions and hashtags, before its language is told. */
const FEWEST_LETTERS = 8;

/** "und" stands for a language that cannot be told (BCP 47). */
export const UNTOLD = 'und';

/**
 * A function that tells the language of a text as a code of ISO 639-1, by the letter sequences that the eld library knows of 60 languages;
 * "und" where the text is too short or the library is not sure. Its data (some 150 MB in memory) are loaded when they are needed.
 */
export async function languageDetector(): Promise<(text: string) => string> {
  const { eld } = await import('eld/small');
  return (text) => {
    const words = proseOf(text);
    if ((words.match(/\p{L}/gu)?.length ?? 0) < FEWEST_LETTERS) return UNTOLD;
    const found = eld.detect(words);
    return found.language !== '' && found.isReliable() ? found.language : UNTOLD;
  };
}

/** The main part of a language tag that somebody gave: "en" of "EN-gb"; null where it is none. */
export function languageCode(given: string): string | null {
  const code = /^([A-Za-z]{2,3})(?:[-_].*)?$/.exec(given.trim())?.[1].toLowerCase();
  return code ?? null;
}

/** A text without its links, mentions and hashtags. */
function proseOf(text: string): string {
  let at = 0;
  let words = '';
  for (const { start, end } of findSpans(text)) {
    words += `${text.slice(at, start)} `;
    at = end;
  }
  return words + text.slice(at);
}
