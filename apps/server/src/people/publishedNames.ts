import type { Naming, Network, NodeNames } from '@pebble/contract';
import {
  categoriesOf,
  counted,
  handleKey,
  leftOutColumns,
  nodeLabels,
  resolve,
  smallCells,
  tellingColumns,
  type PublishedNames,
  type TableColumns,
} from '@pebble/core';
import type { Pseudonym } from '@pebble/core/files';
import { readDecisions } from '../storage/decisions';
import type { Store } from '../storage/open';
import { readNaming, readPseudonyms } from '../storage/people';
import { readTable } from '../storage/files/tables';
import { findNetwork } from '../storage/networks';
import { LIST_MARK } from '../weaving/kinds/follows';
import { keepersOf } from './keepers';
import { personsOf } from './persons';

/** What the nodes of a network are called in what is published, and which columns of them are left out. */
export async function readNodeNames(store: Store, id: string): Promise<NodeNames> {
  if ((await readNaming(store)).form === 'as they are') return AS_THEY_ARE;
  const network = (await findNetwork(store, id))!;
  return publishedNames(store, network, readTable(store.folder, id, 'nodes'));
}

export async function publishedNames(
  store: Store,
  network: Network,
  nodes: TableColumns,
): Promise<NodeNames> {
  const naming = await readNaming(store);
  if (naming.form === 'as they are') return AS_THEY_ARE;
  const called = await callerOf(store, naming);
  const persons = personsOf(store, network, nodes);
  const labels = nodeLabels(nodes);
  const names = persons.map((person, v) => (person === null ? null : called(person, labels[v])));
  const missing = new Set(persons.filter((_, v) => names[v] === undefined));
  const telling = tellingColumns(nodes, network.columns);
  const leftOut = leftOutColumns(nodes, network.columns, naming);
  const out = telling.filter((name) => !leftOut.includes(name));
  const people = [...names.keys()].filter((v) => names[v] !== null);
  return {
    names: names.map((name) => (name === undefined ? UNNAMED : name)),
    missing: missing.size,
    kept: names.filter((name, v) => name === null && persons[v] !== null).length,
    telling,
    leftOut,
    smallCells: { ...smallCells(nodes, out, people, LEAST), columns: out, least: LEAST },
  };
}

/** What people are called in what is published, by their handles: as they are, where nobody decided otherwise. */
export async function personNames(store: Store): Promise<(handle: string) => string> {
  const naming = await readNaming(store);
  if (naming.form === 'as they are') return (handle) => handle;
  const called = await callerOf(store, naming);
  return (handle) => {
    const name = called(handleKey(handle), handle);
    return name === undefined ? UNNAMED : (name ?? handle);
  };
}

/** Names as `publishedNodes` wants them; null where all are called as they are. */
export function namesGiven({ names }: NodeNames): PublishedNames | null {
  return names.length > 0 ? names : null;
}

/** Why a table of people is refused: some of them would have no name in it. */
export function withoutPseudonyms(missing: number): string {
  return `${counted(missing, 'account')} came after pseudonyms were given, and ${missing === 1 ? 'has' : 'have'} none yet. Give them theirs on Publish, under People, and then save again.`;
}

/** Combinations that fewer people share point at them: five is what statistical offices often ask for (common practice). */
const LEAST = 5;

const AS_THEY_ARE: NodeNames = {
  names: [],
  missing: 0,
  kept: 0,
  telling: [],
  leftOut: [],
  smallCells: { columns: [], combinations: 0, people: 0, least: LEAST },
};

/** What those are called who have no pseudonym yet. */
const UNNAMED = 'not named yet';

/** Gives the name of a person: null for one who keeps it, undefined for one who has none yet. */
type Caller = (person: string, label: string) => string | null | undefined;

async function callerOf(store: Store, naming: Naming): Promise<Caller> {
  const decisions = await readDecisions(store, ['account']);
  const resolution = resolve(decisions);
  const values = categoriesOf(decisions).get(naming.category);
  const isKept = await keepersOf(store, naming);
  const pseudonyms = readPseudonyms(store);
  return (person, label) => {
    if (isKept(person)) return null;
    const pseudonym = pseudonyms.get(person);
    if (!pseudonym) return undefined;
    const value = values?.get(resolution.canonical(person)) ?? values?.get(person) ?? '';
    // Somebody can follow, and be a list of those who are followed.
    const behind = label.endsWith(LIST_MARK) ? LIST_MARK : '';
    return `${phraseOf(pseudonym, naming, value)}${behind}`;
  };
}

function phraseOf({ number, words }: Pseudonym, { form }: Naming, value: string): string {
  if (form === 'words') return words;
  return `${form === 'category' && value !== '' ? value : 'account'} ${number}`;
}
