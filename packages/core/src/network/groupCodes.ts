import { orderBySize } from '../communities/communities';
import { textsIn, type TableColumns } from './tables';

export interface GroupCodes {
  /** Group of each node: 0 is the largest, then by falling size; equal sizes by lowest node. */
  readonly of: Uint32Array;
  /** What each group is called; empty for nodes without a group. */
  readonly names: readonly string[];
  readonly size: Uint32Array;
}

/** Whether a group was computed: these have numbers for names. */
export const isNumbered = (name: string): boolean => /^\d+$/.test(name);

/** Numbers for the groups that a column gives nodes. */
export function groupCodes(column: TableColumns[string]): GroupCodes {
  const texts = textsIn(column);
  const code = new Map<string, number>();
  const codes = texts.map((text) => {
    if (!code.has(text)) code.set(text, code.size);
    return code.get(text)!;
  });
  const { of, size, count } = orderBySize(codes);
  const names = new Array<string>(count).fill('');
  of.forEach((g, v) => (names[g] = texts[v]));
  return { of, names, size };
}

/**
 * The same with all but the largest groups put together as the last one, which is called by how many they are. Groups of one node are
 * put together too.
 */
export function withOthers(codes: GroupCodes, most: number): GroupCodes {
  const { of, names, size } = codes;
  const larger = size.reduce((count, nodes) => count + (nodes > 1 ? 1 : 0), 0);
  const kept = larger === names.length && larger <= most ? larger : Math.min(larger, most - 1);
  if (kept >= names.length - 1) return codes;
  const others = size.subarray(kept).reduce((sum, nodes) => sum + nodes, 0);
  return {
    of: of.map((g) => Math.min(g, kept)),
    names: [...names.slice(0, kept), `${names.length - kept} others`],
    size: Uint32Array.from([...size.subarray(0, kept), others]),
  };
}
