import type { Network } from '@pebble/contract';
import { THING_WORDS } from '@pebble/core';

/** Networks of two sorts of nodes. */
export function twoModeNetworks(networks: readonly Network[]): Network[] {
  return networks.filter(({ columns }) => columns.some(({ name }) => name === 'mode'));
}

/** The sorts of nodes of a two-mode network; one from a file has those of a sign-in sheet, or others that the file names. */
export function sortsOf(networks: readonly Network[], id: string): string[] {
  const weave = networks.find((network) => network.id === id)?.weave ?? null;
  if (weave?.what === 'two-mode') return ['account', THING_WORDS[weave.things][0]];
  return weave?.what === 'follows' ? ['list', 'follower'] : ['person', 'thing'];
}
