import { BadPattern, patternNames } from './namePatterns';

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

  it('end also where a backtracking engine would not (nested quantifiers, common practice)', () => {
    const find = patternNames(['(a+)+b'], 'unknown');
    expect(find('a'.repeat(50_000))).toEqual([]);
  });
});
