import type { MapDescription, Plate } from '@pebble/contract';
import { shownPhrase } from '@pebble/core';

const LONGEST = 120;

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

function cut(text: string, most: number): string {
  const letters = [...text];
  return letters.length > most
    ? `${letters
        .slice(0, most - 1)
        .join('')
        .trimEnd()}…`
    : text;
}
