import bidiFactory from 'bidi-js';

const bidi = bidiFactory();

/** A stretch of text that is written in one direction. */
interface TextRun {
  readonly text: string;
  readonly isRightToLeft: boolean;
}

/** Marks of direction, and others that are no letters. */
const UNSEEN = /[\u200b-\u200f\u202a-\u202e\u2060-\u2069\ufe0e\ufe0f]/gu;

/** The stretches of a text in the order in which they stand from left to right (Unicode Bidirectional Algorithm, UAX #9, rule L2). */
export function visualRuns(text: string): TextRun[] {
  const { levels } = bidi.getEmbeddingLevels(text);
  const runs: { text: string; level: number }[] = [];
  for (let i = 0; i < text.length; i++) {
    const last = runs.at(-1);
    if (last && last.level === levels[i]) last.text += text[i];
    else runs.push({ text: text[i], level: levels[i] });
  }
  const highest = Math.max(0, ...runs.map(({ level }) => level));
  for (let level = highest; level > 0; level--) {
    for (let from = 0; from < runs.length; from++) {
      if (runs[from].level < level) continue;
      let until = from;
      while (until < runs.length && runs[until].level >= level) until++;
      runs.splice(from, until - from, ...runs.slice(from, until).reverse());
      from = until;
    }
  }
  return runs
    .map((run) => ({ text: run.text.replace(UNSEEN, ''), isRightToLeft: run.level % 2 === 1 }))
    .filter((run) => run.text !== '');
}
