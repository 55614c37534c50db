import fc from 'fast-check';
import { RE2JS } from 're2js';
import { folded, requiredText } from './requiredText';

describe('the text that a pattern requires', () => {
  it.each([
    ['Harbour Council', 'harbour council'],
    ['lamp(s|post)? of Sallow.*mere', ' of sallow'],
    ['\\bmoths?\\b', 'moth'],
    ['colou?rs', 'colo'],
    ['[a-z]+x12[0-9]+', 'x12'],
    ['fer+y', 'fer'],
    ['ab{0,2}cd', 'cd'],
    ['ab{2}c', 'ab'],
    ['(?i:none) here', ' here'],
    ['[\\]a]bc', 'bc'],
    ['(a[)]b)cd', 'cd'],
    ['Мосты', 'мосты'],
    ['straße', 'straße'],
  ])('of %s is “%s”', (pattern, expected) => expect(requiredText(pattern)).toBe(expected));

  it.each(['a|b', 'one|another', '.*', '\\w+', 'a', '(council)', '\\Qa.b\\E', '[[:alpha:]]bc', 'a?b?', ''])(
    'cannot be told of %s',
    (pattern) => expect(requiredText(pattern)).toBeNull(),
  );

  it('stands in every text in which the pattern finds something', () => {
    const letter = fc.constantFrom('a', 'B', 'k', 's', 'ß', 'σ', 'д', '1', ' ', '.', '-');
    const atom: fc.Arbitrary<string> = fc.letrec((tie) => ({
      atom: fc.oneof(
        { maxDepth: 3 },
        letter.map((c) => (/[.\-]/.test(c) ? `\\${c}` : c)),
        fc.constantFrom('.', '[ab]', '[^k]', '\\w', '\\b', '\\d', '^', '$'),
        fc
          .tuple(tie('many'), fc.constantFrom('(', '(?:', '(?i:'))
          .map(([inner, open]) => `${open}${String(inner)})`),
      ),
      many: fc
        .array(fc.tuple(tie('atom'), fc.constantFrom('', '', '', '?', '*', '+', '{2}', '{0,1}', '*?')), {
          maxLength: 6,
        })
        .map((parts) =>
          parts.map(([a, q]) => `${String(a)}${/^[\^$]$|^\\b$/.test(String(a)) ? '' : q}`).join(''),
        ),
    })).many as fc.Arbitrary<string>;
    const texts = fc.string({
      unit: fc.constantFrom(
        'a',
        'A',
        'b',
        'k',
        'K',
        'K',
        's',
        'S',
        'ſ',
        'ß',
        'ẞ',
        'σ',
        'ς',
        'Σ',
        'д',
        'Д',
        'ᲁ',
        '1',
        ' ',
        '.',
        '-',
      ),
      maxLength: 24,
    });
    let found = 0;
    fc.assert(
      fc.property(atom, fc.constantFrom('', 'ab', 'ks', 'σд'), texts, (pattern, sure, text) => {
        const whole = pattern + sure;
        const required = requiredText(whole);
        if (required === null || !RE2JS.compile(whole, RE2JS.CASE_INSENSITIVE).matcher(text).find()) return;
        found++;
        expect(folded(text)).toContain(required);
      }),
      { numRuns: 4000, seed: 3 },
    );
    expect(found).toBeGreaterThan(20);
  });
});
