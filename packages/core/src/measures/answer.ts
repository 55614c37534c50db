import type { QuestionId, QuestionSettings } from '@pebble/contract';
import { neighbourRows, outRows, withoutSelfLoops } from '../graph/csr';
import type { Graph } from '../graph/graph';
import type { Asked } from './question';
import { questionOf, whyNotAsked } from './questions';

/** Columns of the nodes that answer questions, and what is to be said of how they were computed, in sentences. */
export interface Answers {
  readonly columns: Readonly<Record<string, Float64Array | Uint32Array>>;
  /** Columns of the ties, in the order of these. */
  readonly ties: Readonly<Record<string, readonly string[]>>;
  readonly notes: readonly string[];
}

export interface AnswerContext extends Pick<Asked, 'groups' | 'sorts' | 'bridges'> {
  progress?(share: number): void;
}

/**
 * Answers questions about the nodes of a network; self-loops have no part in any. Questions that need a direction are left out of an
 * undirected one, and those that need groups where there are none, which is noted.
 */
export function answerQuestions(
  graph: Graph,
  directed: boolean,
  questions: readonly QuestionId[],
  settings: QuestionSettings,
  { progress, ...context }: AnswerContext,
): Answers {
  const either = withoutSelfLoops(neighbourRows(graph));
  const out = directed ? withoutSelfLoops(outRows(graph)) : either;
  const columns: Record<string, Float64Array | Uint32Array> = {};
  const ties: Record<string, readonly string[]> = {};
  const notes: string[] = [];
  questions.forEach((id, at) => {
    const within = (share: number): void => progress?.((at + share) / questions.length);
    within(0);
    const question = questionOf(id);
    const why = whyNotAsked(question, context.sorts !== null);
    if (why !== null) return void notes.push(`A question was left out. ${why}`);
    if (question.directedOnly && !directed) return void notes.push(WITHOUT_DIRECTION);
    const asked = { ...settings, ...context, graph, directed, either, out, progress: within };
    const answer = question.answer(asked);
    Object.assign(columns, answer.columns);
    Object.assign(ties, answer.ties);
    notes.push(...(answer.notes ?? []));
  });
  return { columns, ties, notes };
}

const WITHOUT_DIRECTION = 'Ties of this network have no direction: a question that needs it was left out.';
