import type { ColumnInfo, Decision, Scorer, TidySort, Weave } from '@pebble/contract';
import {
  categoriesOf,
  handleKey,
  kindOf,
  looksLikeCategory,
  resolve,
  typedColumn,
  type Woven,
  isTakenColumn,
  type ColumnType,
} from '@pebble/core';
import { readProfiles } from '../storage/accounts';
import { readDecisions } from '../storage/decisions';
import { BOUND_LIST } from '../storage/lists';
import type { Store } from '../storage/open';
import { accountLabels } from '../storage/occurrenceRows';
import { kindsOfNames } from '../storage/tidyThings';
import type { NodeColumn } from './namedWeave';

/** Nodes of a weave that are of one sort: their places among all nodes, and their numbers in the study. */
interface Nodes {
  readonly count: number;
  readonly places: readonly number[];
  readonly ids: readonly number[];
}

/** What the study knows of accounts and things, as columns of a network's nodes; columns without a value are left out. */
export async function carriedColumns(
  store: Store,
  weave: Weave,
  woven: Woven,
  keyOf: ((thing: number) => string) | null,
): Promise<NodeColumn[]> {
  const nodesOf = (mode: number): Nodes => {
    const places = [...woven.id.keys()].filter((v) => woven.mode[v] === mode);
    return { count: woven.id.length, places, ids: places.map((v) => woven.id[v]) };
  };
  const { accounts, things } = kindOf(weave).sorts(weave);
  const found: NodeColumn[] = [];
  if (accounts) found.push(...(await accountColumns(store, nodesOf(0))));
  if (things) {
    const nodes = nodesOf(accounts ? 1 : 0);
    if (things === 'item') found.push(...itemColumns(store, nodes));
    else if (keyOf) found.push(...(await thingColumns(store, things, nodes.ids.map(keyOf), nodes)));
  }
  return merged(found);
}

async function accountColumns(store: Store, nodes: Nodes): Promise<NodeColumn[]> {
  const handle = accountLabels(store);
  const keys = nodes.ids.map((id) => handleKey(handle.get(id) ?? ''));
  const profiles = await readProfiles(store, nodes.ids);
  const told = new Map<string, string[]>();
  const types = new Map<string, ColumnType>();
  const tell = (name: string, at: number, value: string | number | null, type: ColumnType): void => {
    if (value === null || value === '') return;
    if (types.get(name) !== 'text') types.set(name, type);
    let values = told.get(name);
    if (!values) told.set(name, (values = new Array<string>(nodes.ids.length).fill('')));
    values[at] = String(value);
  };
  nodes.ids.forEach((id, at) => {
    const profile = profiles.get(id);
    if (!profile) return;
    tell('location', at, profile.location, 'text');
    const joined = profile.joined === null ? null : new Date(profile.joined).getUTCFullYear();
    tell('joined', at, joined, 'number');
    for (const [name, value] of Object.entries(profile.numbers)) tell(name, at, value, 'number');
    for (const [name, value] of Object.entries(profile.attributes)) tell(name, at, value, 'text');
  });
  const how = (name: string): string =>
    name === 'joined'
      ? 'The year in which the account was opened, as its profile says.'
      : 'As its profile says.';
  return [
    ...decided(await readDecisions(store, ['account']), keys, nodes),
    ...[...told].map(([name, values]) => columnOf(name, how(name), values, nodes, types.get(name))),
    ...scoreColumns(store, nodes),
  ];
}

/** @param keys by which the things are known */
async function thingColumns(
  store: Store,
  sort: TidySort,
  keys: readonly string[],
  nodes: Nodes,
): Promise<NodeColumn[]> {
  const given = decided(await readDecisions(store, [sort]), keys, nodes);
  if (sort !== 'name') return given;
  const kinds = kindsOfNames(store);
  const found = keys.map((key) => kinds.get(key) ?? '');
  // What was decided comes before what was found.
  return merged([...given, kindColumn(found, nodes)]);
}

/** The kind and the categories that were given to things, known by their keys. */
function decided(decisions: readonly Decision[], keys: readonly string[], nodes: Nodes): NodeColumn[] {
  const resolution = resolve(decisions);
  const kinds = keys.map((key) => resolution.kind(key) ?? '');
  const categories = [...categoriesOf(decisions)].map(([name, values]) =>
    columnOf(
      name,
      'A category that was given to it when the study was tidied.',
      keys.map((key) => values.get(resolution.canonical(key)) ?? values.get(key) ?? ''),
      nodes,
      'given',
    ),
  );
  return [...(kinds.some((kind) => kind !== '') ? [kindColumn(kinds, nodes)] : []), ...categories];
}

