import type { Study } from '@pebble/contract';

export type StudyOrder = 'change' | 'name' | 'messages';

const ORDERS: Readonly<Record<StudyOrder, (a: Study, b: Study) => number>> = {
  change: (a, b) => b.changedAt.localeCompare(a.changedAt),
  name: (a, b) => a.name.localeCompare(b.name, 'en', { numeric: true, sensitivity: 'base' }),
  messages: (a, b) => b.messages - a.messages,
};

/** The studies whose name holds all the words, in an order. */
export function foundStudies(all: readonly Study[], words: string, order: StudyOrder): Study[] {
  const wanted = words.toLowerCase().split(/\s+/);
  const isFound = ({ name }: Study): boolean => wanted.every((word) => name.toLowerCase().includes(word));
  return all.filter(isFound).sort(ORDERS[order]);
}
