import type { TextSpan } from '@pebble/contract';
import { findSigned, type SignedWord } from './signed';

/**
 * A hashtag as Unicode Annex 31 (UAX31-R8) defines it: a number sign that follows no identifier character, and then
 * characters of XID_Continue, pictographs and their joiners. The hyphen and the plus sign, which the annex also allows,
 * end a hashtag here, as they do in common practice; and a number alone ("#1") is none.
 */
const HASHTAG: SignedWord = {
  what: 'hashtag',
  sign: /[#﹟＃]/g,
  inside: /[\p{XIDC}&#﹟＃/]/u,
  body: /(?:[\p{XIDC}]|\p{Extended_Pictographic}|\p{Emoji_Modifier}|\p{Regional_Indicator}|[\u200d\ufe0f])+/uy,
  key: ([tag]) => (NUMBER_ALONE.test(tag) ? null : tag),
};

const NUMBER_ALONE = /^[\p{Nd}_]+$/u;

/** Hashtags of a text, in order; the key is the tag as written, without its sign. */
export function findHashtags(text: string): TextSpan[] {
  return findSigned(text, HASHTAG);
}

/** What two spellings of one hashtag have in common: compatibility form without case. */
export function hashtagKey(tag: string): string {
  return tag.normalize('NFKC').toLowerCase();
}
