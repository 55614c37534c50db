import { STEP_TRAITS, type Network, type Step } from '@pebble/contract';
import { findNetwork } from '../storage/networks';
import type { Store } from '../storage/open';
import { listSteps } from '../storage/steps';

/** Steps of which only the last one holds. */
const LAST_ALONE: ReadonlySet<string> = new Set([
  'name-people',
  'arrange-map',
  'portray-groups',
  'follow-groups',
]);

/**
 * The sentences of all steps that led to a network and to what is known of it, in their order: what was gathered and tidied before it was
 * woven, and what was done with it and with those that it was made of. Nothing of other networks.
 */
export async function methodsOf(store: Store, network: Network): Promise<string[]> {
  const line = await lineOf(store, network);
  const ids = new Set(line.map(({ id }) => id));
  const woven = Math.max(...line.map(({ step }) => step));
  const steps = (await listSteps(store))
    .filter(({ state, kind }) => state === 'done' && STEP_TRAITS[kind].inMethods)
    .filter((step) => isOf(step, ids, woven))
    .sort((a, b) => a.id - b.id);
  const last = new Map(steps.map((step) => [step.kind, step.id]));
  return steps
    .filter(({ kind, id }) => !LAST_ALONE.has(kind) || last.get(kind) === id)
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

/** Whether a step has to do with one of some networks; one that names none has, where it came before they were woven. */
function isOf({ id, kind, parameters, result }: Step, networks: ReadonlySet<string>, woven: number): boolean {
  const made = result?.['network'];
  const named = parameters['network'];
  if (typeof made === 'string' && networks.has(made)) return true;
  if (typeof named === 'string') return networks.has(named);
  if (typeof made === 'string') return false;
  return kind === 'name-people' || id < woven;
}
