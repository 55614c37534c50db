/** Shorter ones stand in nearly every text. */
const SHORTEST = 2;
const LITERAL = /^[\p{L}\p{N} ]$/u;
const QUANTIFIER = /^(?:[*+?]|\{\d+(?:,\d*)?\})\??/;
/** Ways of writing of which nothing is concluded: quoted stretches, named classes within classes. */
const OBSCURE = /\\[QEC]|\[\[?[:.=]|\[\^?\]/;

/** What begins a group whose content counts as it stands (RE2). */
const OPENING = /^\((?!\?)|^\(\?(?:P?<\w+>|[imsU-]*:)/;

/**
 * Stretches of which at least one stands, folded, in every folded text in which a regular expression (RE2) finds anything without regard to
 * case; null where none can be told. Of "lamp(s|post)? of Sallow.*mere" it is " of sallow", of "(quay|ferry) \w+" "quay" and "ferry".
 */
export function requiredTexts(pattern: string): readonly string[] | null {
  if (OBSCURE.test(pattern)) return null;
  return ofBranches(pattern);
}

/** Each way that a pattern may go requires something of its own. */
function ofBranches(pattern: string): readonly string[] | null {
  const all: string[] = [];
  let begin = 0;
  for (let i = 0; i <= pattern.length; i = i < pattern.length ? partEnd(pattern, i) : i + 1) {
    if (i < pattern.length && pattern[i] !== '|') continue;
    const required = ofBranch(pattern.slice(begin, i));
    if (required === null) return null;
    all.push(...required);
    begin = i + 1;
  }
  return [...new Set(all)];
}

/** Reads what stands one after the other, and takes what is least likely to stand in a text by chance. */
function ofBranch(branch: string): readonly string[] | null {
  let best: readonly string[] | null = null;
  let run = '';
  const offer = (texts: readonly string[] | null): void => {
    if (texts && shortest(texts) > (best ? shortest(best) : SHORTEST - 1)) best = texts;
  };
  const end = (): void => {
    offer([folded(run)]);
    run = '';
  };
  for (let i = 0; i < branch.length;) {
    const next = partEnd(branch, i);
    const part = branch.slice(i, next);
    const [quantifier] = QUANTIFIER.exec(branch.slice(next, next + 24)) ?? [''];
    const mayBeMissing = /^(?:[*?]|\{0)/.test(quantifier);
    if (LITERAL.test(part) && !mayBeMissing) run += part;
    else end();
    if (quantifier !== '') end();
    const opening = OPENING.exec(part);
    if (opening && !mayBeMissing) offer(ofBranches(part.slice(opening[0].length, -1)));
    i = next + quantifier.length;
  }
  end();
  return best;
}

function shortest(texts: readonly string[]): number {
  return Math.min(...texts.map((text) => [...text].length));
}

/** Where the letter, sign, group or class ends that begins at a place. */
function partEnd(pattern: string, begin: number): number {
  const sign = pattern[begin];
  if (sign === '(' || sign === '[') return closing(pattern, begin) + 1;
  return begin + (sign === '\\' ? 2 : String.fromCodePoint(pattern.codePointAt(begin)!).length);
}

/** Where a group or a class ends that begins at a place; the end of the pattern where it does not. */
function closing(pattern: string, begin: number): number {
  const isClass = pattern[begin] === '[';
  let depth = 0;
  for (let i = begin; i < pattern.length; i++) {
    const sign = pattern[i];
    if (sign === '\\') i++;
    else if (isClass && sign === ']') return i;
    else if (!isClass && sign === '[') i = closing(pattern, i);
    else if (!isClass && sign === '(') depth++;
    else if (!isClass && sign === ')' && --depth === 0) return i;
  }
  return pattern.length;
}

/** Letters that differ in case alone become one, each by itself: what is around a letter changes nothing, as in regular expressions. */
export function folded(text: string): string {
  if (/^[\x00-\x7f]*$/.test(text)) return text.toLowerCase();
  let result = '';
  for (const sign of text) {
    const upper = sign.toUpperCase();
    // Some have no large form of one letter (ß).
    result += ([...upper].length === 1 ? upper : sign).toLowerCase();
  }
  return result;
}
