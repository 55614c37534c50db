import fc from 'fast-check';
import { computeFormula, FormulaError } from './formula';

const table = {
  handle: ['ann', 'ben', 'cy', 'dot'],
  inDegree: Uint32Array.of(4, 0, 2, 2),
  outDegree: Uint32Array.of(2, 0, 1, 4),
  closeness: Float64Array.of(0.5, NaN, 0.25, 0.1),
  kind: ['press', 'person', 'press', ''],
};
const columns = [
  { name: 'inDegree', title: 'in-degree' },
  { name: 'outDegree', title: 'out-degree' },
  { name: 'closeness', title: 'closeness' },
  { name: 'kind', title: 'kind' },
];
const of = (formula: string): number[] => [...computeFormula(formula, table, columns, 4).values];

describe('computeFormula', () => {
  it.each([
    ['[in-degree] + [out-degree] * 2', [8, 0, 4, 10]],
    ['([in-degree] + outDegree) * 2', [12, 0, 6, 12]],
    ['[in-degree] / [out-degree]', [2, NaN, 2, 0.5]],
    ['-[in-degree] ^ 2', [16, 0, 4, 4]],
    ['2 ^ 3 ^ 2', [512, 512, 512, 512]],
    ['closeness * 10', [5, NaN, 2.5, 1]],
    ['[in-degree] >= 2', [1, 0, 1, 1]],
    ['[in-degree] = [out-degree]', [0, 1, 0, 0]],
    ['[in-degree] <> 2', [1, 1, 0, 0]],
    ['if([in-degree] > [out-degree], 1, -1)', [1, -1, 1, -1]],
    ['if(closeness > 0.2, 1, 0)', [1, NaN, 1, 0]],
    ['min([in-degree], [out-degree])', [2, 0, 1, 2]],
    ['max([in-degree])', [4, 4, 4, 4]],
    ['[in-degree] / max([in-degree])', [1, 0, 0.5, 0.5]],
    ['mean(closeness) * 60', [17, 17, 17, 17]],
    ['sum([out-degree])', [7, 7, 7, 7]],
    ['rank([in-degree])', [1, 4, 2, 2]],
    ['percentile([in-degree])', [100, 0, 50, 50]],
    ['round(log([in-degree]) * 100)', [139, NaN, 69, 69]],
    ['log10(100) + abs(-3) + sqrt(16)', [9, 9, 9, 9]],
    ['[kind] = "press"', [1, 0, 1, 0]],
    ['and([in-degree] > 0, not([kind] = "press"))', [0, 0, 0, 1]],
    ['OR([in-degree] = 0, [in-degree] = 4)', [1, 1, 0, 0]],
  ])('%s', (formula, expected) => {
    expect(of(formula).map((value) => +value.toFixed(6))).toEqual(expected);
  });

  it('says which columns it uses, and how many rows have no value', () => {
    expect(computeFormula('closeness / outDegree', table, columns, 4)).toMatchObject({
      uses: ['closeness', 'out-degree'],
      without: 1,
    });
  });

  it.each([
    ['[in-degre] + 1', 'There is no column “in-degre”. Is [in-degree] meant?'],
    ['nothing', 'There is no column “nothing”. Columns stand in square brackets.'],
    ['[in-degree] +', 'The formula cannot be read to its end'],
    ['([in-degree]', 'The formula cannot be read'],
    ['', 'Write a formula'],
    ['median([in-degree])', 'There is no function “median”. There are abs, and, if'],
    ['if(1, 2)', 'if() takes 3 values, not 2.'],
    ['rank()', 'rank() takes 1 value, not 0.'],
    ['min()', 'at least one'],
    ['[kind] + 1', 'Texts can only be compared'],
    ['"a"', 'Texts can only be compared'],
    ['[in-degree], 3', 'Only numbers, columns, signs and functions'],
  ])('refuses %s', (formula, message) => {
    expect(() => of(formula)).toThrow(FormulaError);
    expect(() => of(formula)).toThrow(message);
  });

  it.each([
    'constructor',
    'process.exit()',
    'constructor("return 1")()',
    'this',
    '__proto__',
    'toString()',
    'x => 1',
  ])('runs nothing: %s is refused', (formula) => {
    expect(() => of(formula)).toThrow(FormulaError);
  });

  it('never fails in another way, whatever is written', () => {
    const signs = fc.constantFrom(
      '[in-degree]',
      'closeness',
      '(',
      ')',
      '+',
      '-',
      '*',
      '/',
      '^',
      '=',
      '<',
      'if',
      'min',
      ',',
      '1',
      '"a"',
      ' ',
      '.',
      '$0',
      '[',
    );
    fc.assert(
      fc.property(fc.array(signs, { maxLength: 12 }), (parts) => {
        try {
          expect(of(parts.join(''))).toHaveLength(4);
        } catch (error) {
          expect(error).toBeInstanceOf(FormulaError);
        }
      }),
      { numRuns: 500 },
    );
  });
});

describe('a long formula', () => {
  it('is gone through once: each of its parts is computed one time', () => {
    let reads = 0;
    const table = {
      get size() {
        reads++;
        return Float64Array.of(1, 2);
      },
    };
    const columns = [{ name: 'size', title: 'size' }];
    const terms = 380;
    const formula = Array.from({ length: terms }, () => '[size]').join('+');
    const { values } = computeFormula(formula, table, columns, 2);
    expect([...values]).toEqual([terms, 2 * terms]);
    expect(reads).toBe(terms);
  });
});
