import { findSpans } from '../text/spans';
import { placedWords, type PlacedWord, type Score, type ScoreHit, type Scorer } from './scorer';

/** Words that belittle, and how surely they do where they stand alone. */
const INSULTS: Readonly<Record<string, number>> = Object.fromEntries([
  ...words('idiot idiots idiotic moron morons moronic imbecile imbeciles cretin scum', 0.7),
  ...words(
    'stupid dumb pathetic worthless clown clowns fool fools foolish liar liars lying coward cowards',
    0.45,
  ),
  ...words('ridiculous disgusting disgrace shameful nonsense rubbish garbage trash clueless ignorant', 0.3),
  ...words('hypocrite hypocrites traitor traitors parasite parasites vermin rats crook crooks corrupt', 0.5),
]);
/** Words that are coarse whatever they are about. */
const COARSE: Readonly<Record<string, number>> = Object.fromEntries([
  ...words('damn damned bloody crap', 0.2),
  ...words('shit bullshit arse asshole bastard bastards fuck fucking fucked', 0.55),
]);
/** Patterns that turn against somebody. */
const PATTERNS: readonly (readonly [RegExp, number])[] = [
  [/\bshut (?:up|your mouth)\b/giu, 0.6],
  [/\bget lost\b|\bgo to hell\b|\bgo away\b/giu, 0.45],
  [/\byou (?:people|lot) (?:are|never|always)\b/giu, 0.25],
  [/\b(?:should|ought to|deserves? to) be (?:hanged|shot|beaten|locked up)\b/giu, 0.8],
  [/\bi(?:'|’)?(?:ll| will) (?:find|get|hurt|kill) you\b/giu, 0.9],
  [/\bhow (?:stupid|dumb) (?:are|can)\b/giu, 0.5],
  [/[!?]{3,}/gu, 0.1],
];
const YOU = /^(?:you|your|you're|youre|u|yourself)$/;
/** A belittling word within so many words of "you" is meant for somebody. */
const NEAR = 4;
const SHOUTED = 0.2;

/**
 * Incivility from 0 to 1: 1 - Π (1 - w) over the words and patterns that stand in the text, so that several together weigh more than one
 * and never above 1. Words that belittle weigh half as much again near "you"; a text of which most longer words are in capitals is
 * shouted. English alone. It cannot know irony, quotations, what friends call each other, nor incivility without such words; by common
 * practice scores from 0.7 cast a wide net, from 0.9 only severe cases. Lists and weights are our own and can be replaced.
 */
export const incivility: Scorer = {
  name: 'incivility',
  languages: ['en'],
  range: [0, 1],
  source: 'belittling and coarse words, threats and shouting, by own lists',
  score(text): Score {
    const spans = findSpans(text);
    const all = placedWords(text, spans);
    const hits: ScoreHit[] = [
      ...all.flatMap((word, i) => {
        const weight = weightOf(word, all, i);
        return weight > 0 ? [{ start: word.start, end: word.end, weight }] : [];
      }),
      ...PATTERNS.flatMap(([pattern, weight]) =>
        [...text.matchAll(pattern)].map((match) => ({
          start: match.index,
          end: match.index + match[0].length,
          weight,
        })),
      ),
    ];
    const apart = withoutOverlaps(hits);
    const weights = isShouted(all)
      ? [...apart.map(({ weight }) => weight), SHOUTED]
      : apart.map(({ weight }) => weight);
    return { value: 1 - weights.reduce((left, weight) => left * (1 - weight), 1), hits: apart };
  },
};

function words(list: string, weight: number): [string, number][] {
  return list.split(' ').map((word) => [word, weight]);
}

function weightOf({ word }: PlacedWord, all: readonly PlacedWord[], i: number): number {
  if (Object.hasOwn(COARSE, word)) return COARSE[word];
  if (!Object.hasOwn(INSULTS, word)) return 0;
  const isMeant = all.slice(Math.max(0, i - NEAR), i + NEAR + 1).some((other) => YOU.test(other.word));
  return Math.min(0.95, INSULTS[word] * (isMeant ? 1.5 : 1));
}

/** Of stretches that overlap the weightiest. */
function withoutOverlaps(hits: readonly ScoreHit[]): ScoreHit[] {
  const kept: ScoreHit[] = [];
  for (const hit of [...hits].sort((a, b) => b.weight - a.weight || a.start - b.start))
    if (!kept.some((other) => hit.start < other.end && other.start < hit.end)) kept.push(hit);
  return kept.sort((a, b) => a.start - b.start);
}

/** Four longer words at least, most of them in capitals. */
function isShouted(all: readonly PlacedWord[]): boolean {
  const long = all.filter(({ written }) => written.length > 3);
  return (
    long.length >= 4 &&
    long.filter(({ written }) => written === written.toUpperCase()).length > long.length * 0.6
  );
}
