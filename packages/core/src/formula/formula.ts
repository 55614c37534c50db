import jsep from 'jsep';
import { percentiles, ranks } from '../measures/ranks/ranks';
import type { TableColumns } from '../network/tables';

/** A formula that cannot be computed, said so that its writer can mend it. */
export class FormulaError extends Error {}

type Values = readonly number[] | Float64Array;
type Value = { readonly numbers: Values } | { readonly texts: readonly string[] };

/** What a formula gives: a number for each row, NaN where there is none. */
export interface Computed {
  readonly values: Float64Array;
  /** Titles of the columns that it uses. */
  readonly uses: readonly string[];
  /** Rows without a value. */
  readonly without: number;
}

// Signs as spreadsheets have them: = and <> compare, ^ raises to a power.
jsep.removeAllUnaryOps();
jsep.removeAllBinaryOps();
jsep.removeAllLiterals();
jsep.addUnaryOp('-');
jsep.addUnaryOp('+');
for (const sign of ['=', '==', '<>', '!=', '<', '<=', '>', '>=']) jsep.addBinaryOp(sign, 1);
for (const sign of ['+', '-']) jsep.addBinaryOp(sign, 2);
for (const sign of ['*', '/']) jsep.addBinaryOp(sign, 3);
jsep.addBinaryOp('^', 4, true);

const truth = (is: boolean): number => (is ? 1 : 0);

/** The four signs of which formulas have most, each in a loop of its own; what is missing stays missing by itself. */
const ARITHMETIC: Readonly<Record<string, (x: Float64Array, y: Float64Array, out: Float64Array) => void>> = {
  '+': (x, y, out) => {
    for (let row = 0; row < out.length; row++) out[row] = x[row] + y[row];
  },
  '-': (x, y, out) => {
    for (let row = 0; row < out.length; row++) out[row] = x[row] - y[row];
  },
  '*': (x, y, out) => {
    for (let row = 0; row < out.length; row++) out[row] = x[row] * y[row];
  },
  '/': (x, y, out) => {
    for (let row = 0; row < out.length; row++) out[row] = y[row] === 0 ? NaN : x[row] / y[row];
  },
};

const OPERATORS: Readonly<Record<string, (a: number, b: number) => number>> = {
  '^': (a, b) => a ** b,
  '=': (a, b) => truth(a === b),
  '<>': (a, b) => truth(a !== b),
  '<': (a, b) => truth(a < b),
  '<=': (a, b) => truth(a <= b),
  '>': (a, b) => truth(a > b),
  '>=': (a, b) => truth(a >= b),
};
const SAME_AS: Readonly<Record<string, string>> = { '==': '=', '!=': '<>' };

/** Functions of one value in each row. */
const EACH: Readonly<Record<string, (value: number) => number>> = {
  abs: Math.abs,
  sqrt: Math.sqrt,
  log: (value) => (value > 0 ? Math.log(value) : NaN),
  log10: (value) => (value > 0 ? Math.log10(value) : NaN),
  round: Math.round,
  not: (value) => truth(value === 0),
};

/** Functions of a whole column. */
const WHOLE: Readonly<Record<string, (values: Values) => Values>> = {
  rank: ranks,
  percentile: percentiles,
  mean: (values) => alike(values, (given) => given.reduce((a, b) => a + b, 0) / given.length),
  sum: (values) => alike(values, (given) => given.reduce((a, b) => a + b, 0)),
};

/** Functions of several values in each row, or of a whole column where one is given. */
const MANY: Readonly<
  Record<string, { readonly none: number; readonly add: (a: number, b: number) => number }>
> = {
  min: { none: Infinity, add: Math.min },
  max: { none: -Infinity, add: Math.max },
  and: { none: 1, add: (a, b) => truth(a !== 0 && b !== 0) },
  or: { none: 0, add: (a, b) => truth(a !== 0 || b !== 0) },
};

