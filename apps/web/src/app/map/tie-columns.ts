import { numbersOf, type MapNetwork } from '@pebble/core';
import { counted } from '../shared/words';

/** Columns of the tie table that count messages by kind, with the words for one and for many. */
const KINDS = [
  ['replies', 'reply', 'replies'],
  ['mentions', 'mention', 'mentions'],
  ['reposts', 'repost', 'reposts'],
  ['sent', 'email sent', 'emails sent'],
  ['copies', 'copy', 'copies'],
  ['blind copies', 'blind copy', 'blind copies'],
] as const;

const ENDS = ['source', 'target', 'weight', 'first', 'last'];

/** Number columns and text columns of the tie table beside its ends, weight and dates. */
export function tieColumns({ edges }: MapNetwork): { numbers: string[]; texts: string[] } {
  const names = Object.keys(edges).filter((name) => !ENDS.includes(name));
  return {
    numbers: names.filter((name) => ArrayBuffer.isView(edges[name])),
    texts: names.filter((name) => !ArrayBuffer.isView(edges[name])),
  };
}

/** "2 replies, 1 mention"; for a tie of a finished network its weight. */
export function tieDetail(data: MapNetwork, edge: number): string {
  const parts = KINDS.filter(([column]) => column in data.edges)
    .map(([column, one, many]) => ({ count: numbersOf(data.edges, column)[edge], one, many }))
    .filter(({ count }) => count > 0)
    .map(({ count, one, many }) => counted(count, one, many));
  if (parts.length > 0 || 'messages' in data.nodes) return parts.join(', ');
  return `weight ${numbersOf(data.edges, 'weight')[edge].toLocaleString('en')}`;
}

/** The column that says how many ties a node has with it: in-degree, or degree where ties have no direction. */
export function standing({ nodes }: MapNetwork): { column: 'inDegree' | 'degree'; words: string } {
  return 'inDegree' in nodes
    ? { column: 'inDegree', words: 'messages' in nodes ? 'addressed by' : 'ties in:' }
    : { column: 'degree', words: 'ties:' };
}
