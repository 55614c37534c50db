import { RE2JS } from 're2js';
import { BadPattern, patternNames } from './namePatterns';
import { nameKey } from './tokens';

describe('names by patterns', () => {
  const labels = (patterns: readonly string[], text: string): string[] =>
    patternNames(patterns, 'organisation')(text).map(({ label }) => label);

  it('are what the patterns find, each once, whatever its case', () => {
    const text = 'The Lighting Board met. The lighting  board and the Harbour Boards did not.';
    expect(labels(['\\b\\w+ +boards?\\b'], text)).toEqual(['Lighting Board', 'Harbour Boards']);
    expect(patternNames(['quay'], 'place')('the Quay')).toEqual([{ label: 'Quay', kind: 'place' }]);
  });

  it.each([
    ['(harbour', 'missing closing )'],
    ['a**', 'invalid nested repetition operator'],
    ['(a)\\1', 'invalid escape sequence'],
    ['(?=x)y', ''],
    ['x*', 'it fits where nothing stands'],
  ])('refuse %s with its reason', (pattern, reason) => {
    expect(() => patternNames([pattern], 'unknown')).toThrow(BadPattern);
    expect(() => patternNames([pattern], 'unknown')).toThrow(reason);
  });

  it('find the same as each pattern tried alone, also where there are thousands', () => {
    const words = 'lamp quay moth ferry Straße ΣΊΣΥΦΟΣ мост K2 Harbour'.split(' ');
    const patterns = Array.from({ length: 3000 }, (_, i) => {
      const word = words[i % words.length];
      return [
        `${word} ${i}`,
        `\\b${word}s?${i % 7}\\b`,
        `(${word}|x${i})+ \\d`,
        `[${word[0]}x]${word.slice(1)}`,
      ][i % 4];
    });
    const text = 'Lamps3 at the QUAY 4: moth4 moth 1002, STRASSE straße 4, σίσυφοσ 5, МОСТ6, k2 7 harbour';
    const alone = new Set(
      patterns.flatMap((pattern) => {
        const matcher = RE2JS.compile(pattern, RE2JS.CASE_INSENSITIVE).matcher(text);
        const all: string[] = [];
        while (matcher.find()) all.push(nameKey(matcher.group()!));
        return all;
      }),
    );
    const together = labels(patterns, text).map(nameKey);
    expect(together.length).toBeGreaterThan(5);
    expect(new Set(together)).toEqual(alone);
  });

  it('end also where a backtracking engine would not (nested quantifiers, common practice)', () => {
    const find = patternNames(['(a+)+b'], 'unknown');
    expect(find('a'.repeat(50_000))).toEqual([]);
  });
});
