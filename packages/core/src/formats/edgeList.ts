import { makeGraph, type Graph } from '../graph/graph';
import { CsvReader } from './csv';

/** A named graph: node i is called names[i]. */
export interface NamedGraph {
  readonly graph: Graph;
  readonly names: readonly string[];
}

/**
 * Reads a CSV edge list with a header: source, target and, optionally, weight, in any order.
 * Throws an Error that names the row when a row cannot be read.
 */
export function readEdgeList(text: string, delimiter = ','): NamedGraph {
  const number = new Map<string, number>();
  const nodeOf = (name: string): number => {
    if (!number.has(name)) number.set(name, number.size);
    return number.get(name)!;
  };
  const source: number[] = [];
  const target: number[] = [];
  const weight: number[] = [];
  let place = { source: -1, target: -1, weight: -1 };
  const reader = new CsvReader(
    delimiter,
    {
      onRecord: ({ row, values }) => {
        const value = place.weight < 0 ? 1 : Number(values[place.weight]);
        if (!(value > 0))
          throw new Error(`Row ${row}: the weight “${values[place.weight]}” is not a number above 0.`);
        source.push(nodeOf(values[place.source]));
        target.push(nodeOf(values[place.target]));
        weight.push(value);
      },
      onSkip: (row, _field, reason) => {
        throw new Error(`Row ${row}: ${reason}`);
      },
    },
    (header) => {
      const at = (name: string): number => header.findIndex((cell) => cell.toLowerCase() === name);
      place = { source: at('source'), target: at('target'), weight: at('weight') };
      if (place.source < 0 || place.target < 0)
        throw new Error('Row 1: the columns “source” and “target” are needed.');
    },
  );
  reader.write(text);
  reader.end();
  return { graph: makeGraph(number.size, source, target, weight), names: [...number.keys()] };
}
