import type { Network, Routine, RoutineRun, RunDifferences } from '@pebble/contract';
import { groupCodes, networkDifferences, numbersOf, type ComparedNetwork } from '@pebble/core';
import { readTable } from '../storage/files/tables';
import { findNetwork } from '../storage/networks';
import type { Store } from '../storage/open';
import { listPlates } from '../storage/plates';
import { listRuns } from '../storage/routineRuns';
import { nodeKeys } from './nodeKeys';

/** What differs between a run and an earlier one of the same routine; null where there is no such run. */
export async function readDifferences(
  store: Store,
  { run, beside }: { readonly run: number; readonly beside?: number | undefined },
): Promise<RunDifferences | null> {
  const runs = await listRuns(store);
  const now = runs.find(({ id }) => id === run);
  if (!now) return null;
  const earlier = runs.find(({ id, state, routine }) =>
    beside === undefined
      ? id < run && state === 'done' && routine.name === now.routine.name
      : id === beside && id !== run,
  );
  if (!earlier) return { run, before: null, networks: [], plates: [] };
  const networks = [];
  for (const { name } of now.routine.steps) {
    const pair = await Promise.all([madeNetwork(store, earlier, name), madeNetwork(store, now, name)]);
    const column = groupingOf(now.routine, name);
    const [before, after] = pair.map((network) => network && compared(store, network, column));
    if (before && after) networks.push(networkDifferences(name, before, after));
  }
  return { run, before: earlier.id, networks, plates: await platesOf(store, earlier, now) };
}

/** Plates of the same step that both runs have still. */
async function platesOf(
  store: Store,
  earlier: RoutineRun,
  now: RoutineRun,
): Promise<RunDifferences['plates']> {
  const there = new Set((await listPlates(store)).map(({ id }) => id));
  return now.routine.steps.flatMap(({ kind, name }) => {
    const [before, after] = [earlier.made[name], now.made[name]].map(Number);
    return kind === 'keep-plate' && there.has(before) && there.has(after)
      ? [{ step: name, before, now: after }]
      : [];
  });
}

/** The network that a step of a run made, where it is still there and measured. */
async function madeNetwork(store: Store, { made }: RoutineRun, step: string): Promise<Network | null> {
  const id = made[step];
  const network = typeof id === 'string' ? await findNetwork(store, id) : null;
  return network?.state === 'measured' ? network : null;
}

/** The last grouping that a routine finds in the network of a step. */
function groupingOf({ steps }: Routine, network: string): string {
  const last = steps.findLast(
    ({ kind, parameters }) =>
      kind === 'group-nodes' && JSON.stringify(parameters['network']) === JSON.stringify({ made: network }),
  );
  return typeof last?.parameters['name'] === 'string' ? last.parameters['name'] : 'community';
}

function compared(store: Store, { id, edges, titles, measures }: Network, wanted: string): ComparedNetwork {
  const nodes = readTable(store.folder, id, 'nodes');
  const column = wanted in nodes ? wanted : 'community';
  const { of, names } = groupCodes(nodes[column]);
  const by = 'inDegree' in nodes ? 'inDegree' : 'degree';
  return {
    network: id,
    keys: nodeKeys(store, id),
    names: Array.from(nodes['handle'] as ArrayLike<string>, String),
    edges,
    measures,
    group: of,
    titleOf: (group) => titles[column]?.[names[group]] ?? `group ${names[group]}`,
    by,
    rankedBy: numbersOf(nodes, by),
  };
}
