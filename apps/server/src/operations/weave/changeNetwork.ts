import type { Network } from '@pebble/contract';
import {
  BY_HAND,
  transferPositions,
  carriedMap,
  firstMap,
  changeNetwork,
  changesPhrase,
  graphOf,
  neighbourRows,
  NODE_COLUMNS,
  withColumns,
  type CarriedColumns,
  type ChangedNetwork,
  isTakenColumn,
} from '@pebble/core';
import { findNetwork, readMap, readPositions, saveMap } from '../../storage/networks';
import type { Store } from '../../storage/open';
import { fromPlacesBytes, toPlacesBytes } from '../../storage/placesBytes';
import { readTable } from '../../storage/files/tables';
import { measuredNext } from './measuredNext';
import { storeNetwork } from './storeNetwork';
import { StepRefused } from '../../errors/stepErrors';
import type { StepDefinition } from '../step';

interface Result extends Record<string, unknown> {
  readonly network: string;
  readonly nodes: number;
  readonly edges: number;
  readonly of: string;
  readonly words: string;
}

/** A network that hands changed becomes a network of its own, with the places and the map of the one before. */
export const changeNetworkByHand: StepDefinition<'change-network', Result> = {
  kind: 'change-network',
  async run(context, { network, name, changes }, progress) {
    const { store } = context;
    const before = await findNetwork(store, network);
    if (!before) throw new StepRefused('This network is no longer there.');
    progress('Changing the network', null);
    const own = before.columns.filter((column) => isGiven(column, before));
    const nodes = readTable(store.folder, network, 'nodes');
    const given = ['id', 'handle', 'name', 'messages', ...own.map((column) => column.name)];
    const table = Object.fromEntries(given.flatMap((one) => (one in nodes ? [[one, nodes[one]]] : [])));
    const made = refused(() =>
      changeNetwork(table, readTable(store.folder, network, 'edges'), before.directed, changes),
    );
    if (made.nodes['id'].length === 0) throw new StepRefused('No node would be left. Nothing was changed.');
    progress('Storing', 0.8);
    const words = changesPhrase(made.done);
    const { description } = await readMap(store, network);
    const first = firstMap(before.weave, before.directed);
    const stored = await storeNetwork(context, {
      name,
      weave: before.weave,
      directed: before.directed,
      nodes: made.nodes,
      edges: made.edges,
      evidence: { node: made.became },
      own: [...own.filter((column) => column.name !== BY_HAND), byHandColumn(before)],
      sentence: `${before.sentence} Changed by hand: ${words}.`,
      messages: before.messages,
      decisions: await decisionsOfNetwork(store, network),
      map: withColumns(carriedMap(description, made.became), columnsOf(own, before), first),
      changed: { of: network, name: before.name, words },
    });
    await carryPlaces(store, network, stored.network, made);
    return { ...stored, of: before.name, words };
  },
  describe({ name, why }, result) {
    if (!result) return `The network “${name}” was to be made by changes by hand.`;
    const reason = why === '' ? '' : ` Why: ${why.replace(/[.\s]+$/, '')}.`;
    return `The network “${name}” was made of “${result.of}” by hand: ${result.words}.${reason}`;
  },
  followUps: (result) => [measuredNext(result)],
};

/** Whether a column tells what was known of a node, and was not computed of the network as it was. */
function isGiven({ name, how, shown }: Network['columns'][number], { groupings }: Network): boolean {
  return !isTakenColumn(name) && !(name in groupings) && !shown && !how.startsWith('Computed as');
}

/** The columns that the changed network will have. */
function columnsOf(own: Network['columns'], { columns }: Network): CarriedColumns {
  const names = (all: Network['columns']): string[] => all.map(({ name }) => name);
  const computed = new Set(names([...NODE_COLUMNS]));
  return {
    given: new Set([...names(own), BY_HAND, 'messages']),
    anew: new Set(names(columns).filter((name) => computed.has(name))),
  };
}

function byHandColumn({ name }: Network): Network['columns'][number] {
  return {
    name: BY_HAND,
    title: BY_HAND,
    type: 'category',
    how: `What hands did with it when “${name}” was changed; empty where nothing.`,
  };
}

function refused<T>(work: () => T): T {
  try {
    return work();
  } catch (error) {
    if (error instanceof RangeError) throw new StepRefused(`${error.message} Nothing was changed.`);
    throw error;
  }
}

async function decisionsOfNetwork({ query }: Store, id: string): Promise<number[]> {
  const { decisions } = await query
    .selectFrom('network')
    .select('decisions')
    .where('id', '=', id)
    .executeTakeFirstOrThrow();
  return JSON.parse(decisions) as number[];
}

/** Nodes stay where they are; those that are added come to those that they are tied to. */
async function carryPlaces(
  store: Store,
  from: string,
  to: string,
  { was, edges }: ChangedNetwork,
): Promise<void> {
  const positions = await readPositions(store, from);
  if (!positions) return;
  const { layout, iterations, moved } = await readMap(store, from);
  const names = Array.from(was, (_, v) => String(v));
  const places = new Map<string, readonly [number, number]>();
  const before = fromPlacesBytes(positions);
  was.forEach((v, i) => {
    if (v >= 0) places.set(names[i], [before.x[v], before.y[v]]);
  });
  const own = transferPositions(neighbourRows(graphOf(names.length, edges)), names, places);
  await saveMap(store, to, {
    positions: toPlacesBytes(own),
    moved,
    ...(layout ? { layout } : {}),
    ...(iterations === null ? {} : { iterations }),
  });
}
