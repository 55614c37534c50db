import jsep from 'jsep';
import { percentiles, ranks } from '../measure/ranks';
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

const OPERATORS: Readonly<Record<string, (a: number, b: number) => number>> = {
  '+': (a, b) => a + b,
  '-': (a, b) => a - b,
  '*': (a, b) => a * b,
  '/': (a, b) => (b === 0 ? NaN : a / b),
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
const MANY: Readonly<Record<string, (given: readonly number[]) => number>> = {
  min: (given) => given.reduce((a, b) => Math.min(a, b), Infinity),
  max: (given) => given.reduce((a, b) => Math.max(a, b), -Infinity),
  and: (given) => truth(given.every((value) => value !== 0)),
  or: (given) => truth(given.some((value) => value !== 0)),
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
  const values = Float64Array.from(value, (one) => (Number.isFinite(one) ? one : NaN));
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

  numbers(expression: jsep.Expression): Values {
    const value = this.value(expression);
    if ('texts' in value) throw new FormulaError('Texts can only be compared with = and <>.');
    return value.numbers;
  }

  private value(expression: jsep.Expression): Value {
    const node = expression as jsep.CoreExpression;
    switch (node.type) {
      case 'Literal':
        return typeof node.value === 'string'
          ? { texts: new Array<string>(this.rows).fill(node.value) }
          : { numbers: new Float64Array(this.rows).fill(Number(node.value)) };
      case 'Identifier':
        return this.column(node.name as string);
      case 'UnaryExpression': {
        const sign = node.operator === '-' ? -1 : 1;
        return {
          numbers: Float64Array.from(this.numbers(node.argument as jsep.Expression), (one) => sign * one),
        };
      }
      case 'BinaryExpression':
        return { numbers: this.binary(node as jsep.BinaryExpression) };
      case 'CallExpression':
        return { numbers: this.call(node as jsep.CallExpression) };
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
    const [x, y] = [a.numbers, b.numbers];
    const apply = OPERATORS[operator];
    return Float64Array.from(x, (one, v) =>
      Number.isNaN(one) || Number.isNaN(y[v]) ? NaN : apply(one, y[v]),
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
      return Float64Array.from(test, (is, v) => (Number.isNaN(is) ? NaN : is !== 0 ? yes[v] : no[v]));
    }
    if (Object.hasOwn(MANY, name)) {
      if (given.length === 0) throw new FormulaError(`${name}() takes at least one value.`);
      const all = given.map((one) => this.numbers(one));
      if (all.length === 1 && (name === 'min' || name === 'max')) return alike(all[0], MANY[name]);
      return Float64Array.from({ length: this.rows }, (_, v) => {
        const row = all.map((values) => values[v]);
        return row.some(Number.isNaN) ? NaN : MANY[name](row);
      });
    }
    need(1);
    const values = this.numbers(given[0]);
    return Object.hasOwn(EACH, name) ? Float64Array.from(values, EACH[name]) : WHOLE[name](values);
  }
}