/** The functions that a formula may call. */
export const FORMULA_FUNCTIONS: readonly string[] = [
  'if',
  ...Object.keys(MANY),
  ...Object.keys(EACH),
  ...Object.keys(WHOLE),
].sort();

/**
 * Computes a formula over the rows of a table: numbers, texts in quotation marks, columns by their title in square brackets or by a plain
 * word, + - * / ^, comparisons (1 where they hold, 0 elsewhere) and the functions above. Nothing else is run. A value that is missing, a division by 0
 * and the logarithm of what is not above 0 give none.
 * Throws a FormulaError.
 */
export function computeFormula(
  formula: string,
  table: TableColumns,
  columns: readonly { readonly name: string; readonly title: string }[],
  rows: number,
): Computed {
  const titles: string[] = [];
  const marked = formula.replace(/\[([^\][]*)\]/g, (_, title: string) => `$${titles.push(title.trim()) - 1}`);
  const known = new Map(
    columns.flatMap(
      ({ name, title }) =>
        [
          [name, name],
          [title, name],
        ] as const,
    ),
  );
  const titleOf = new Map(columns.map(({ name, title }) => [name, title]));
  const uses = new Set<string>();
  const column = (word: string): Value => {
    const title = (/^\$\d+$/.test(word) ? titles[Number(word.slice(1))] : undefined) ?? word;
    const name = known.get(title);
    if (name === undefined || !(name in table))
      throw new FormulaError(`There is no column “${title}”. ${nearest(title, [...titleOf.values()])}`);
    uses.add(titleOf.get(name)!);
    const values = table[name];
    return Array.isArray(values) ? textColumn(values as string[]) : { numbers: values as Float64Array };
  };
  const value = new Evaluator(rows, column).numbers(parse(marked, titles));
  const values = each(rows, (row) => (Number.isFinite(value[row]) ? value[row] : NaN));
  const without = values.reduce((count, one) => count + (Number.isNaN(one) ? 1 : 0), 0);
  return { values, uses: [...uses], without };
}

function parse(marked: string, titles: readonly string[]): jsep.Expression {
  if (marked.trim() === '')
    throw new FormulaError('Write a formula, for instance [in-degree] / [out-degree].');
  try {
    return jsep(marked);
  } catch (error) {
    const { description, index } = error as { description?: string; index?: number };
    const rest = marked.slice(index ?? 0).replace(/\$(\d+)/g, (_, at: string) => `[${titles[Number(at)]}]`);
    throw new FormulaError(
      `The formula cannot be read${rest.trim() ? ` at “${rest.trim().slice(0, 20)}”` : ' to its end'}: ${(description ?? 'something is missing').toLowerCase()}.`,
    );
  }
}

/** Texts that are all numbers count as numbers. */
function textColumn(texts: readonly string[]): Value {
  return texts.every((text) => text === '' || Number.isFinite(Number(text)))
    ? { numbers: texts.map((text) => (text === '' ? NaN : Number(text))) }
    : { texts };
}

function alike(values: Values, of: (given: readonly number[]) => number): Values {
  const one = of([...values].filter((value) => !Number.isNaN(value)));
  return new Float64Array(values.length).fill(one);
}

/** A number for each row; a loop by places is many times quicker here than going through values one by one. */
function each(rows: number, of: (row: number) => number): Float64Array {
  const values = new Float64Array(rows);
  for (let row = 0; row < rows; row++) values[row] = of(row);
  return values;
}

function floats(values: Values): Float64Array {
  return values instanceof Float64Array ? values : Float64Array.from(values);
}

function nearest(title: string, titles: readonly string[]): string {
  const start = title.slice(0, 3).toLowerCase();
  const near = titles.filter((one) => start !== '' && one.toLowerCase().includes(start)).slice(0, 3);
  return near.length > 0
    ? `Is ${near.map((one) => `[${one}]`).join(' or ')} meant?`
    : 'Columns stand in square brackets.';
}

