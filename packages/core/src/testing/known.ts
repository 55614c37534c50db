import karateClub from 'graphology-generators/social/karate-club';
import florentineFamilies from 'graphology-generators/social/florentine-families';
import Graphology from 'graphology';
import { makeGraph, type Graph } from '../graph/graph';
import { Random } from '../random';

/** A graph of ours and the same in the general-purpose library graphology. */
interface Twin {
  readonly graph: Graph;
  readonly names: readonly string[];
  readonly reference: Graphology;
}

function twin(reference: Graphology): Twin {
  const names = reference.nodes();
  const number = new Map(names.map((name, i) => [name, i]));
  const edges = reference.mapEdges((_, __, source, target) => [number.get(source)!, number.get(target)!]);
  return {
    reference,
    names,
    graph: makeGraph(
      names.length,
      edges.map(([s]) => s),
      edges.map(([, t]) => t),
    ),
  };
}

/** Zachary (1977), J. Anthropological Research 33, as graphology-generators ships it: 34 nodes, 78 ties. */
export function zachary(): Twin {
  return twin(karateClub(Graphology));
}

/** Padgett & Ansell (1993), American J. Sociology 98: marriages between Florentine families. */
export function florence(): Twin {
  return twin(florentineFamilies(Graphology));
}

/** Krackhardt (1990), Administrative Science Quarterly 35: the kite; nodes A to J are 0 to 9. */
export function kite(): Graph {
  const ties = 'AB AC AD AF BD BE BG CD CF DE DF DG EG FG FH GH HI IJ'.split(' ');
  const at = (i: number): number[] => ties.map((tie) => tie.charCodeAt(i) - 65);
  return makeGraph(10, at(0), at(1));
}

/** A random directed graph without self-loops or parallel edges, with whole weights from 1 to 4. */
export function randomTwin(seed: number, nodes: number, edges: number): Twin {
  const chance = new Random(seed);
  const reference = new Graphology({ type: 'directed' });
  const names = Array.from({ length: nodes }, (_, v) => String(v));
  names.forEach((name) => reference.addNode(name));
  const source: number[] = [];
  const target: number[] = [];
  const weight: number[] = [];
  for (let tries = 0; tries < edges; tries++) {
    const s = chance.below(nodes);
    const t = chance.below(nodes);
    if (s === t || reference.hasEdge(names[s], names[t])) continue;
    const w = 1 + chance.below(4);
    reference.addEdge(names[s], names[t], { weight: w });
    source.push(s);
    target.push(t);
    weight.push(w);
  }
  return { reference, names, graph: makeGraph(nodes, source, target, weight) };
}

/** Groups planted in a random graph (Lancichinetti, Fortunato & Radicchi 2008 for the idea): ties within by chance `within`, between by `between`. */
export function planted(
  seed: number,
  groups: number,
  size: number,
  within: number,
  between: number,
): { graph: Graph; group: number[] } {
  const chance = new Random(seed);
  const source: number[] = [];
  const target: number[] = [];
  const group = Array.from({ length: groups * size }, (_, v) => Math.floor(v / size));
  for (let a = 0; a < group.length; a++) {
    for (let b = 0; b < a; b++) {
      if (!chance.chance(group[a] === group[b] ? within : between)) continue;
      source.push(a);
      target.push(b);
    }
  }
  return { graph: makeGraph(group.length, source, target), group };
}

/** The same network of the library with each pair tied once, without direction. */
export function withoutDirection(reference: Graphology): Graphology {
  const copy = new Graphology({ type: 'undirected' });
  reference.forEachNode((name) => copy.addNode(name));
  reference.forEachEdge((_, __, source, target) => copy.mergeUndirectedEdge(source, target));
  return copy;
}
