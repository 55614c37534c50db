import referenceLouvain from 'graphology-communities-louvain';
import referenceLayout from 'graphology-layout-forceatlas2';
import referenceBetweenness from 'graphology-metrics/centrality/betweenness.js';
import { Attraction, betweenness, communities, modularity, outRows } from '@pebble/core';
import { network } from './graphs';
import { faster, time, under, type Row } from './measure';

export async function groups(): Promise<Row[]> {
  const { graph, reference } = network(1, 100_000, 500_000);
  let found = { modularity: 0 };
  const ours = await time(2, () => (found = communities(graph, { resolution: 1, seed: 1, runs: 1 })));
  let theirs: Record<string, number> = {};
  const other = await time(1, () => (theirs = referenceLouvain(reference, { getEdgeWeight: null })));
  const group = Uint32Array.from(reference.nodes(), (name) => theirs[name]);
  const value = modularity(graph, group);
  return [
    faster(
      'Louvain',
      '100,000 nodes, 500,000 ties, one run',
      ours,
      other,
      1,
      `modularity ${found.modularity.toFixed(4)}; reference ${value.toFixed(4)}`,
    ),
    under(
      'Louvain: modularity given away',
      'the same',
      Math.max(0, value - found.modularity),
      0.0001,
      'of modularity',
    ),
  ];
}

export async function centrality(): Promise<Row[]> {
  const { graph, reference } = network(2, 5000, 25_000);
  const rows = outRows(graph);
  const ours = await time(3, () => betweenness(rows, { directed: true }));
  const other = await time(1, () =>
    referenceBetweenness(reference, { getEdgeWeight: null, normalized: false }),
  );
  return [faster('Betweenness, exact', '5,000 nodes, 25,000 ties, one thread', ours, other, 2)];
}

export async function layout(): Promise<Row[]> {
  const { graph, reference } = network(3, 20_000, 100_000);
  const running = new Attraction(graph, { seed: 1, gravity: 1, repulsion: 10 });
  const rounds = 20;
  for (let i = 0; i < 5; i++) running.iterate();
  const ours = await time(3, () => {
    for (let i = 0; i < rounds; i++) running.iterate();
  });
  reference.forEachNode((node) =>
    reference.mergeNodeAttributes(node, { x: running.x[Number(node)], y: running.y[Number(node)] }),
  );
  const settings = {
    ...referenceLayout.inferSettings(reference),
    barnesHutOptimize: true,
    barnesHutTheta: 1.1,
  };
  const other = await time(1, () =>
    referenceLayout(reference, { iterations: rounds, settings, getEdgeWeight: null }),
  );
  return [
    faster(
      'One layout iteration',
      '20,000 nodes, 100,000 ties, mean of 20, theta 1.1 in both',
      ours / rounds,
      other / rounds,
      3,
    ),
  ];
}
