import type { MapDescription, Weave, Network, WeaveKind } from '@pebble/contract';
import { accounts } from './accounts';
import { alike } from './alike';
import { usualMap } from './common/firstMaps';
import { follows } from './follows';
import { groups } from './groups';
import { inStep } from './inStep';
import type { Kind, OneAndMany } from './kind';
import { projection } from './projection';
import { shared } from './shared';
import { together } from './together';
import { twoMode } from './twoMode';

export * from './accounts/make';
export * from './alike/make';
export * from './follows/make';
export * from './groups/make';
export * from './inStep/make';
export * from './projection/make';
export * from './shared/make';
export * from './together/make';
export * from './twoMode/make';

/** Every kind of weave, by its name. */
const KINDS: { readonly [K in WeaveKind]: Kind<Extract<Weave, { what: K }>> } = {
  accounts,
  together,
  shared,
  'two-mode': twoMode,
  follows,
  'in-step': inStep,
  alike,
  groups,
  projection,
};

/** The kind of a weave; it is to be asked of that weave alone. */
export function kindOf({ what }: Weave): Kind<Weave> {
  return KINDS[what];
}

/** How a network was woven: here, or where the package was made that brought it. By this it is spoken of; messages are there of the former alone. */
export function wovenAs({
  weave,
  opened,
}: Pick<Network, 'weave'> & Partial<Pick<Network, 'opened'>>): Weave | null {
  return weave ?? opened?.weave ?? null;
}

/** What one and several nodes of a weave are called; a network from a file has nodes. */
export function nodeWords(weave: Weave | null): OneAndMany {
  return weave ? kindOf(weave).nodes(weave) : ['node', 'nodes'];
}

/** Whether the nodes of a weave are accounts and nothing else. */
export function isOfAccounts(weave: Weave | null): boolean {
  return nodeWords(weave)[0] === 'account';
}

/** How a new network is shown at first; `weave` is null for one from a file. */
export function firstMap(weave: Weave | null, directed: boolean): MapDescription {
  return weave ? kindOf(weave).firstMap(weave, directed) : usualMap(directed);
}
