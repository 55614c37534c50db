import { BY_HAND, formatCount, MESSAGE_KINDS, numbersOf, textsOf, type MapNetwork } from '@pebble/core';
import { counted } from '../../shared/words';

const ENDS = ['source', 'target', 'weight', 'first', 'last'];

/** Number columns and text columns of the tie table beside its ends, weight and dates. */
export function tieColumns({ edges }: MapNetwork): { numbers: string[]; texts: string[] } {
  const names = Object.keys(edges).filter((name) => !ENDS.includes(name));
  return {
    numbers: names.filter((name) => ArrayBuffer.isView(edges[name])),
    texts: names.filter((name) => !ArrayBuffer.isView(edges[name])),
  };
}

/** Whether ties are messages by which one account addresses another. */
export function isByAddress({ edges }: MapNetwork): boolean {
  return MESSAGE_KINDS.some(([column]) => column in edges);
}

/** "2 replies, 1 mention"; for other ties their weight, and how likely they are by chance where that is known. */
export function tieDetail(data: MapNetwork, edge: number): string {
  const parts = MESSAGE_KINDS.filter(([column]) => column in data.edges)
    .map(([column, one, many]) => ({ count: numbersOf(data.edges, column)[edge], one, many }))
    .filter(({ count }) => count > 0)
    .map(({ count, one, many }) => counted(count, one, many));
  if (isByAddress(data)) return parts.join(', ');
  const weight = `weight ${formatWeight(numbersOf(data.edges, 'weight')[edge])}`;
  if (!('chance' in data.edges)) return weight;
  return `${weight}, by chance ${formatChance(numbersOf(data.edges, 'chance')[edge])}`;
}

function formatWeight(weight: number): string {
  return Number.isInteger(weight) ? formatCount(weight) : weight.toPrecision(3);
}

function formatChance(chance: number): string {
  return chance < 0.0001 ? 'below 1 in 10,000' : `${(100 * chance).toPrecision(2)} %`;
}

/** The column that says how many ties a node has with it: in-degree, or degree where ties have no direction. */
export function rankingColumn(data: MapNetwork): { column: 'inDegree' | 'degree'; words: string } {
  return 'inDegree' in data.nodes
    ? { column: 'inDegree', words: isByAddress(data) ? 'addressed by' : 'ties in:' }
    : { column: 'degree', words: 'ties:' };
}

/** Whether hands gave a tie its weight, or a part of it: then it does not count messages alone. */
export function hasOwnWeight({ edges }: MapNetwork, edge: number): boolean {
  return BY_HAND in edges && ['added', 'made stronger'].includes(textsOf(edges, BY_HAND)[edge]);
}
