import type { Csr } from '../../graph/csr';

/** A node between groups, or within one. */
export interface Position {
  readonly node: number;
  /** Partners, and how many of these are in its own group. */
  readonly partners: number;
  readonly inside: number;
  /** Groups of its partners. */
  readonly groups: number;
}

/**
 * Nodes that are active enough and whose ties mostly leave their group: by the share of partners outside, falling; of equal shares those
 * with more partners first.
 * @param rows without direction and self-loops
 * @param activity of each node, of which it needs `least`
 */
export function connectors(
  rows: Csr,
  group: ArrayLike<number>,
  activity: ArrayLike<number>,
  least: number,
): Position[] {
  return positions(rows, group)
    .filter(({ node, partners, inside }) => activity[node] >= least && partners > 1 && inside < partners / 2)
    .sort((a, b) => outside(b) - outside(a) || b.partners - a.partners || a.node - b.node);
}

/** Share of partners in the own group from which on a node is within one group only. */
export const LOCAL = 0.9;

/** Nodes with a high value whose partners are in their own group, nearly all: by falling value. @param least value that they need */
export function loudButLocal(
  rows: Csr,
  group: ArrayLike<number>,
  value: ArrayLike<number>,
  least: number,
): Position[] {
  return positions(rows, group)
    .filter(
      ({ node, partners, inside }) => value[node] >= least && partners > 0 && inside >= LOCAL * partners,
    )
    .sort((a, b) => value[b.node] - value[a.node] || a.node - b.node);
}

function outside({ partners, inside }: Position): number {
  return (partners - inside) / partners;
}

function positions({ nodeCount, offset, neighbour }: Csr, group: ArrayLike<number>): Position[] {
  return Array.from({ length: nodeCount }, (_, node) => {
    let inside = 0;
    const groups = new Set<number>();
    for (let i = offset[node]; i < offset[node + 1]; i++) {
      if (group[neighbour[i]] === group[node]) inside++;
      groups.add(group[neighbour[i]]);
    }
    return { node, partners: offset[node + 1] - offset[node], inside, groups: groups.size };
  });
}