function kindColumn(kinds: readonly string[], nodes: Nodes): NodeColumn {
  return columnOf(
    'kind',
    'The kind that was found, or given to it when the study was tidied.',
    kinds,
    nodes,
    'given',
  );
}

/** What scorers gave the messages of accounts, as means. */
function scoreColumns({ raw }: Store, nodes: Nodes): NodeColumn[] {
  const rows = raw
    .prepare(
      `select m.author_id, s.scorer, avg(s.value) from message m join message_score s on s.message_id = m.id
       where m.author_id in ${BOUND_LIST} group by m.author_id, s.scorer`,
    )
    .raw()
    .all(JSON.stringify(nodes.ids)) as [number, Scorer, number][];
  const scorers = [...new Set(rows.map(([, scorer]) => scorer))].sort().reverse();
  return scorers.map((scorer) => {
    const mean = new Map(
      rows.filter((row) => row[1] === scorer).map(([account, , value]) => [account, value]),
    );
    const values = new Float64Array(nodes.count).fill(NaN);
    nodes.ids.forEach((id, i) => (values[nodes.places[i]] = mean.get(id) ?? NaN));
    const how = `Mean ${scorer} of its messages that have one, in the whole study.`;
    return { info: { name: scorer, title: `mean ${scorer}`, type: 'number', how }, values };
  });
}

/** What is told of videos and pages. */
function itemColumns({ raw }: Store, nodes: Nodes): NodeColumn[] {
  const rows = raw
    .prepare(
      `select i.id, a.handle, i.time, i.more from item i left join account a on a.id = i.account_id
       where i.id in ${BOUND_LIST}`,
    )
    .raw()
    .all(JSON.stringify(nodes.ids)) as [number, string | null, number | null, string | null][];
  const place = new Map(nodes.ids.map((id, i) => [id, i]));
  const columns = new Map<string, string[]>();
  const types = new Map<string, ColumnType>();
  const tell = (name: string, id: number, value: string | number | null, type: ColumnType): void => {
    if (value === null || value === '') return;
    if (types.get(name) !== 'text') types.set(name, type);
    let values = columns.get(name);
    if (!values) columns.set(name, (values = new Array<string>(nodes.ids.length).fill('')));
    values[place.get(id)!] = String(value);
  };
  for (const [id, channel, time, more] of rows) {
    tell('channel', id, channel, 'text');
    tell('published', id, time === null ? null : new Date(time).toISOString().slice(0, 10), 'text');
    const { numbers = {}, attributes = {} } = (more ? JSON.parse(more) : {}) as Partial<
      Record<'numbers' | 'attributes', Record<string, string | number>>
    >;
    for (const [name, value] of Object.entries(numbers)) tell(name, id, value, 'number');
    for (const [name, value] of Object.entries(attributes)) tell(name, id, value, 'text');
  }
  return [...columns].map(([name, values]) =>
    columnOf(name, 'As the list of items says.', values, nodes, types.get(name)),
  );
}

/**
 * Values of some nodes as a column of all; a name that the network needs for itself is made another.
 * @param said what it holds, or that the researcher gave the values, as a category
 */
function columnOf(
  name: string,
  how: string,
  values: readonly string[],
  nodes: Nodes,
  said: ColumnType | 'given' = 'text',
): NodeColumn {
  const all = new Array<string>(nodes.count).fill('');
  nodes.places.forEach((v, i) => (all[v] = values[i]));
  const isGiven = said === 'given';
  const typed = isGiven ? all : typedColumn(all, said);
  const isNumber = typed instanceof Float64Array;
  const given = values.filter((value) => value !== '');
  const type: ColumnInfo['type'] = isNumber
    ? 'number'
    : isGiven || looksLikeCategory(given)
      ? 'category'
      : 'text';
  const own = isTakenColumn(name) ? `${name} (told)` : name;
  return { info: { name: own, title: own, type, how }, values: typed };
}

/** Columns of accounts and of things with one name are one: of each node the first value that is there. */
function merged(columns: readonly NodeColumn[]): NodeColumn[] {
  const byName = new Map<string, NodeColumn>();
  for (const column of columns) {
    const { name } = column.info;
    const before = byName.get(name);
    if (!before || before.values instanceof Float64Array || column.values instanceof Float64Array) {
      if (!before) byName.set(name, column);
      continue;
    }
    const { values } = column;
    byName.set(name, { ...before, values: before.values.map((value, v) => value || values[v]) });
  }
  return [...byName.values()];
}
