import type { ColumnInfo, GroupWeave, TidyKind } from '@pebble/contract';
import {
  contract,
  counted,
  formatCount,
  handleKey,
  MOST_TIES,
  nodeLabels,
  nodeWords,
  TooManyTies,
  textsIn,
  weaveSentence,
  type TableColumns,
} from '@pebble/core';
import { accountKinds, decisionsFor } from '../db/decisions';
import { accountLabels } from '../db/placings';
import { findNetwork } from '../db/networks';
import type { Store } from '../db/open';
import { readTable } from '../files/tables';
import { weaveStudy, type NamedWeave, type StudyWeave } from '../weaving/weaveStudy';
import { firstMap } from './firstMap';
import { storeNetwork, type NewNetwork } from './storeNetwork';
import { StepRefused, type Progress, type StepContext, type StepDefinition } from './step';

interface Result extends Record<string, unknown> {
  readonly network: string;
  readonly nodes: number;
  readonly edges: number;
  readonly messages: number;
  readonly droppedBelowThreshold: number;
  readonly notes: readonly string[];
  readonly decisions: number;
}

/** What a recipe gives. */
interface Made extends Omit<NewNetwork, 'name' | 'weave' | 'map' | 'sentence'> {
  readonly dropped: number;
  readonly notes: readonly string[];
  /** What its groups were made from, in words. */
  readonly from: string;
}

/** A recipe becomes a network of the study. */
export const weave: StepDefinition<'weave', Result> = {
  kind: 'weave',
  async run(context, { name, weave: recipe }, progress) {
    const made =
      recipe.what === 'groups'
        ? await fromGroups(context.store, recipe)
        : await fromStudy(context, recipe, progress);
    progress('Storing', 0.8);
    const stored = await storeNetwork(context, {
      ...made,
      name,
      weave: recipe,
      sentence: `${weaveSentence(recipe).slice(0, -1)}${made.from}.`,
      map: firstMap(recipe, made.directed),
    });
    return {
      ...stored,
      messages: made.messages,
      droppedBelowThreshold: made.dropped,
      notes: made.notes,
      decisions: made.decisions.length,
    };
  },
  describe({ name, weave: recipe }, result) {
    if (!result) return `The network “${name}” was to be woven.`;
    const dropped =
      result.droppedBelowThreshold > 0
        ? `; ${counted(result.droppedBelowThreshold, 'tie')} below the threshold ${result.droppedBelowThreshold === 1 ? 'was' : 'were'} left out`
        : '';
    const from = result.messages > 0 ? ` from ${counted(result.messages, 'message')}` : '';
    const notes = result.notes.map((note) => ` ${note}`).join('');
    const tidied = result.decisions > 0 ? `, after ${counted(result.decisions, 'tidy decision')}` : '';
    return `${weaveSentence(recipe).slice(0, -1)}: ${counted(result.nodes, ...nodeWords(recipe))} and ${counted(result.edges, 'tie')}${from}${tidied}${dropped}.${notes}`;
  },
  followUps: ({ network }) => [{ kind: 'measure-network', parameters: { network, settings: {} } }],
};

async function fromStudy(
  { store, study }: StepContext,
  recipe: StudyWeave,
  progress: Progress,
): Promise<Made> {
  const decisions = await decisionsFor(store, study, recipe);
  progress('Weaving', null);
  const made = refuseTooMany(() => weaveStudy(store, study, recipe, decisions));
  const { woven, labels, emptiedBy } = made;
  const own = {
    ...made.own,
    ...kindColumn(recipe, made, accountLabels(store, study), await accountKinds(store, study)),
  };
  if (woven.id.length === 0)
    throw new StepRefused(`This sentence gives no ${nodeWords(recipe)[1]}. ${emptiedBy}`);
  if (woven.source.length > MOST_TIES) throw tooMany(woven.source.length);
  return {
    directed: woven.directed,
    nodes: {
      id: woven.id,
      handle: labels,
      name: labels.map(() => ''),
      ...(woven.messages > 0 ? { messages: woven.uses } : {}),
      ...own,
    },
    edges: { source: woven.source, target: woven.target, weight: woven.weight, ...woven.columns },
    evidence: woven.evidence && { ...woven.evidence() },
    own: Object.keys(own)
      .filter((name) => name in OWN_COLUMNS)
      .map((name) => ({ ...OWN_COLUMNS[name], name, title: name })),
    messages: woven.messages,
    dropped: woven.droppedBelowThreshold,
    notes: woven.notes,
    decisions: decisions.map(({ id }) => id),
    from: '',
  };
}

