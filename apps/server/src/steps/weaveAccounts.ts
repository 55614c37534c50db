import type { AccountWeave, AddressKind } from '@pebble/contract';
import { formatCount, weaveAccounts as weave, weaveSentence, type AccountNetwork } from '@pebble/core';
import { readAddresses } from '../db/addresses';
import { writeTable } from '../files/tables';
import { StepRefused, type StepDefinition } from './step';

const MOST_TIES = 5_000_000;

interface Woven extends Record<string, unknown> {
  readonly network: string;
  readonly nodes: number;
  readonly edges: number;
  readonly messages: number;
  readonly droppedBelowThreshold: number;
}

export const weaveAccounts: StepDefinition<'weave-accounts', Woven> = {
  kind: 'weave-accounts',
  async run({ store, study, step, now, newId }, parameters, progress) {
    progress('Reading who addressed whom', 0);
    const rows = readAddresses(store, study);
    progress('Weaving', 0.5);
    const woven = weave(rows, parameters.weave);
    const edges = woven.source.length;
    if (woven.account.length === 0)
      throw new StepRefused('This sentence gives no accounts. Widen the period or choose more kinds of tie.');
    if (edges > MOST_TIES)
      throw new StepRefused(
        `This would give ${formatCount(edges)} ties; at most ${formatCount(MOST_TIES)} can be held. Ask for more messages for each tie.`,
      );
    progress('Storing', 0.8);
    const ids = [...woven.account];
    const found = await store.query
      .selectFrom('account')
      .select(['id', 'handle', 'name'])
      .where('study_id', '=', study)
      .execute();
    const byId = new Map(found.map((account) => [account.id, account]));
    const network = newId();
    writeTable(store.folder, network, 'nodes', {
      id: woven.account,
      handle: ids.map((id) => byId.get(id)?.handle ?? ''),
      name: ids.map((id) => byId.get(id)?.name ?? ''),
      messages: messagesOf(rows, parameters.weave, woven.account),
    });
    writeTable(store.folder, network, 'edges', {
      source: woven.source,
      target: woven.target,
      weight: woven.weight,
      ...byKind(woven, parameters.weave),
      first: woven.first,
      last: woven.last,
    });
    await store.query
      .insertInto('network')
      .values({
        id: network,
        study_id: study,
        step_id: step,
        name: parameters.name,
        weave: JSON.stringify(parameters.weave),
        directed: 1,
        own_columns: '[]',
        sentence: weaveSentence(parameters.weave),
        nodes: ids.length,
        edges,
        messages: woven.messages,
        state: 'woven',
        measures: '{}',
        created_at: now,
        deleted_at: null,
      })
      .execute();
    await store.query.updateTable('study').set({ changed_at: now }).where('id', '=', study).execute();
    return {
      network,
      nodes: ids.length,
      edges,
      messages: woven.messages,
      droppedBelowThreshold: woven.droppedBelowThreshold,
    };
  },
  describe({ name, weave: recipe }, result) {
    if (!result) return `The network “${name}” was to be woven.`;
    const dropped =
      result.droppedBelowThreshold > 0
        ? `; ${formatCount(result.droppedBelowThreshold)} ties with fewer messages were left out`
        : '';
    return `${weaveSentence(recipe).slice(0, -1)}: ${formatCount(result.nodes)} accounts and ${formatCount(result.edges)} ties from ${formatCount(result.messages)} messages${dropped}.`;
  },
  followUps: ({ network }) => [{ kind: 'measure-network', parameters: { network, settings: {} } }],
};

/** Messages that each account wrote in the period. */
function messagesOf(
  rows: ReturnType<typeof readAddresses>,
  { from, until }: { from: number | null; until: number | null },
  account: Uint32Array,
): Float64Array {
  const place = new Map<number, number>();
  account.forEach((id, i) => place.set(id, i));
  const count = new Float64Array(account.length);
  let last = -1;
  for (let i = 0; i < rows.count; i++) {
    if (rows.message[i] === last) continue;
    last = rows.message[i];
    const time = rows.time[i];
    if ((from !== null && !(time >= from)) || (until !== null && !(time < until))) continue;
    const at = place.get(rows.from[i]);
    if (at !== undefined) count[at]++;
  }
  return count;
}

/** Names of the edge columns that count messages by kind. */
const KIND_COLUMN: Readonly<Record<AddressKind, string>> = {
  reply: 'replies',
  mention: 'mentions',
  repost: 'reposts',
  to: 'sent',
  cc: 'copies',
  bcc: 'blind copies',
};

/** Messages of each tie by the kinds that the weave counts. */
function byKind(woven: AccountNetwork, { kinds }: AccountWeave): Record<string, Float64Array> {
  return Object.fromEntries(kinds.map((kind) => [KIND_COLUMN[kind], woven.byKind[kind]]));
}
