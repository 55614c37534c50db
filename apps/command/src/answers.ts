import { readFileSync } from 'node:fs';
import type { Routine, RoutineAnswer, RoutineAnswers, RoutineQuestion } from '@pebble/contract';
import { EXIT, Refused } from './errors';

/** "name=value" in its two parts; without a name the whole is the value. */
function named(text: string): { readonly name: string | null; readonly value: string } {
  const parts = /^([a-z][a-z0-9-]{0,39})=(.*)$/s.exec(text);
  return parts ? { name: parts[1], value: parts[2] } : { name: null, value: text };
}

/** Files by the question that they answer: those without a name answer the first one that asks for a file. Throws Refused. */
export function filesByQuestion(
  { questions }: Routine,
  given: readonly string[],
): ReadonlyMap<string, readonly string[]> {
  const asking = questions.filter(({ kind }) => kind === 'file').map(({ name }) => name);
  const files = new Map<string, string[]>();
  for (const text of given) {
    const { name, value } = named(text);
    const isNamed = name !== null && asking.includes(name);
    const question = isNamed ? name : asking[0];
    if (question === undefined)
      throw new Refused(`This routine asks for no file, but ${text} was given.`, EXIT.usage);
    files.set(question, [...(files.get(question) ?? []), isNamed ? value : text]);
  }
  return files;
}

/** An answer as it is written after "--set". Throws Refused. */
function answerOf(question: RoutineQuestion, text: string): RoutineAnswer {
  const wrong = (what: string): Refused =>
    new Refused(`“${text}” is no answer to ${question.name}: it is to be ${what}.`, EXIT.usage);
  switch (question.kind) {
    case 'file':
      throw new Refused(
        `${question.name} asks for a file: give it by --in ${question.name}=FILE.`,
        EXIT.usage,
      );
    case 'number': {
      if (text === 'none') return null;
      const number = Number(text);
      if (text.trim() === '' || Number.isNaN(number)) throw wrong('a number, or “none”');
      return number;
    }
    case 'yes or no':
      if (text !== 'yes' && text !== 'no') throw wrong('yes or no');
      return text === 'yes';
    case 'day':
      return text === 'none' ? null : text;
    case 'list':
      return text === '' ? [] : text.split('|').map((one) => one.trim());
    case 'text':
    case 'choice':
      return text;
  }
}

/** Answers as they are written. Throws Refused. */
export function answersOf({ questions }: Routine, set: readonly string[]): RoutineAnswers {
  const answers: Record<string, RoutineAnswer> = {};
  for (const text of set) {
    const { name, value } = named(text);
    const question = questions.find((one) => one.name === name);
    if (!question)
      throw new Refused(
        `“${text}” sets nothing that is asked. Asked are ${questions.map((one) => one.name).join(', ')}.`,
        EXIT.usage,
      );
    answers[question.name] = answerOf(question, value);
  }
  return answers;
}

/** A file as JSON. Throws Refused. */
export function readJson(path: string): unknown {
  let text: string;
  try {
    text = readFileSync(path, 'utf8');
  } catch {
    throw new Refused(`There is no file ${path}.`);
  }
  try {
    return JSON.parse(text) as unknown;
  } catch (error) {
    throw new Refused(`${path} is no JSON: ${(error as Error).message}`);
  }
}
