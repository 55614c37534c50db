import type { ColumnInfo, QuestionSettings } from '@pebble/contract';
import {
  answerQuestions as answer,
  bridgePlans,
  counted,
  type FoundBridge,
  formatCount,
  type Graph,
  graphOf,
  groupCodes,
  joinWith,
  questionOf,
  shownGraph,
  shownPhrase,
  sortsIn,
  type TableColumns,
} from '@pebble/core';
import { addOwnColumns, findNetwork } from '../../storage/networks';
import { readTable } from '../../storage/files/tables';
import { betweennessInThreads } from '../../measuring/betweennessInThreads';
import { evidenceOf } from '../../weaving/evidenceOf';
import { StepRefused } from '../../errors/stepErrors';
import type { Progress } from '../../threads/progress';
import type { StepDefinition } from '../step';

interface Answered extends Record<string, unknown> {
  readonly network: string;
  readonly columns: readonly string[];
  readonly notes: readonly string[];
  /** Nodes of the part of which was asked, and of the whole. */
  readonly of: number;
  readonly whole: number;
}

/** Answers questions about the nodes of a network, or of the part that is shown, by measures, which become columns. */
export const answerQuestions: StepDefinition<'answer-questions', Answered> = {
  kind: 'answer-questions',
  async run({ store, files, threads }, { network, questions, settings, shown }, progress) {
    const found = await findNetwork(store, network);
    if (!found) throw new StepRefused('This network is no longer there.');
    const nodes = readTable(store.folder, network, 'nodes');
    const edges = readTable(store.folder, network, 'edges');
    const dailyTieCounts = shown?.period ? await (await evidenceOf(store, found))?.dailyTieCounts() : null;
    const part = shown && shownGraph({ nodeCount: found.nodes, nodes, edges, dailyTieCounts }, shown);
    if (part?.graph.nodeCount === 0)
      throw new StepRefused('Nothing is shown, so that nothing can be measured. Take a filter away.');
    const graph = part?.graph ?? graphOf(found.nodes, edges);
    const asked = questions.filter((question) => shown !== null || question !== 'basics');
    const groups = settings.groups in nodes ? groupCodes(nodes[settings.groups]).of : null;
    const sorts = sortsIn(nodes, edges);
    const ofPart = <T>(values: ArrayLike<T>): T[] =>
      Array.from(part?.node ?? Array.from(values).keys(), (v) => values[v]);
    const bridges = asked.includes('bridges')
      ? await findBridges(threads.paths, graph, found.directed, settings, progress)
      : [];
    const { columns, ties, notes } = answer(graph, found.directed, asked, settings, {
      groups: groups && ofPart(groups),
      sorts: sorts && ofPart(sorts),
      bridges,
      progress: (share) => progress('Measuring', share),
    });
    if (Object.keys(columns).length === 0) throw new StepRefused(`${notes.join(' ')} Nothing was computed.`);
    const told = asked.flatMap((id) => questionOf(id).columns).filter(({ name }) => name in columns);
    const infos: ColumnInfo[] = told.map(({ name, title, type, how }) =>
      part && shown
        ? {
            name: `${title}, shown`,
            title: `${title}, shown`,
            type,
            how: `${how} Of the part that was shown: ${formatCount(graph.nodeCount)} of ${counted(found.nodes, 'node')}, ${counted(graph.source.length, 'tie')}; none elsewhere.`,
            shown,
          }
        : { name, title, type, how },
    );
    const values = told.map(({ name }) =>
      part ? inWhole(columns[name], part.node, found.nodes) : columns[name],
    );
    const added: TableColumns = Object.fromEntries(infos.map(({ name }, c) => [name, values[c]]));
    files.table(network, 'nodes', { ...nodes, ...added });
    // Of a part ties have no place of their own in the table.
    if (!part && Object.keys(ties).length > 0) files.table(network, 'edges', { ...edges, ...ties });
    await addOwnColumns(store, network, infos);
    return {
      network,
      columns: told.map(({ title }) => title),
      notes,
      of: graph.nodeCount,
      whole: found.nodes,
    };
  },
  describe({ questions, settings, shown }, result) {
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
    const of = shown
      ? `${result ? `${formatCount(result.of)} of ${counted(result.whole, 'node')}` : 'the nodes'} that were shown (${shownPhrase(shown)})`
      : 'every node of the whole network';
    return `Of ${of} ${joinWith('and', titles)} ${titles.length === 1 ? 'was' : 'were'} computed${damping}${by}.${notes}`;
  },
  seed: ({ settings }) => settings.seed,
};

/** Who stands between others, with a thread for each core. */
async function findBridges(
  threadFile: string,
  graph: Graph,
  directed: boolean,
  { seed }: QuestionSettings,
  progress: Progress,
): Promise<FoundBridge[]> {
  const bridges: FoundBridge[] = [];
  for (const plan of bridgePlans(graph, directed)) {
    const found = await betweennessInThreads(threadFile, plan.kernel, plan.rows, {
      ...plan,
      seed,
      normalised: true,
      progress: (share) => progress('Paths between nodes', share),
    });
    bridges.push({ ...plan, found });
  }
  return bridges;
}

/** Values of a part as a column of the whole: none for nodes outside. */
function inWhole(values: ArrayLike<number>, node: Uint32Array, nodes: number): Float64Array {
  const all = new Float64Array(nodes).fill(NaN);
  for (let i = 0; i < node.length; i++) all[node[i]] = values[i];
  return all;
}
