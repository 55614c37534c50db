import { computeFormula, Random } from '@pebble/core';
import { time, under, type Row } from './measure';

const NODES = 100_000;
const LETTERS = 2000;

/** A long formula over a large table: each part of it is computed once. */
export async function formulas(): Promise<Row[]> {
  const chance = new Random(1);
  const column = (): Float64Array =>
    Float64Array.from({ length: NODES }, () => Math.floor(40 * chance.real()));
  const table = { inDegree: column(), outDegree: column(), messages: column() };
  const columns = [
    { name: 'inDegree', title: 'in-degree' },
    { name: 'outDegree', title: 'out-degree' },
    { name: 'messages', title: 'messages' },
  ];
  const terms = [
    '[in-degree] * 2',
    'log([messages] + 1)',
    'if([out-degree] > 3, [in-degree], 1)',
    'max([in-degree], [out-degree])',
  ];
  let formula = '1';
  for (let i = 0; formula.length + 50 < LETTERS; i++) formula += ` + ${terms[i % terms.length]} / ${i + 1}`;
  const took = await time(2, () => computeFormula(formula, table, columns, NODES));
  return [under('formula', `${formula.length} letters, 100,000 nodes`, took, 1000, 'ms')];
}
