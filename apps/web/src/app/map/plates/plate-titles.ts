import type { MapDescription, Plate } from '@pebble/contract';
import { shownPhrase } from '@pebble/core';

/** As the contract has it. */
export const LONGEST = 120;

/** A title for a plate that no other one has: the network, and which part of it is shown. */
export function freeTitle(
  network: string,
  { show }: MapDescription,
  plates: readonly Pick<Plate, 'title'>[],
): string {
  const taken = new Set(plates.map(({ title }) => title));
  const part = shownPhrase(show);
  const title = cut(part === '' ? network : `${network}, ${part}`, LONGEST);
  for (let i = 1; ; i++) {
    const tried = i === 1 ? title : `${cut(title, LONGEST - 6)} (${i})`;
    if (!taken.has(tried)) return tried;
  }
}

/** A text of at most so many UTF-16 units, which is how lengths are checked; no sign is cut in two. */
export function cut(text: string, most: number): string {
  if (text.length <= most) return text;
  let short = '';
  for (const { segment } of new Intl.Segmenter().segment(text)) {
    if (short.length + segment.length > most - 1) break;
    short += segment;
  }
  return `${short.trimEnd()}…`;
}
