/** English words that often begin a sentence or follow one without a space: "We won.it was", "@bob.It is". Some are top-level domains too. */
export const SENTENCE_WORDS: ReadonlySet<string> = new Set(
  `a all am an and are as at be but by can do for from had has have he here how i if in is it just me my no not now of on one or our out she
  so that the their there they this to us was we were what when where which who why will yes you your`.split(
    /\s+/,
  ),
);
