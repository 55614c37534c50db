import { statSync } from 'node:fs';
import type { RoutineAnswer, RoutineAnswers, SentFile } from '@pebble/contract';
import { uploadPath } from '../files/places';
import type { Runner } from '../runner/runner';
import type { Store } from '../storage/open';

const isFiles = (answer: RoutineAnswer): answer is SentFile[] =>
  Array.isArray(answer) && answer.some((one) => typeof one === 'object');

/** The files among answers. */
export function filesAmong(answers: RoutineAnswers): SentFile[] {
  return Object.values(answers).flatMap((answer) => (isFiles(answer) ? answer : []));
}

/** Answers in which each file says how it is read by itself. Throws UnreadableFile. */
export async function withReadings(
  { folder }: Store,
  runner: Runner,
  answers: RoutineAnswers,
): Promise<RoutineAnswers> {
  const read = async (sent: SentFile): Promise<SentFile> => {
    if (sent.reading) return sent;
    const path = uploadPath(folder, sent.upload);
    const { reading } = await runner.repreview({ path, name: sent.file, size: statSync(path).size }, {});
    return { ...sent, reading };
  };
  const entries = Object.entries(answers).map(async ([name, answer]) => [
    name,
    isFiles(answer) ? await Promise.all(answer.map(read)) : answer,
  ]);
  return Object.fromEntries(await Promise.all(entries)) as RoutineAnswers;
}