/** The kinds that were given to accounts, as a column of a network of accounts; none where none was given. */
function kindColumn(
  recipe: StudyWeave,
  { woven }: NamedWeave,
  handles: ReadonlyMap<number, string>,
  kinds: ReadonlyMap<string, TidyKind>,
): TableColumns {
  if (recipe.what === 'together' || kinds.size === 0) return {};
  const kindOf = (account: number, v: number): string =>
    woven.mode[v] === 0 ? (kinds.get(handleKey(handles.get(account) ?? '')) ?? '') : '';
  const kind = Array.from(woven.id, kindOf);
  return kind.some((one) => one !== '') ? { kind } : {};
}

/** What the columns say that a weave gives its nodes beside what every network has. */
const OWN_COLUMNS: Readonly<Record<string, Pick<ColumnInfo, 'type' | 'how'>>> = {
  kind: { type: 'category', how: 'The kind that was given to the account when it was tidied.' },
  mode: { type: 'category', how: 'Whether the node is an account or a thing that accounts use.' },
  follows: { type: 'category', how: 'Which of the listed accounts it follows.' },
};

/** Draws the groups of a network together; the evidence of a group is that of its nodes. */
async function fromGroups(store: Store, recipe: GroupWeave): Promise<Made> {
  const network = await findNetwork(store, recipe.network);
  if (!network) throw new StepRefused('The network whose groups were to be nodes is no longer there.');
  const nodes = readTable(store.folder, network.id, 'nodes');
  const column = nodes[recipe.column];
  if (column === undefined)
    throw new StepRefused(`The nodes of “${network.name}” have no column “${recipe.column}”.`);
  const edges = readTable(store.folder, network.id, 'edges');
  const graph = {
    source: edges['source'] as Uint32Array,
    target: edges['target'] as Uint32Array,
    weight: edges['weight'] as Float64Array,
  };
  const made = contract(graph, nodeLabels(nodes), textsIn(column), network.directed, recipe);
  const groups = made.names.map((name) => groupName(name, recipe.column));
  return {
    directed: network.directed,
    nodes: {
      id: Uint32Array.from(made.names, (_, i) => i),
      handle: groups.map((name, i) =>
        name === made.names[i] ? name : `${name} (${formatCount(made.size[i])})`,
      ),
      name: groups.map(() => ''),
      members: made.size,
      group: groups,
    },
    edges: { source: made.source, target: made.target, weight: made.weight, ties: made.ties },
    // Which new node each old one became: what stands behind it is found there.
    evidence: { node: made.of },
    own: [
      { name: 'members', title: 'members', type: 'number', how: `Nodes of “${network.name}” that it holds.` },
      { name: 'group', title: 'group', type: 'category', how: `The group of “${network.name}” that it is.` },
    ],
    messages: network.messages,
    dropped: made.dropped,
    notes: [],
    decisions: [],
    from: `, of the network “${network.name}”`,
  };
}

/** A group that is known by a number alone is called by its column too. */
function groupName(name: string, column: string): string {
  return /^\d+$/.test(name) ? `${column} ${name}` : name;
}

function refuseTooMany<T>(work: () => T): T {
  try {
    return work();
  } catch (error) {
    if (error instanceof TooManyTies) throw tooMany(error.ties, error.wouldFit);
    throw error;
  }
}

function tooMany(ties: number, wouldFit?: number): StepRefused {
  const advice =
    wouldFit === undefined
      ? 'Ask for more for each tie.'
      : `With at least ${formatCount(wouldFit)} for each tie it would fit.`;
  return new StepRefused(
    `This would give ${formatCount(ties)} ties; at most ${formatCount(MOST_TIES)} can be held. ${advice}`,
  );
}
