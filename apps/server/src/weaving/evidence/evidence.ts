import type { MessagePage, Network } from '@pebble/contract';
import type { DailyTieCounts, MessageGroups, Tie } from '@pebble/core';
import type { EvidencePage } from '../../storage/evidence';
import { findNetwork } from '../../storage/networks';
import type { Store } from '../../storage/open';

/** Nodes of a network, or some of its ties. */
export type Behind = { readonly nodes: readonly number[] } | { readonly ties: readonly Tie[] };

/** Finds the messages behind a network's nodes and ties. */
export interface Evidence {
  messages(behind: Behind, page: EvidencePage): Promise<MessagePage>;
  /**
   * The messages of a network by the groups of its nodes: those that accounts wrote, or those that stand behind other nodes.
   * @param groupOf group of each node, from 0 to below `groups`; another number for none
   */
  grouped(groupOf: ArrayLike<number>, groups: number): MessageGroups;
  /** Ties that a message helps to make, as pairs of nodes. */
  tiesOf(message: number): Promise<Tie[]>;
  /** When the messages of each tie were written; null where that would have to be asked tie by tie. */
  dailyTieCounts(): Promise<DailyTieCounts | null>;
}

/** What stands behind a network; null for one without messages. */
export type EvidenceOf = (store: Store, network: Network) => Promise<Evidence | null>;

/** What stands behind a network that was made from another one; null where that is gone, or has no messages. */
export async function throughInner(
  store: Store,
  of: string,
  within: EvidenceOf,
  made: (inner: Network, evidence: Evidence) => Evidence,
): Promise<Evidence | null> {
  const inner = await findNetwork(store, of);
  const evidence = inner && (await within(store, inner));
  return evidence && made(inner, evidence);
}
