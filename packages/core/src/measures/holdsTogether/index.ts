import type { Graph } from '../../graph/graph';
import { lookingAround } from '../common/cost';
import { measure, type Question } from '../question';
import { cuts } from './cutNodes';

export const holdsTogether: Question = {
  id: 'holds-together',
  asks: 'What falls apart without whom?',
  says: 'Nodes without which others would lose the largest part of the network.',
  misleads: 'Whoever is tied by one message counts as cut off; ask for stronger ties to see what holds.',
  directedOnly: false,
  columns: [
    measure(
      'cutsOff',
      'cut off without it',
      'Nodes that would be parted from the largest rest of their component (cut nodes: Tarjan 1972, Hopcroft & Tarjan 1973); 0 for one that holds nothing together.',
      'holds others to the rest',
    ),
  ],
  seconds: lookingAround,
  answer: ({ graph, either }) => {
    const { cutsOff, bridges } = cuts(either);
    return { columns: { cutsOff }, ties: { bridge: bridgesAmong(graph, bridges) } };
  },
};

/** Of each tie whether it alone holds two parts together: "bridge", or empty. */
function bridgesAmong(
  { nodeCount, source, target }: Graph,
  bridges: readonly (readonly [number, number])[],
): string[] {
  const pairs = new Set(bridges.map(([a, b]) => a * nodeCount + b));
  return Array.from(source, (a, e) => {
    const b = target[e];
    return pairs.has(Math.min(a, b) * nodeCount + Math.max(a, b)) ? 'bridge' : '';
  });
}
