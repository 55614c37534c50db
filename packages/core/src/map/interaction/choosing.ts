import type { Csr } from '../../graph/csr';
import type { ScreenNodes } from '../scene/screenNodes';

/** Nodes and all that are tied to one of them, ascending. */
export function withNeighbours({ offset, neighbour }: Csr, nodes: readonly number[]): number[] {
  const chosen = new Set(nodes);
  for (const v of nodes) for (let i = offset[v]; i < offset[v + 1]; i++) chosen.add(neighbour[i]);
  return ascending(chosen);
}

/** Nodes that are tied to every one of some, these themselves left out, ascending. */
export function commonNeighbours({ offset, neighbour }: Csr, nodes: readonly number[]): number[] {
  const own = new Set(nodes);
  const ties = new Map<number, number>();
  for (const v of own)
    for (let i = offset[v]; i < offset[v + 1]; i++) {
      const u = neighbour[i];
      if (!own.has(u)) ties.set(u, (ties.get(u) ?? 0) + 1);
    }
  return ascending([...ties].filter(([, count]) => count === own.size).map(([u]) => u));
}

/** The shown nodes that are not among some, ascending. */
export function othersThan(shown: Iterable<number>, nodes: readonly number[]): number[] {
  const own = new Set(nodes);
  return ascending([...shown].filter((v) => !own.has(v)));
}

/** Some nodes, with another one put in where it is missing and taken out where it is among them. */
export function toggled(nodes: readonly number[], node: number): number[] {
  return nodes.includes(node) ? nodes.filter((v) => v !== node) : ascending([...nodes, node]);
}

/**
 * The shown nodes whose middle lies within a closed line, by counting how often a ray from it crosses the line.
 * @param line x, y of each of its points, on the screen
 */
export function nodesWithin(
  line: readonly (readonly [number, number])[],
  { x, y }: ScreenNodes,
  shown: Iterable<number>,
): number[] {
  const inside: number[] = [];
  for (const v of shown) if (isWithin(line, x[v], y[v])) inside.push(v);
  return ascending(inside);
}

function isWithin(line: readonly (readonly [number, number])[], x: number, y: number): boolean {
  let within = false;
  for (let i = 0, before = line.length - 1; i < line.length; before = i++) {
    const [ax, ay] = line[i];
    const [bx, by] = line[before];
    if (ay > y !== by > y && x < ((bx - ax) * (y - ay)) / (by - ay) + ax) within = !within;
  }
  return within;
}

function ascending(nodes: Iterable<number>): number[] {
  return [...nodes].sort((a, b) => a - b);
}
