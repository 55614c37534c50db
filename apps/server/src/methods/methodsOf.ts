import { STEP_TRAITS, type Network, type Step, type StepKind } from '@pebble/contract';
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

/**
 * The sentences of all steps that led to some networks and to what is known of them, in their order: what was gathered and tidied before they
 * were woven, and what was done with them and with those that they were made of. Nothing of other networks.
 */
export async function methodsOf(store: Store, networks: readonly Network[]): Promise<string[]> {
  const lines = await Promise.all(networks.map((network) => lineOf(store, network)));
  const line = lines.flat();
  const ids = new Set(line.map(({ id }) => id));
  const woven = Math.max(...line.map(({ step }) => step));
  const said = (await listSteps(store))
    .filter(({ state, kind }) => state === 'done' && STEP_TRAITS[kind].inMethods)
    .sort((a, b) => a.id - b.id);
  const isCoded = said.some(
    ({ kind, parameters }) => kind === 'share-of-code' && isAmong(ids, parameters['network']),
  );
  const steps = said.filter((step) => (CODING.has(step.kind) ? isCoded : isOf(step, ids, woven)));
  const last = new Map(steps.map((step) => [placeOf(step), step.id]));
  return steps
    .filter((step) => !LAST_ALONE.has(step.kind) || last.get(placeOf(step)) === step.id)
    .map(({ sentence }) => sentence);
}

/** The network, and those that it was made of: the whole of a slice, what hands changed, what groups or one sort were woven of. */
async function lineOf(store: Store, network: Network): Promise<Network[]> {
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
  // What was made of one of them is another network.
  if (typeof made === 'string') return networks.has(made);
  const named = parameters['network'];
  if (typeof named === 'string') return networks.has(named);
  return kind === 'name-people' || id < woven;
}

const isAmong = (networks: ReadonlySet<string>, id: unknown): boolean =>
  typeof id === 'string' && networks.has(id);

function placeOf({ kind, parameters }: Step): string {
  return JSON.stringify([kind, parameters['network'], parameters['column']]);
}
