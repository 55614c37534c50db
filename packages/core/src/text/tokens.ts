// eslint-disable-next-line @typescript-eslint/triple-slash-reference -- every part that compiles this file must find the declaration
/// <reference path="./stopword.d.ts" />
import * as lists from 'stopword';
import { findSpans } from './spans';

const WORD = /\p{L}[\p{L}\p{M}]*(?:['’-]\p{L}[\p{L}\p{M}]*)*/gu;
/** Shorter words say little. */
const SHORTEST = 3;
/** Scripts that leave no space between words; a sign of them says more than a letter. */
const UNSPACED =
  /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}\p{Script=Lao}\p{Script=Khmer}\p{Script=Myanmar}]/u;
const SHORTEST_UNSPACED = 2;

/** Lists of the stopword library by language (ISO 639-1). */
const STOP_WORDS: Readonly<Record<string, readonly string[]>> = {
  en: lists.eng,
  de: lists.deu,
  fr: lists.fra,
  es: lists.spa,
  it: lists.ita,
  pt: lists.por,
  nl: lists.nld,
  sv: lists.swe,
  da: lists.dan,
  no: lists.nob,
  fi: lists.fin,
  pl: lists.pol,
  cs: lists.ces,
  ru: lists.rus,
  uk: lists.ukr,
  el: lists.ell,
  tr: lists.tur,
  ar: lists.ara,
  he: lists.heb,
};
const sets = new Map<string, ReadonlySet<string>>();

function stopWords(language: string): ReadonlySet<string> {
  let set = sets.get(language);
  if (!set) {
    const words = (STOP_WORDS[language] ?? []).map((word) => word.normalize('NFKC').toLowerCase());
    sets.set(language, (set = new Set(words)));
  }
  return set;
}

/** A text without its links, mentions and hashtags. */
export function plainText(text: string): string {
  let plain = '';
  let at = 0;
  for (const { start, end } of findSpans(text)) {
    plain += `${text.slice(at, start)} `;
    at = end;
  }
  return plain + text.slice(at);
}

/** A word of a text, in small letters, with the place in the text at which it begins. */
export interface PlacedWord {
  readonly word: string;
  readonly start: number;
}

/**
 * The words of a text in order, in small letters: no links, mentions, hashtags, numbers, words of fewer than three letters, nor the words of
 * its language that say little (stopword library; English where the language is not known).
 * @param language ISO 639-1
 */
export function placedWords(text: string, language: string | null): PlacedWord[] {
  const empty = stopWords(language ?? 'en');
  // Links, mentions and hashtags are blanked out, so that places stay what they are.
  let plain = '';
  let at = 0;
  for (const { start, end } of findSpans(text)) {
    plain += text.slice(at, start) + ' '.repeat(end - start);
    at = end;
  }
  plain += text.slice(at);
  const words: PlacedWord[] = [];
  const take = (found: string, start: number, shortest: number): void => {
    const word = found.normalize('NFKC').toLowerCase().replaceAll('’', "'");
    if (word.length < shortest || empty.has(word) || empty.has(word.replace(/(?:n't|'\p{L}+)$/u, ''))) return;
    words.push({ word, start });
  };
  for (const match of plain.matchAll(WORD))
    if (!UNSPACED.test(match[0])) take(match[0], match.index, SHORTEST);
    else
      for (const { segment, index } of wordsWithin(match[0], language))
        take(segment, match.index + index, UNSPACED.test(segment) ? SHORTEST_UNSPACED : SHORTEST);
  return words;
}

const segmenters = new Map<string, Intl.Segmenter>();

/** The words of a text in a script without spaces between them, by the dictionaries of the machine (Unicode Standard Annex 29, ICU). */
function wordsWithin(text: string, language: string | null): Iterable<Intl.SegmentData> {
  const locale = language ?? 'und';
  let segmenter = segmenters.get(locale);
  if (!segmenter) {
    const known = Intl.Segmenter.supportedLocalesOf([locale]).length > 0 ? locale : undefined;
    segmenters.set(locale, (segmenter = new Intl.Segmenter(known, { granularity: 'word' })));
  }
  return segmenter.segment(text);
}

/** The words of a text that say something, in order. */
export function contentWords(text: string, language: string | null): string[] {
  return placedWords(text, language).map(({ word }) => word);
}

/** What makes two posts the same text: small letters, without links, mentions and marks. Empty where fewer than `words` words are left. */
export function sameText(text: string, words = 4): string {
  const all =
    plainText(text)
      .normalize('NFKC')
      .toLowerCase()
      .match(/[\p{L}\p{N}]+/gu) ?? [];
  return all.length < words ? '' : all.join(' ');
}

/** The host of a link without "www."; null where it has none. */
export function domainOf(link: string): string | null {
  const host = /^[a-z][a-z0-9+.-]*:\/\/(?:[^/?#@]*@)?([^/?#:]+)/i.exec(link)?.[1];
  return host ? host.toLowerCase().replace(/^www\./, '') : null;
}

/** A link as it is compared: without scheme, "www.", fragment and a last slash. */
export function linkKey(link: string): string {
  return link
    .replace(/^[a-z][a-z0-9+.-]*:\/\//i, '')
    .replace(/^www\./i, '')
    .replace(/#.*$/, '')
    .replace(/\/$/, '')
    .replace(/^[^/?]+/, (host) => host.toLowerCase());
}

/** A name as it is compared: without case, accents stay, one space between words. */
export function nameKey(name: string): string {
  return name
    .normalize('NFKC')
    .toLowerCase()
    .replace(/[’‘]/g, "'")
    .replace(/[^\p{L}\p{N}'&-]+/gu, ' ')
    .trim();
}
