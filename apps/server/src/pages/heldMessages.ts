import type { Network, SharedPageQuery } from '@pebble/contract';
import { numbersOf, type HeldMap, type HeldMessage, type PreparedMap } from '@pebble/core';
import type { Store } from '../storage/open';
import { evidenceOf } from '../weaving/evidenceOf';

/** Of so many of the strongest ties messages are held, and so many of each. */
const MOST_TIES = 1000;
const OF_EACH = 5;
/** So many signs a shortened text has at most. */
const SHORT = 90;

/** What somebody is called in what is published, by the handle. */
type Called = (handle: string) => string;

/**
 * The messages behind the strongest ties of a map, the newest first; null where there are none.
 * @param rename people in texts, as they are called in what is published
 */
export async function heldMessages(
  store: Store,
  network: Network,
  map: PreparedMap,
  texts: SharedPageQuery['texts'],
  { called, rename }: { readonly called: Called; readonly rename: (text: string) => string },
): Promise<HeldMap['messages']> {
  const evidence = await evidenceOf(store, network);
  if (!evidence) return null;
  const [source, target, weight] = ['source', 'target', 'weight'].map((name) =>
    numbersOf(map.network.edges, name),
  );
  const { period } = map.description.show;
  const ties = [...map.edges.keys()]
    .sort((a, b) => weight[map.edges[b]] - weight[map.edges[a]] || a - b)
    .slice(0, MOST_TIES);
  const all: HeldMessage[] = [];
  const places = new Map<number, number>();
  const behind: number[][] = Array.from(map.edges, () => []);
  for (const tie of ties) {
    const e = map.edges[tie];
    const page = await evidence.messages(
      { ties: [{ source: source[e], target: target[e] }] },
      { offset: 0, limit: OF_EACH, ...(period ? { from: period.from, until: period.until } : {}) },
    );
    for (const { id, author, time, text } of page.messages) {
      let place = places.get(id);
      if (place === undefined) {
        place = all.length;
        places.set(id, place);
        const written = rename(text);
        all.push({ by: called(author.handle), time, text: texts === 'short' ? shortened(written) : written });
      }
      behind[tie].push(place);
    }
  }
  return all.length > 0 ? { all, behind } : null;
}

/** The first words of a text. */
function shortened(text: string): string {
  if (text.length <= SHORT) return text;
  const cut = text.slice(0, SHORT);
  return `${cut.slice(0, Math.max(cut.lastIndexOf(' '), SHORT / 2))} …`;
}
