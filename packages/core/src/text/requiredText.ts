/** Shorter ones stand in nearly every text. */
const SHORTEST = 2;
const LITERAL = /[\p{L}\p{N} ]/u;
const QUANTIFIER = /^(?:[*+?]|\{\d+(?:,\d*)?\})\??/;
/** Ways of writing of which nothing is concluded: quoted stretches, named classes within classes. */
const OBSCURE = /\\[QEC]|\[\[?[:.=]|\[\^?\]/;

/**
 * A stretch that stands, folded, in every folded text in which a regular expression (RE2) finds anything without regard to case; null where
 * none can be told. Reads what stands outside of groups and classes: of "lamp(s|post)? of Sallow.*mere" it is " of sallow".
 */
export function requiredText(pattern: string): string | null {
  if (OBSCURE.test(pattern)) return null;
  let longest = '';
  let run = '';
  const end = (): void => {
    if (run.length > longest.length) longest = run;
    run = '';
  };
  for (let i = 0; i < pattern.length;) {
    const sign = String.fromCodePoint(pattern.codePointAt(i)!);
    if (sign === '|') return null;
    const next =
      sign === '(' || sign === '[' ? closing(pattern, i) + 1 : i + (sign === '\\' ? 2 : sign.length);
    const [quantifier] = QUANTIFIER.exec(pattern.slice(next, next + 24)) ?? [''];
    const mayBeMissing = /^(?:[*?]|\{0)/.test(quantifier);
    if (!LITERAL.test(sign) || mayBeMissing) end();
    else run += sign;
    if (quantifier !== '') end();
    i = next + quantifier.length;
  }
  end();
  const found = folded(longest);
  return [...found].length >= SHORTEST ? found : null;
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
  // eslint-disable-next-line no-control-regex
  if (/^[\x00-\x7f]*$/.test(text)) return text.toLowerCase();
  let result = '';
  for (const sign of text) {
    const upper = sign.toUpperCase();
    // Some have no large form of one letter (ß).
    result += ([...upper].length === 1 ? upper : sign).toLowerCase();
  }
  return result;
}
