import {
  STEP_TRAITS,
  type Chapter,
  type MethodsLength,
  type Network,
  type Step,
  type StepKind,
} from '@pebble/contract';
import { counted } from '@pebble/core';
import { findNetwork } from '../storage/networks';
import type { Store } from '../storage/open';
import { listSteps } from '../storage/steps';

/** Steps of which only the last one holds: of each network, and of each of its columns. */
const LAST_ALONE: ReadonlySet<StepKind> = new Set([
  'name-people',
  'arrange-map',
  'portray-groups',
  'follow-groups',
]);

/** Steps of coding: a network has to do with them once it has the share of a code. */
const CODING: ReadonlySet<StepKind> = new Set(['import-codes', 'draw-sample', 'measure-agreement']);

/** Steps that a short text tells of a network: what is there, and not what it looks like or what was written of it. */
const SHORT: ReadonlySet<StepKind> = new Set([
  'weave',
  'weave-slices',
  'import-network',
  'change-network',
  'measure-network',
  'group-nodes',
]);
/** So many sentences of the material stand in a short text before they are put together. */
const SHORT_MATERIAL = 2;

/**
 * What led to some networks and to what is known of them, by chapters: what was gathered and tidied before they were woven, what was done with
 * each and with those that it was made of, and how people are called. Nothing of other networks.
 */
export async function methodsOf(
  store: Store,
  networks: readonly Network[],
  length: MethodsLength,
): Promise<string[][]> {
  const lines = await Promise.all(networks.map((network) => lineOf(store, network)));
  const steps = await stepsOf(store, lines.flat());
  const inChapter = (chapter: Chapter): Step[] =>
    steps.filter(({ kind }) => STEP_TRAITS[kind].chapter === chapter);
  const told = new Set<number>();
  const ofNetworks = lines.map((line, i) => {
    const ids = new Set(line.map(({ id }) => id));
    const own = inChapter('network').filter((step) => !told.has(step.id) && isOfNetworks(step, ids));
    for (const { id } of own) told.add(id);
    const sentences = own.filter(({ kind }) => length === 'long' || SHORT.has(kind)).map(sentenceOf);
    if (networks.length === 1 || sentences.length === 0) return sentences;
    const [first, ...rest] = sentences;
    return [`“${networks[i].name}”: ${first}`, ...rest];
  });
  return [
    materialTold(inChapter('material'), length),
    tidyingTold(inChapter('tidying'), networks, length),
    ...ofNetworks,
    inChapter('people').map(sentenceOf),
  ].filter((sentences) => sentences.length > 0);
}

/** The steps in their order that belong into the methods of some networks and of those that these were made of. */
export async function stepsOf(store: Store, line: readonly Network[]): Promise<Step[]> {
  const ids = new Set(line.map(({ id }) => id));
  const woven = Math.max(...line.map(({ step }) => step));
  const said = (await listSteps(store))
    .filter(({ state, kind }) => state === 'done' && STEP_TRAITS[kind].chapter !== null)
    .sort((a, b) => a.id - b.id);
  const isCoded = said.some(
    ({ kind, parameters }) => kind === 'share-of-code' && isAmong(ids, parameters['network']),
  );
  const steps = said.filter((step) => (CODING.has(step.kind) ? isCoded : isOf(step, ids, woven)));
  const last = new Map(steps.map((step) => [placeOf(step), step.id]));
  return steps.filter((step) => !LAST_ALONE.has(step.kind) || last.get(placeOf(step)) === step.id);
}

function materialTold(steps: readonly Step[], length: MethodsLength): string[] {
  const gathered = steps.filter(({ kind }) => kind === 'import-source' || kind === 'collect-source');
  if (length === 'long' || gathered.length <= SHORT_MATERIAL) return steps.map(sentenceOf);
  return [`Messages were gathered in ${counted(gathered.length, 'import')} and collecting runs.`];
}

function tidyingTold(steps: readonly Step[], networks: readonly Network[], length: MethodsLength): string[] {
  if (length === 'long' || steps.length === 0) return steps.map(sentenceOf);
  const decisions = Math.max(...networks.map((network) => network.decisions));
  return [`Names were made to mean one thing by ${counted(decisions, 'tidy decision')}.`];
}

/** What a step says of itself, in past tense. */
function sentenceOf({ sentence }: Step): string {
  return sentence.replace(' tied when ', ' were tied when ');
}

/** The network, and those that it was made of: the whole of a slice, what hands changed, what groups or one sort were woven of. */
export async function lineOf(store: Store, network: Network): Promise<Network[]> {
  const line = [network];
  for (let of = madeOf(network); of !== null && !line.some(({ id }) => id === of);) {
    const found = await findNetwork(store, of);
    if (!found) break;
    line.push(found);
    of = madeOf(found);
  }
  return line;
}

function madeOf({ slice, changed, weave }: Network): string | null {
  return slice?.of ?? changed?.of ?? (weave && 'network' in weave ? weave.network : null);
}

/** Whether a step made one of some networks or worked on one; one that names none has to do with them where it came before they were woven. */
function isOf({ id, kind, parameters, result }: Step, networks: ReadonlySet<string>, woven: number): boolean {
  const made = result?.['network'];
  if (typeof made === 'string' || typeof parameters['network'] === 'string')
    return isOfNetworks({ parameters, result }, networks);
  return kind === 'name-people' || id < woven;
}

/** Whether a step made one of some networks, or worked on one and made none: what was made of one of them is another network. */
function isOfNetworks(
  { parameters, result }: Pick<Step, 'parameters' | 'result'>,
  networks: ReadonlySet<string>,
): boolean {
  const made = result?.['network'];
  return typeof made === 'string' ? networks.has(made) : isAmong(networks, parameters['network']);
}

const isAmong = (networks: ReadonlySet<string>, id: unknown): boolean =>
  typeof id === 'string' && networks.has(id);

function placeOf({ kind, parameters }: Step): string {
  return JSON.stringify([kind, parameters['network'], parameters['column']]);
}
