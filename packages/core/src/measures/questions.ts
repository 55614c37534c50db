import type { QuestionId } from '@pebble/contract';
import { answers } from './answers';
import { basics } from './basics';
import { betweenGroupsQuestion } from './betweenGroups';
import { bridges } from './bridges';
import { circle } from './circle';
import { close } from './close';
import { core } from './core';
import { holdsTogether } from './holdsTogether';
import { hubs } from './hubs';
import type { Question } from './question';
import { twoMode } from './twoMode';
import { wellConnected } from './wellConnected';

/** All questions about nodes, in the order in which they are offered. */
export const NODE_QUESTIONS: readonly Question[] = [
  basics,
  bridges,
  close,
  wellConnected,
  hubs,
  core,
  circle,
  holdsTogether,
  answers,
  betweenGroupsQuestion,
  twoMode,
];

/** The question of an id. */
export function questionOf(id: QuestionId): Question {
  return NODE_QUESTIONS.find((question) => question.id === id)!;
}

/** Names of all columns that answer questions. */
export const ANSWER_COLUMNS: readonly string[] = NODE_QUESTIONS.flatMap(({ columns }) =>
  columns.map(({ name }) => name),
);

/** Why a question makes no sense of a network; null where it does. */
export function whyNotAsked({ twoMode: sorts }: Question, isTwoMode: boolean): string | null {
  if (!sorts) return null;
  if ('only' in sorts) return isTwoMode ? null : 'It is asked of two-mode networks alone.';
  return isTwoMode ? sorts.not : null;
}

/** About how many seconds an answer takes. @param ties without direction */
export function secondsFor(id: QuestionId, nodes: number, ties: number): number {
  return questionOf(id).seconds(nodes, ties);
}
