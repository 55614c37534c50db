import {
  distinctDays,
  kindOf,
  type EvidenceRows,
  MOST_TIES,
  nodeWords,
  tooManyPhrase,
  TooManyTies,
  type Woven,
} from '@pebble/core';
import { decisionsFor } from '../storage/decisions';
import type { Store } from '../storage/open';
import { accountLabels, accountNames } from '../storage/occurrenceRows';
import { carriedColumns } from './carriedColumns';
import type { StudyWeave } from './kinds/kind';
import { weaveStudy } from './weaveStudy';
import type { WeaveResult } from './weaveResult';
import type { NodeColumn } from './namedWeave';
import { StepRefused } from '../errors/stepErrors';

/** A recipe that gives no nodes. */
export class NothingWoven extends StepRefused {}

/** What a recipe gives from what a study holds. Throws NothingWoven, and StepRefused where there would be too many ties. */
export async function fromStudy(
  store: Store,
  recipe: StudyWeave,
  progress?: (share: number) => void,
): Promise<WeaveResult> {
  const decisions = await decisionsFor(store, recipe);
  const { woven, messages, labels, keyOf, own, emptiedBy } = refuseTooMany(() =>
    weaveStudy(store, recipe, decisions, progress),
  );
  if (woven.id.length === 0)
    throw new NothingWoven(`This sentence gives no ${nodeWords(recipe)[1]}. ${emptiedBy}`);
  if (woven.source.length > MOST_TIES) throw tooMany(woven.source.length, null);
  const carried = await carriedColumns(store, recipe, woven, keyOf);
  const evidence = woven.evidence?.() ?? null;
  const days = daysColumn(woven, evidence);
  const first = [...days, ...own];
  const columns = [
    ...first,
    ...carried.filter(({ info }) => !first.some((one) => one.info.name === info.name)),
  ];
  return {
    directed: woven.directed,
    nodes: {
      id: woven.id,
      handle: labels,
      name: personalNames(store, recipe, woven, labels),
      ...((woven.countMessages ?? woven.evidence) ? { messages: woven.uses } : {}),
      ...Object.fromEntries(columns.map(({ info, values }) => [info.name, values])),
    },
    edges: { source: woven.source, target: woven.target, weight: woven.weight, ...woven.columns },
    evidence: evidence && { ...evidence },
    own: columns.map(({ info }) => info),
    messages,
    dropped: woven.droppedBelowThreshold,
    notes: woven.notes,
    decisions: decisions.map(({ id }) => id),
    from: '',
  };
}

/** On how many days each node wrote or stood in a message; none where no message of it is dated. */
function daysColumn(woven: Woven, evidence: EvidenceRows | null): NodeColumn[] {
  const values =
    woven.days?.() ?? (evidence ? distinctDays(woven.id.length, evidence.node, evidence.time) : null);
  if (!values?.some((days) => days > 0)) return [];
  const how = woven.days
    ? 'Days (UTC) on which this account wrote in the period.'
    : 'Days (UTC) on which messages with it fall.';
  return [{ info: { name: 'days', title: 'days', type: 'number', how }, values }];
}

/** Accounts have a name beside their handle; one that was given another label is known by that alone. */
function personalNames(
  store: Store,
  recipe: StudyWeave,
  { id, mode }: Woven,
  labels: readonly string[],
): string[] {
  if (!kindOf(recipe).sorts(recipe).accounts) return labels.map(() => '');
  const names = accountNames(store);
  if (names.size === 0) return labels.map(() => '');
  const handles = accountLabels(store);
  return Array.from(id, (account, v) =>
    mode[v] === 0 && handles.get(account) === labels[v] ? (names.get(account) ?? '') : '',
  );
}

function refuseTooMany<T>(work: () => T): T {
  try {
    return work();
  } catch (error) {
    if (error instanceof TooManyTies) throw tooMany(error.ties, error.wouldFit);
    throw error;
  }
}

function tooMany(ties: number, wouldFit: number | null): StepRefused {
  return new StepRefused(tooManyPhrase(ties, wouldFit));
}
