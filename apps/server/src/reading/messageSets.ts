import type { ReadSet } from '@pebble/contract';
import { fitting, messageIds } from '../storage/messageFilter';
import { readTable } from '../storage/files/tables';
import { findNetwork } from '../storage/networks';
import type { Store } from '../storage/open';
import { nodeKeys } from './nodeKeys';
import { evidenceOf } from '../weaving/evidenceOf';

/** The numbers of the messages of a set, ascending; none behind a network that has no messages. */
export async function readSet(store: Store, set: ReadSet): Promise<readonly number[]> {
  if (set.what === 'filter') return messageIds(store, fitting(store, set.filter));
  const network = await findNetwork(store, set.network);
  const evidence = network && (await evidenceOf(store, network));
  if (!evidence) return [];
  if (set.what === 'network') return evidence.grouped(new Int32Array(network.nodes), 1).messagesOf(0);
  const nodes = readTable(store.folder, network.id, 'nodes', [set.column]);
  const values = set.column in nodes ? nodes[set.column] : [];
  const wasThere = set.what === 'kept' ? keysIn(store, set.before, set.column) : null;
  const keys = wasThere ? nodeKeys(store, network.id) : [];
  const isIn = (v: number): boolean =>
    String(values[v] ?? '') === set.group && (wasThere?.has(keys[v]) ?? true);
  return evidence
    .grouped(
      Int32Array.from({ length: network.nodes }, (_, v) => (isIn(v) ? 0 : -1)),
      1,
    )
    .messagesOf(0);
}

/** The keys of the nodes of a group of another network. */
function keysIn(
  store: Store,
  { network, group }: { readonly network: string; readonly group: string },
  column: string,
): ReadonlySet<string> {
  const nodes = readTable(store.folder, network, 'nodes', [column]);
  const values = column in nodes ? nodes[column] : [];
  return new Set(nodeKeys(store, network).filter((_, v) => String(values[v] ?? '') === group));
}
