import type { TextSpan } from '@pebble/contract';

/**
 * A hashtag as Unicode Annex 31 (UAX31-R8) defines it: a number sign that follows no identifier character, and then
 * characters of XID_Continue, pictographs and their joiners. The hyphen and the plus sign, which the annex also allows,
 * end a hashtag here, as they do in common practice; and a number alone ("#1") is none.
 */
const HASHTAG =
  /(?<![\p{XIDC}&#﹟＃/])[#﹟＃]((?:[\p{XIDC}]|\p{Extended_Pictographic}|\p{Emoji_Modifier}|\p{Regional_Indicator}|[\u200d\ufe0f])+)/gu;

const NUMBER_ALONE = /^[\p{Nd}_]+$/u;

/** Hashtags of a text, in order; the key is the tag as written, without its sign. */
export function findHashtags(text: string): TextSpan[] {
  if (!/[#﹟＃]/.test(text)) return [];
  const found: TextSpan[] = [];
  for (const match of text.matchAll(HASHTAG)) {
    const tag = match[1];
    if (NUMBER_ALONE.test(tag)) continue;
    found.push({ start: match.index, end: match.index + match[0].length, what: 'hashtag', key: tag });
  }
  return found;
}

/** What two spellings of one hashtag have in common: compatibility form without case. */
export function hashtagKey(tag: string): string {
  return tag.normalize('NFKC').toLowerCase();
}
