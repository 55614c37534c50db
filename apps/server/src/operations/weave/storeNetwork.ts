import type { ColumnInfo, MapDescription, Network, Weave } from '@pebble/contract';
import type { TableColumns } from '@pebble/core';
import { saveMap } from '../../storage/networks';
import type { StepContext } from '../step';

/** A network to be stored. */
export interface NewNetwork {
  readonly name: string;
  /** Null for one that came finished from a file. */
  readonly weave: Weave | null;
  readonly directed: boolean;
  readonly nodes: TableColumns;
  readonly edges: TableColumns;
  /** Which messages stand behind it, where that is kept with the network. */
  readonly evidence: TableColumns | null;
  /** Columns of the nodes beside those that every network has. */
  readonly own: readonly ColumnInfo[];
  readonly sentence: string;
  readonly messages: number;
  /** Ids of the tidy decisions with which it was woven. */
  readonly decisions: readonly number[];
  /** How it is shown at first. */
  readonly map: MapDescription;
  /** Which network it is a slice of. */
  readonly slice?: Network['slice'];
  /** Which network hands changed to make it. */
  readonly changed?: Network['changed'];
}

export interface StoredNetwork {
  readonly network: string;
  readonly nodes: number;
  readonly edges: number;
}

/** Makes a network a part of the study: its tables, its row, its first map. */
export async function storeNetwork(
  { store, files, step, now, newId }: StepContext,
  made: NewNetwork,
): Promise<StoredNetwork> {
  const network = newId();
  const nodes = made.nodes['id'].length;
  const edges = made.edges['source'].length;
  files.table(network, 'nodes', made.nodes);
  files.table(network, 'edges', made.edges);
  if (made.evidence) files.table(network, 'evidence', made.evidence);
  await store.query
    .insertInto('network')
    .values({
      id: network,
      step_id: step,
      name: made.name,
      weave: JSON.stringify(made.weave),
      directed: made.directed ? 1 : 0,
      own_columns: JSON.stringify(made.own),
      decisions: JSON.stringify(made.decisions),
      slice: made.slice ? JSON.stringify(made.slice) : null,
      changed: made.changed ? JSON.stringify(made.changed) : null,
      sentence: made.sentence,
      nodes,
      edges,
      messages: made.messages,
      state: 'woven',
      measures: '{}',
      created_at: now,
      deleted_at: null,
    })
    .execute();
  await saveMap(store, network, { description: made.map });
  await store.query.updateTable('study').set({ changed_at: now }).execute();
  return { network, nodes, edges };
}
