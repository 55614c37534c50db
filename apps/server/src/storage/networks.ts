import {
  type ColumnInfo,
  defaultMap,
  LayoutSettings,
  MapDescription,
  type Network,
  type NetworkPage,
  type PageQuery,
  type SavedMap,
  THROUGH_TIME,
  TitlesByColumn,
  Weave,
} from '@pebble/contract';
import { kindOf, nodeColumns } from '@pebble/core';
import type { Selectable } from 'kysely';
import * as z from 'zod';
import { decisionsFor } from './decisions';
import type { Store } from './open';
import { readPage } from './pages';
import { readTitles } from './portraits';
import type { NetworkTable } from './schema';

/** The networks of a study that were not deleted, the newest first. */
export async function listNetworks(store: Store): Promise<Network[]> {
  const rows = await newestFirst(store).execute();
  return Promise.all(rows.map((row) => toNetwork(store, row)));
}

export async function readNetworks(store: Store, page: PageQuery): Promise<NetworkPage> {
  const { rows, ...place } = await readPage(newestFirst(store), page);
  return { ...place, networks: await Promise.all(rows.map((row) => toNetwork(store, row))) };
}

const newestFirst = ({ query }: Store) =>
  query
    .selectFrom('network')
    .selectAll()
    .where('deleted_at', 'is', null)
    .orderBy('step_id', 'desc')
    .orderBy('id');

/** The network, or null when there is none with this id or it was deleted. */
export async function findNetwork(store: Store, id: string): Promise<Network | null> {
  const row = await store.query
    .selectFrom('network')
    .selectAll()
    .where('id', '=', id)
    .where('deleted_at', 'is', null)
    .executeTakeFirst();
  return row ? toNetwork(store, row) : null;
}

/** The slices of a network in the order of time, by their ids. */
export async function slicesOfNetwork({ query }: Store, network: string): Promise<string[]> {
  const rows = await query
    .selectFrom('network')
    .select(['id', 'slice'])
    .where('slice', 'is not', null)
    .where('deleted_at', 'is', null)
    .execute();
  return rows
    .map(({ id, slice }) => ({ id, slice: JSON.parse(slice!) as NonNullable<Network['slice']> }))
    .filter(({ slice }) => slice.of === network)
    .sort((a, b) => a.slice.place - b.slice.place)
    .map(({ id }) => id);
}

export async function readMap({ query }: Store, network: string): Promise<SavedMap> {
  const row = await query.selectFrom('map').selectAll().where('network_id', '=', network).executeTakeFirst();
  return {
    network,
    description: row ? MapDescription.parse(JSON.parse(row.description)) : defaultMap,
    layout: row?.layout ? LayoutSettings.parse(JSON.parse(row.layout)) : null,
    iterations: row?.iterations ?? null,
    moved: row?.moved ?? 0,
    hasPositions: row?.positions != null,
  };
}

export async function readPositions({ query }: Store, network: string): Promise<Buffer | null> {
  const row = await query
    .selectFrom('map')
    .select('positions')
    .where('network_id', '=', network)
    .executeTakeFirst();
  return row?.positions ?? null;
}

/** Writes the given parts of a network's map; the others stay as they are. */
export async function saveMap(
  store: Store,
  network: string,
  part: {
    description?: MapDescription;
    layout?: LayoutSettings;
    iterations?: number;
    moved?: number;
    positions?: Buffer;
  },
): Promise<void> {
  const values = {
    ...(part.description ? { description: JSON.stringify(part.description) } : {}),
    ...(part.layout ? { layout: JSON.stringify(part.layout) } : {}),
    ...(part.iterations === undefined ? {} : { iterations: part.iterations }),
    ...(part.moved === undefined ? {} : { moved: part.moved }),
    ...(part.positions ? { positions: part.positions } : {}),
  };
  await store.query
    .insertInto('map')
    .values({
      network_id: network,
      description: JSON.stringify(part.description ?? defaultMap),
      layout: null,
      iterations: null,
      moved: 0,
      positions: null,
      ...values,
    })
    .onConflict((c) => c.column('network_id').doUpdateSet(values))
    .execute();
}

