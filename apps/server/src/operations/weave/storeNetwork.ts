import { saveMap } from '../../storage/networks';
import type { NewNetwork } from '../../weaving/weaveResult';
import type { StepContext } from '../step';

interface StoredNetwork {
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