class Evaluator {
  constructor(
    private readonly rows: number,
    private readonly column: (word: string) => Value,
  ) {}

  /** As one kind of array throughout, which engines go through quickest. */
  numbers(expression: jsep.Expression): Float64Array {
    const value = this.value(expression);
    if ('texts' in value) throw new FormulaError('Texts can only be compared with = and <>.');
    return floats(value.numbers);
  }

  private value(expression: jsep.Expression): Value {
    const node = expression as jsep.CoreExpression;
    switch (node.type) {
      case 'Literal':
        return typeof node.value === 'string'
          ? { texts: new Array<string>(this.rows).fill(node.value) }
          : { numbers: new Float64Array(this.rows).fill(Number(node.value)) };
      case 'Identifier':
        return this.column(node.name);
      case 'UnaryExpression': {
        const sign = node.operator === '-' ? -1 : 1;
        const given = this.numbers(node.argument);
        return { numbers: each(this.rows, (row) => sign * given[row]) };
      }
      case 'BinaryExpression':
        return { numbers: this.binary(node) };
      case 'CallExpression':
        return { numbers: this.call(node) };
      default:
        throw new FormulaError('Only numbers, columns, signs and functions can stand in a formula.');
    }
  }

  private binary({ operator: sign, left, right }: jsep.BinaryExpression): Values {
    const operator = SAME_AS[sign] ?? sign;
    const [a, b] = [this.value(left), this.value(right)];
    if ('texts' in a && 'texts' in b && (operator === '=' || operator === '<>'))
      return a.texts.map((text, v) => truth((text === b.texts[v]) === (operator === '=')));
    if ('texts' in a || 'texts' in b) throw new FormulaError('Texts can only be compared with = and <>.');
    const [x, y] = [floats(a.numbers), floats(b.numbers)];
    if (Object.hasOwn(ARITHMETIC, operator)) {
      const values = new Float64Array(this.rows);
      ARITHMETIC[operator](x, y, values);
      return values;
    }
    const apply = OPERATORS[operator];
    return each(this.rows, (row) =>
      Number.isNaN(x[row]) || Number.isNaN(y[row]) ? NaN : apply(x[row], y[row]),
    );
  }

  private call({ callee, arguments: given }: jsep.CallExpression): Values {
    const name = callee.type === 'Identifier' ? String(callee['name']).toLowerCase() : '';
    if (!FORMULA_FUNCTIONS.includes(name))
      throw new FormulaError(`There is no function “${name}”. There are ${FORMULA_FUNCTIONS.join(', ')}.`);
    const need = (count: number): void => {
      if (given.length !== count)
        throw new FormulaError(
          `${name}() takes ${count} ${count === 1 ? 'value' : 'values'}, not ${given.length}.`,
        );
    };
    if (name === 'if') {
      need(3);
      const [test, yes, no] = given.map((one) => this.numbers(one));
      return each(this.rows, (row) => (Number.isNaN(test[row]) ? NaN : test[row] !== 0 ? yes[row] : no[row]));
    }
    if (Object.hasOwn(MANY, name)) {
      if (given.length === 0) throw new FormulaError(`${name}() takes at least one value.`);
      const all = given.map((one) => this.numbers(one));
      const { none, add } = MANY[name];
      if (all.length === 1 && (name === 'min' || name === 'max'))
        return alike(all[0], (given) => given.reduce((a, b) => add(a, b), none));
      let sum: Float64Array = new Float64Array(this.rows).fill(none);
      for (const values of all) {
        const before = sum;
        sum = each(this.rows, (row) =>
          Number.isNaN(values[row]) || Number.isNaN(before[row]) ? NaN : add(before[row], values[row]),
        );
      }
      return sum;
    }
    need(1);
    const values = this.numbers(given[0]);
    return Object.hasOwn(EACH, name)
      ? each(this.rows, (row) => EACH[name](values[row]))
      : WHOLE[name](values);
  }
}