/** Says of a network that its node table has further columns; those of the same name are replaced. */
export async function addOwnColumns(
  { query }: Store,
  network: string,
  columns: readonly ColumnInfo[],
): Promise<void> {
  const row = await query
    .selectFrom('network')
    .select('own_columns')
    .where('id', '=', network)
    .executeTakeFirstOrThrow();
  const names = columns.map(({ name }) => name);
  const others = (JSON.parse(row.own_columns) as ColumnInfo[]).filter(({ name }) => !names.includes(name));
  await query
    .updateTable('network')
    .set({ own_columns: JSON.stringify([...others, ...columns]) })
    .where('id', '=', network)
    .execute();
}

async function toNetwork(store: Store, row: Selectable<NetworkTable>): Promise<Network> {
  const weave = Weave.nullable().parse(JSON.parse(row.weave));
  const used = JSON.parse(row.decisions) as number[];
  const now = weave ? await decisionsFor(store, weave) : [];
  return {
    id: row.id,
    study: store.study,
    name: row.name,
    weave,
    directed: row.directed === 1,
    sentence: row.sentence,
    step: row.step_id,
    createdAt: row.created_at,
    nodes: row.nodes,
    edges: row.edges,
    messages: row.messages,
    state: row.state === 'measured' ? 'measured' : 'woven',
    columns: columnsOf(row),
    decisions: used.length,
    forgotten: row.forgotten,
    stale: now.length !== used.length || now.some(({ id }, i) => id !== used[i]),
    slice: row.slice === null ? null : (JSON.parse(row.slice) as Network['slice']),
    changed: row.changed === null ? null : (JSON.parse(row.changed) as Network['changed']),
    opened: openedOf(row),
    whole: row.whole === null ? null : (JSON.parse(row.whole) as Network['whole']),
    groupings: JSON.parse(row.groupings) as Network['groupings'],
    measures: JSON.parse(row.measures) as Network['measures'],
    titles: await titlesOf(store, row),
  };
}

/** What is kept of a network that a package brought. */
const Opened = z.object({
  title: z.string(),
  weave: Weave.nullable(),
  changed: z.string().nullable(),
  /** Behind its ties where it was woven. */
  messages: z.int(),
  titles: TitlesByColumn,
});
export type Opened = z.infer<typeof Opened>;

function openedOf({ opened }: Selectable<NetworkTable>): Network['opened'] {
  if (opened === null) return null;
  const { titles: _, ...told } = Opened.parse(JSON.parse(opened));
  return told;
}

/** What groups are called; lines through time are called in slices as in their whole. */
async function titlesOf(
  store: Store,
  { id, slice, opened }: Selectable<NetworkTable>,
): Promise<TitlesByColumn> {
  const brought = opened === null ? {} : Opened.parse(JSON.parse(opened)).titles;
  const own = { ...brought, ...(await readTitles(store, id)) };
  if (slice === null) return own;
  const { of } = JSON.parse(slice) as NonNullable<Network['slice']>;
  const whole = await readTitles(store, of);
  return THROUGH_TIME in whole ? { ...own, [THROUGH_TIME]: whole[THROUGH_TIME] } : own;
}

/** The columns of the node table: those that are computed, and those that a file brought. */
function columnsOf(row: Selectable<NetworkTable>): ColumnInfo[] {
  const own = JSON.parse(row.own_columns) as ColumnInfo[];
  if (row.opened !== null) return own;
  const weave = JSON.parse(row.weave) as Weave | null;
  const computed = nodeColumns({
    directed: row.directed === 1,
    hasMessages: weave !== null && 'from' in weave,
    isOfAccounts: weave !== null && kindOf(weave).isByAddress,
  });
  // Of a large network betweenness comes later than the rest.
  const isThere = (name: string): boolean =>
    name === 'messages' ||
    (row.state === 'measured' && (name !== 'betweenness' || 'exact' in (JSON.parse(row.measures) as object)));
  return [...computed.filter(({ name }) => isThere(name)), ...own];
}
