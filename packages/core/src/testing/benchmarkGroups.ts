import { makeGraph, type Graph } from '../graph/graph';
import { Random } from '../random';

/**
 * A random network with planted communities, as Lancichinetti, Fortunato & Radicchi (2008), Phys. Rev. E 78, propose: degrees and sizes
 * of communities follow power laws, and each node has a share `mixing` of its ties outside its community. Ends are paired at random;
 * self-ties and repeated ties are dropped.
 */
export function benchmarkGroups(
  seed: number,
  nodes: number,
  mixing: number,
  { degree = [8, 40], size = [20, 80] }: { degree?: [number, number]; size?: [number, number] } = {},
): { graph: Graph; group: Uint32Array } {
  const chance = new Random(seed);
  const group = new Uint32Array(nodes);
  const sizes: number[] = [];
  for (let placed = 0; placed < nodes;) {
    const wanted = Math.round(powerLaw(chance, 1.5, size[0], size[1]));
    // What is left over goes into the last community.
    const count = nodes - placed - wanted < size[0] ? nodes - placed : wanted;
    group.fill(sizes.length, placed, placed + count);
    sizes.push(count);
    placed += count;
  }
  const within: number[][] = sizes.map(() => []);
  const outside: number[] = [];
  for (let v = 0; v < nodes; v++) {
    const ends = Math.round(powerLaw(chance, 2.5, degree[0], degree[1]));
    const inner = Math.min(Math.round((1 - mixing) * ends), sizes[group[v]] - 1);
    for (let i = 0; i < inner; i++) within[group[v]].push(v);
    for (let i = inner; i < ends; i++) outside.push(v);
  }
  const source: number[] = [];
  const target: number[] = [];
  const known = new Set<number>();
  const pair = (ends: number[], isAllowed: (a: number, b: number) => boolean): void => {
    chance.shuffle(ends);
    for (let i = 0; i + 1 < ends.length; i += 2) {
      const [a, b] = [Math.min(ends[i], ends[i + 1]), Math.max(ends[i], ends[i + 1])];
      const key = a * nodes + b;
      if (a === b || known.has(key) || !isAllowed(a, b)) continue;
      known.add(key);
      source.push(a);
      target.push(b);
    }
  };
  for (const ends of within) pair(ends, () => true);
  pair(outside, (a, b) => group[a] !== group[b]);
  return { graph: makeGraph(nodes, source, target), group };
}

/** A number between two bounds whose density falls with the exponent. */
function powerLaw(chance: Random, exponent: number, least: number, most: number): number {
  const power = 1 - exponent;
  return (least ** power + chance.real() * (most ** power - least ** power)) ** (1 / power);
}
