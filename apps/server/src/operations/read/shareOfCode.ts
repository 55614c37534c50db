import { counted, formatCount, type MessageGroups } from '@pebble/core';
import type { Network } from '@pebble/contract';
import { StepRefused } from '../../errors/stepErrors';
import { messagesWithCode, readCodes } from '../../storage/codings';
import { readTable } from '../../storage/files/tables';
import { addOwnColumns, findNetwork } from '../../storage/networks';
import type { Store } from '../../storage/open';
import type { Progress } from '../../threads/progress';
import type { Evidence } from '../../weaving/evidence/evidence';
import { edgeFinder, readTies } from '../../weaving/evidence/ties';
import { evidenceOf } from '../../weaving/evidenceOf';
import type { StepDefinition } from '../step';

interface Shared extends Record<string, unknown> {
  readonly network: string;
  readonly column: string;
  readonly name: string;
  readonly messages: number;
  /** Nodes, and ties, with a message that has the code. */
  readonly nodes: number;
  readonly ties: number;
}

/** The share of the messages behind each node and each tie that have a code, as columns by which these can be coloured. */
export const shareOfCode: StepDefinition<'share-of-code', Shared> = {
  kind: 'share-of-code',
  async run({ store, files }, { network, code }, progress) {
    const found = await findNetwork(store, network);
    const evidence = found && (await evidenceOf(store, found));
    if (!evidence) throw new StepRefused('There are no messages behind this network. Nothing was computed.');
    const name = (await readCodes(store)).find(({ id }) => id === code)?.name;
    if (name === undefined) throw new StepRefused('This code is no longer in the codebook.');
    const coded = messagesWithCode(store, code);
    const ofNodes = sharesOfNodes(evidence, found.nodes, coded);
    const ofTies = await sharesOfTies(store, found, evidence, coded, progress);
    const column = `share of “${name}”`;
    files.table(network, 'nodes', {
      ...readTable(store.folder, network, 'nodes'),
      [column]: ofNodes.share,
    });
    files.table(network, 'edges', { ...readTable(store.folder, network, 'edges'), [column]: ofTies.share });
    await addOwnColumns(store, network, [
      {
        name: column,
        title: column,
        type: 'number',
        how: `Share of its messages that have the code “${name}”, 0 to 1; messages that nobody coded count as without it.`,
      },
    ]);
    return { network, column, name, messages: ofNodes.messages, nodes: ofNodes.having, ties: ofTies.having };
  },
  describe: (_, result) =>
    result
      ? `Of every node and tie the share of its messages with the code “${result.name}” was computed: ${counted(result.messages, 'message')} behind ${formatCount(result.nodes)} nodes have it, and ${counted(result.ties, 'tie')} ${result.ties === 1 ? 'has' : 'have'} such messages; those that nobody coded count as without it.`
      : 'The share of messages with a code was to be computed for every node and tie.',
};

function sharesOfNodes(
  evidence: Evidence,
  nodes: number,
  coded: readonly number[],
): { share: Float64Array; messages: number; having: number } {
  const own: MessageGroups = evidence.grouped(
    Int32Array.from({ length: nodes }, (_, v) => v),
    nodes,
  );
  const count = new Float64Array(nodes);
  const behind = coded.filter((message) => own.has(message));
  for (const message of behind) for (const node of own.of(message)) count[node]++;
  const share = count.map((one, v) => (own.sizes[v] === 0 ? NaN : one / own.sizes[v]));
  return { share, messages: behind.length, having: count.filter((one) => one > 0).length };
}

/** 0 for ties without a coded message; the others are told by what they open. */
async function sharesOfTies(
  store: Store,
  { id, directed }: Network,
  evidence: Evidence,
  coded: readonly number[],
  progress: Progress,
): Promise<{ share: Float64Array; having: number }> {
  const { source, target } = readTies(store, id);
  const edgeOf = edgeFinder({ source, target }, directed);
  const count = new Map<number, number>();
  for (const [i, message] of coded.entries()) {
    if (i % 100 === 0) progress('Looking for the ties of coded messages', (0.5 * i) / coded.length);
    for (const tie of await evidence.tiesOf(message)) {
      const edge = edgeOf(tie.source, tie.target);
      if (edge !== undefined) count.set(edge, (count.get(edge) ?? 0) + 1);
    }
  }
  const share = new Float64Array(source.length);
  let done = 0;
  for (const [edge, having] of count) {
    if (done++ % 100 === 0) progress('Counting the messages of ties', 0.5 + (0.5 * done) / count.size);
    const ties = [{ source: source[edge], target: target[edge] }];
    const { total } = await evidence.messages({ ties }, { offset: 0, limit: 1 });
    share[edge] = having / total;
  }
  return { share, having: count.size };
}
