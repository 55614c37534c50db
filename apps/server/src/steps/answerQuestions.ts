import { answerQuestions as answer, graphOf, groupCodes, joinWith, questionOf, sortsIn } from '@pebble/core';
import { addOwnColumns, findNetwork } from '../db/networks';
import { readTable, writeTable } from '../files/tables';
import { StepRefused, type StepDefinition } from './step';

interface Answered extends Record<string, unknown> {
  readonly network: string;
  readonly columns: readonly string[];
  readonly notes: readonly string[];
}

/** Answers questions about the nodes of a network by measures, which become columns. */
export const answerQuestions: StepDefinition<'answer-questions', Answered> = {
  kind: 'answer-questions',
  async run({ store }, { network, questions, settings }, progress) {
    const found = await findNetwork(store, network);
    if (!found) throw new StepRefused('This network is no longer there.');
    const nodes = readTable(store.folder, network, 'nodes');
    const edges = readTable(store.folder, network, 'edges');
    const graph = graphOf(found.nodes, edges);
    const groups = settings.groups in nodes ? groupCodes(nodes[settings.groups]).of : null;
    const { columns, notes } = answer(graph, found.directed, questions, settings, {
      groups,
      sorts: sortsIn(nodes, edges),
      progress: (share) => progress('Measuring', share),
    });
    if (Object.keys(columns).length === 0) throw new StepRefused(`${notes.join(' ')} Nothing was computed.`);
    writeTable(store.folder, network, 'nodes', { ...nodes, ...columns });
    const told = questions.flatMap((id) => questionOf(id).columns).filter(({ name }) => name in columns);
    await addOwnColumns(
      store,
      network,
      told.map(({ name, title, type, how }) => ({ name, title, type, how })),
    );
    return { network, columns: told.map(({ title }) => title), notes };
  },
  describe({ questions, settings }, result) {
    const titles =
      result?.columns ?? questions.flatMap((id) => questionOf(id).columns.map(({ title }) => title));
    const damping = questions.includes('well-connected')
      ? ` (PageRank with damping ${settings.damping})`
      : '';
    const by =
      questions.includes('between-groups') && settings.groups !== 'community'
        ? `; groups are those of “${settings.groups}”`
        : '';
    const notes = (result?.notes ?? []).map((note) => ` ${note}`).join('');
    return `Of every node of the whole network ${joinWith('and', titles)} ${titles.length === 1 ? 'was' : 'were'} computed${damping}${by}.${notes}`;
  },
  seed: ({ settings }) => settings.seed,
};
