import fc from 'fast-check';
import { RE2JS } from 're2js';
import { folded, requiredTexts } from './requiredText';

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
    ['one|another', 'one, another'],
    ['(quay|ferry) \\w+', 'quay, ferry'],
    ['(?:quay|(old )?ferry)x? [a-z]+ late', ' late'],
    ['(?i)quays', 'quays'],
    ['(?P<what>quay){2}', 'quay'],
    ['(council)', 'council'],
  ])('of %s is: %s', (pattern, expected) => expect(requiredTexts(pattern)).toEqual(expected.split(', ')));

  it.each([
    'a|b',
    'one|',
    'one|.',
    '.*',
    '\\w+',
    'a',
    '(quay)?',
    '(quay|.)',
    '(?i)',
    '\\Qa.b\\E',
    '[[:alpha:]]bc',
    'a?b?',
    '',
  ])('cannot be told of %s', (pattern) => expect(requiredTexts(pattern)).toBeNull());

  it('stands in every text in which the pattern finds something', () => {
    const letter = fc.constantFrom('a', 'B', 'k', 's', 'ß', 'σ', 'д', '1', ' ', '.', '-');
    const atom: fc.Arbitrary<string> = fc.letrec((tie) => ({
      atom: fc.oneof(
        { maxDepth: 3 },
        letter.map((c) => (/[.-]/.test(c) ? `\\${c}` : c)),
        fc.constantFrom('|', '.', '[ab]', '[^k]', '\\w', '\\b', '\\d', '^', '$'),
        fc
          .tuple(tie('many'), fc.constantFrom('(', '(?:', '(?i:'))
          .map(([inner, open]) => `${open}${String(inner)})`),
      ),
      many: fc
        .array(fc.tuple(tie('atom'), fc.constantFrom('', '', '', '?', '*', '+', '{2}', '{0,1}', '*?')), {
          maxLength: 6,
        })
        .map((parts) =>
          parts.map(([a, q]) => `${String(a)}${/^[\^$|]$|^\\b$/.test(String(a)) ? '' : q}`).join(''),
        ),
    })).many;
    const texts = fc.string({
      unit: fc.constantFrom(...'aAbkK\u212asS\u017fßẞσςΣдД\u1c81 1.-'),
      maxLength: 24,
    });
    let found = 0;
    fc.assert(
      fc.property(atom, fc.constantFrom('', 'ab', 'ks', 'σд'), texts, (pattern, sure, text) => {
        const whole = pattern + sure;
        const required = requiredTexts(whole);
        if (required === null || !RE2JS.compile(whole, RE2JS.CASE_INSENSITIVE).matcher(text).find()) return;
        found++;
        expect(required.some((one) => folded(text).includes(one))).toBe(true);
      }),
      { numRuns: 4000, seed: 3 },
    );
    expect(found).toBeGreaterThan(20);
  });
});
