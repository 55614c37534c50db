import { counted, formatCount, timesPhrase } from '../../words/sentence';

/** "at least once", "at least 3 times" */
export function atLeastTimes(least: number): string {
  return least === 1 ? 'at least once' : `at least ${timesPhrase(least)}`;
}

/** "one message", "3 messages" */
export function few(count: number, one: string, many: string): string {
  return count === 1 ? `one ${one}` : counted(count, one, many);
}

/** "at least one of them", "at least 4 of them" */
export function atLeastOfThem(least: number): string {
  return `at least ${least === 1 ? 'one' : formatCount(least)} of them`;
}
