import { StepRefused } from '../errors/stepErrors';
import type { StepContext } from './step';

/** Refuses a step about a message that is no longer there. */
export async function checkMessage({ store }: StepContext, message: number): Promise<void> {
  const found = await store.query
    .selectFrom('message')
    .select('id')
    .where('id', '=', message)
    .executeTakeFirst();
  if (!found) throw new StepRefused('This message is no longer in the study.');
}
