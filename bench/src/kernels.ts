import referenceLouvain from 'graphology-communities-louvain';
import referenceBetweenness from 'graphology-metrics/centrality/betweenness.js';
import referencePagerank from 'graphology-metrics/centrality/pagerank.js';
import { fileURLToPath } from 'node:url';
import {
  betweenness,
  communities,
  coreNumbers,
  degrees,
  localClustering,
  modularity,
  neighbourRows,
  outRows,
  pagerank,
  weakComponents,
  withoutSelfLoops,
} from '@pebble/core';
import { betweennessInThreads } from '../../apps/server/src/measuring/betweennessInThreads';
import { network } from './graphs';
import { atMost, faster, time, under, type Row } from './measure';

/** The program of the threads, beside this one among the built benchmarks. */
const pathsThread = fileURLToPath(new URL('./measuring/pathsThread.js', import.meta.url));

export async function groups(): Promise<Row[]> {
  const work = '200,000 nodes, 1,000,000 ties, one run';
  const made = network(1, 200_000, 1_000_000);
  const { graph } = made;
  const ours = [];
  for (const method of ['louvain', 'leiden'] as const) {
    let found = { modularity: 0 };
    const took = await time(
      2,
      () => (found = communities(graph, { method, resolution: 1, seed: 1, runs: 1 })),
    );
    ours.push({ name: method === 'louvain' ? 'Louvain' : 'Leiden', took, modularity: found.modularity });
  }
  const reference = made.reference();
  let theirs: Record<string, number> = {};
  // By some seeds it was seen to go on for ever; by this rule it ends.
  const rng = (): number => 0.5;
  const other = await time(1, () => (theirs = referenceLouvain(reference, { getEdgeWeight: null, rng })));
  const value = modularity(
    graph,
    Uint32Array.from(reference.nodes(), (name) => theirs[name]),
  );
  return ours.flatMap(({ name, took, modularity: own }) => [
    faster(
      name,
      work,
      took,
      other,
      1.5,
      `modularity ${own.toFixed(4)}; reference ${value.toFixed(4)} (Louvain)`,
    ),
    under(`${name}: modularity given away`, 'the same', Math.max(0, value - own), 0.0001, 'of modularity'),
  ]);
}

export async function centrality(): Promise<Row[]> {
  const made = network(2, 5000, 25_000);
  const rows = outRows(made.graph);
  const one = await time(2, () => betweenness(rows, { directed: true }));
  const both = await time(2, () => betweennessInThreads(pathsThread, 'steps', rows, { directed: true }));
  const reference = made.reference();
  const other = await time(1, () =>
    referenceBetweenness(reference, { getEdgeWeight: null, normalized: false }),
  );
  return [
    faster('Betweenness, exact, both cores', '5,000 nodes, 25,000 ties', both, other, 2.5),
    faster('Betweenness, exact, one thread', 'the same', one, other, 2),
    ...(await sampledBetweenness()),
    ...(await ranks()),
    ...(await basics()),
  ];
}

async function sampledBetweenness(): Promise<Row[]> {
  const rows = outRows(network(5, 200_000, 1_000_000).graph);
  let share = 0;
  const seconds =
    (await time(1, async () => {
      const { values, error } = await betweennessInThreads(pathsThread, 'steps', rows, {
        directed: true,
        pivots: 1000,
      });
      let first = 0;
      for (let v = 1; v < values.length; v++) if (values[v] > values[first]) first = v;
      share = error![first] / values[first];
    })) / 1000;
  const note = `standard error of the highest value ${(100 * share).toFixed(1)} % of it`;
  return [
    under(
      'Betweenness from 1,000 starts, both cores',
      '200,000 nodes, 1,000,000 ties',
      seconds,
      60,
      's',
      note,
    ),
  ];
}

async function ranks(): Promise<Row[]> {
  const made = network(6, 100_000, 500_000);
  const tolerance = 1e-6;
  const rows = withoutSelfLoops(outRows(made.graph));
  const ours = await time(3, () => pagerank(rows, 0.85, tolerance * rows.nodeCount));
  const reference = made.reference();
  const other = await time(1, () =>
    referencePagerank(reference, { getEdgeWeight: null, tolerance, maxIterations: 1000 }),
  );
  return [
    faster('PageRank', '100,000 nodes, 500,000 ties, changes below 0.000001 a node in both', ours, other, 4),
  ];
}

/** Everything that every network gets, beside one run of Louvain; and how it grows. */
async function basics(): Promise<Row[]> {
  const all = ({ nodeCount, ...graph }: ReturnType<typeof network>['graph']): void => {
    const whole = { nodeCount, ...graph };
    degrees(whole);
    weakComponents(whole);
    const either = withoutSelfLoops(neighbourRows(whole));
    coreNumbers(either);
    localClustering(either);
    communities(whole, { resolution: 1, seed: 1, runs: 1 });
  };
  const { graph } = network(7, 100_000, 500_000);
  const louvain = await time(2, () => communities(graph, { resolution: 1, seed: 1, runs: 1 }));
  const before = process.memoryUsage().rss;
  const ours = await time(2, () => all(graph));
  const grown = process.memoryUsage().rss - before;
  const allowed = 40 * 500_000 + 200 * 100_000;
  const sizes = [10_000, 100_000, 1_000_000];
  const times: number[] = [];
  for (const ties of sizes) {
    const sized = network(8, ties / 5, ties).graph;
    times.push(await time(1, () => all(sized)));
  }
  const exponent = Math.log(times[2] / times[0]) / Math.log(sizes[2] / sizes[0]);
  return [
    atMost(
      'Degrees, components, cores, clustering, communities',
      '100,000 nodes, 500,000 ties',
      ours,
      louvain,
      5,
      `reference: one run of Louvain of ours; process grew by ${Math.round(grown / 1024 ** 2)} MB (allowed beside the network ${Math.round(allowed / 1024 ** 2)} MB for one measure)`,
    ),
    under(
      'The same from 10,000 to 1,000,000 ties: exponent of growth',
      `${times.map((one) => Math.round(one)).join(', ')} ms`,
      exponent,
      1.5,
      '',
      'time ~ ties to the power of this',
    ),
  ];
}
