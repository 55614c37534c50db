import type { EvidenceQuery, MessagePage, Network, Portrait } from '@pebble/contract';
import { numbersOf, toArrow, type Tie } from '@pebble/core';
import { readPortrait } from '../storage/evidence';
import { findNetwork } from '../storage/networks';
import type { Store } from '../storage/open';
import { readTable } from '../storage/files/tables';
import type { Evidence } from './evidence/evidence';
import { dailyTieCountsOf } from './dailyTieCountsOf';
import { evidenceOf } from './evidenceOf';

/** A network with what stands behind it; null where there are no messages. */
async function behind(store: Store, id: string): Promise<{ network: Network; evidence: Evidence } | null> {
  const network = await findNetwork(store, id);
  const evidence = network && (await evidenceOf(store, network));
  return evidence && { network, evidence };
}

/** The messages behind a node, a tie or a community; null where the network has none. */
export async function readEvidence(
  store: Store,
  { network, query }: { readonly network: string; readonly query: EvidenceQuery },
): Promise<MessagePage | null> {
  const found = await behind(store, network);
  if (!found) return null;
  const { node, source, target, community } = query;
  if (source !== undefined && target !== undefined)
    return found.evidence.messages({ ties: [{ source, target }] }, query);
  const nodes = node !== undefined ? [node] : membersOf(store.folder, network, community!);
  return found.evidence.messages({ nodes }, query);
}

/** The profile of a community; null where the network has no messages. */
export async function readCommunity(
  store: Store,
  { network, community }: { readonly network: string; readonly community: number },
): Promise<Portrait | 'no such community' | null> {
  const members = membersOf(store.folder, network, community);
  if (members.length === 0) return 'no such community';
  const found = await behind(store, network);
  if (!found) return null;
  const groupOf = new Int32Array(found.network.nodes).fill(-1);
  for (const node of members) groupOf[node] = 0;
  const messages = found.evidence.grouped(groupOf, 1).messagesOf(0);
  return readPortrait(store, community, members.length, messages);
}

/** When the messages of each tie were written, as a table; null where it cannot be told. */
export async function readDailyTieCounts(store: Store, network: string): Promise<Uint8Array | null> {
  const found = await findNetwork(store, network);
  const dailyTieCounts = found && (await dailyTieCountsOf(store, found));
  return dailyTieCounts ? toArrow({ ...dailyTieCounts }) : null;
}

/** The ties that a message helps to make; null where the network has no messages. */
export async function readMessageTies(
  store: Store,
  { network, message }: { readonly network: string; readonly message: number },
): Promise<Tie[] | null> {
  const found = await behind(store, network);
  return found && found.evidence.tiesOf(message);
}

function membersOf(folder: string, network: string, community: number): number[] {
  const nodes = readTable(folder, network, 'nodes', ['community']);
  // A network that is not measured yet has no communities.
  if (!('community' in nodes)) return [];
  const groups = numbersOf(nodes, 'community');
  return Array.from(groups.keys()).filter((node) => groups[node] === community);
}
