import referenceLayout from 'graphology-layout-forceatlas2';
import type { LayoutSettings } from '@pebble/contract';
import { arranging, Attraction, legibility, Random, startingValues, type Graph } from '@pebble/core';
import { network } from './graphs';
import { faster, time, type Row } from './measure';

/** How long both may arrange before their pictures are compared, in milliseconds. */
const GIVEN = 10_000;

export async function layout(): Promise<Row[]> {
  const rows: Row[] = [];
  for (const [nodes, edges] of [
    [20_000, 100_000],
    [100_000, 500_000],
  ]) {
    const made = network(3, nodes, edges);
    const { graph } = made;
    const running = new Attraction(graph, { seed: 1, gravity: 1, repulsion: 10 });
    const rounds = nodes > 50_000 ? 5 : 20;
    for (let i = 0; i < 5; i++) running.iterate();
    const ours = await time(4, () => {
      for (let i = 0; i < rounds; i++) running.iterate();
    });
    const reference = made.reference();
    reference.forEachNode((node) =>
      reference.mergeNodeAttributes(node, { x: running.x[Number(node)], y: running.y[Number(node)] }),
    );
    const settings = {
      ...referenceLayout.inferSettings(reference),
      barnesHutOptimize: true,
      barnesHutTheta: 1.1,
    };
    const other = await time(2, () =>
      referenceLayout(reference, { iterations: rounds, settings, getEdgeWeight: null }),
    );
    rows.push(
      faster(
        'One layout iteration',
        `${nodes.toLocaleString('en')} nodes, ${edges.toLocaleString('en')} ties, mean of ${rounds}, the quickest of 4 and 2 times; reference: Barnes-Hut, theta 1.1`,
        ours / rounds,
        other / rounds,
        4,
      ),
    );
  }
  return [...rows, ...quality()];
}

interface Placed {
  readonly x: ArrayLike<number>;
  readonly y: ArrayLike<number>;
}

/**
 * What the pictures are worth that both have after the same time: ours as it begins by itself, with communities apart, and with attraction
 * that grows with the distance, as that of the reference does.
 */
function quality(): Row[] {
  const made = network(3, 20_000, 100_000);
  const { graph } = made;
  const all = (length: number): Uint32Array => Uint32Array.from({ length }, (_, i) => i);
  const radius = new Float32Array(graph.nodeCount).fill(1);
  const figures = (placed: Placed) =>
    legibility(graph, all(graph.nodeCount), all(graph.source.length), { ...placed, radius });
  const other = figures(referenceInTime(made.reference()));
  const rows = (apart: LayoutSettings['apart'], words: string): Row[] => {
    const ours = figures(
      arrangedInTime(graph, radius, { ...startingValues(graph), apart, iterations: 10_000 }),
    );
    const work = `20,000 nodes, 100,000 ties, after 10 seconds, ${words}`;
    const row = (name: string, own: number, theirs: number, ratio: number, bound: string): Row => ({
      name,
      work,
      ours: own,
      reference: theirs,
      ratio,
      bound,
      held: ratio > 1,
      note: '',
    });
    const [kept, keptByOther] = [ours.neighboursKept, other.neighboursKept];
    return [
      row('Stress of the arrangement', ours.stress, other.stress, other.stress / ours.stress, 'lower'),
      row('Neighbourhood kept by it', kept, keptByOther, kept / keptByOther, 'higher'),
    ];
  };
  return [
    ...rows('little', 'attraction that grows with the distance in both'),
    ...rows('usual', 'ours with communities apart, as it begins by itself'),
  ];
}

function arrangedInTime(graph: Graph, radius: Float32Array, settings: LayoutSettings): Placed {
  const until = performance.now() + GIVEN;
  const rounds = arranging(graph, radius, settings);
  for (;;) {
    const round = rounds.next();
    if (round.done) return round.value;
    if (performance.now() > until) return round.value.preview();
  }
}

/** The reference from places by chance, with the settings that it infers. */
function referenceInTime(graph: ReturnType<ReturnType<typeof network>['reference']>): Placed {
  const chance = new Random(1);
  graph.forEachNode((node) => graph.mergeNodeAttributes(node, { x: chance.real(), y: chance.real() }));
  const settings = { ...referenceLayout.inferSettings(graph), barnesHutOptimize: true, barnesHutTheta: 1.1 };
  const until = performance.now() + GIVEN;
  while (performance.now() < until)
    referenceLayout.assign(graph, { iterations: 10, settings, getEdgeWeight: null });
  const place = (of: 'x' | 'y'): Float64Array =>
    Float64Array.from(graph.nodes(), (node) => graph.getNodeAttribute(node, of) as number);
  return { x: place('x'), y: place('y') };
}
