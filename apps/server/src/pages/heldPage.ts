import type { SharedPageQuery } from '@pebble/contract';
import {
  captionOf,
  captionText,
  citationOf,
  figureText,
  findMentions,
  handleKey,
  holdMap,
  referenceLines,
  withNames,
  type HeldPage,
} from '@pebble/core';
import { namesGiven, personNames, publishedNames } from '../people/publishedNames';
import { publishedPortraits } from '../people/publishedPortraits';
import { readMethods } from '../methods/readMethods';
import { findNetwork, readMap, readPositions } from '../storage/networks';
import type { Store } from '../storage/open';
import { findPlate, platePositions } from '../storage/plates';
import { fromPlacesBytes } from '../storage/placesBytes';
import { dailyTieCountsOf } from '../weaving/dailyTieCountsOf';
import { preparedMap } from '../plates/preparedMap';
import { readTable } from '../storage/files/tables';
import { heldMessages } from './heldMessages';

/** What a page holds, and how many people on it have no pseudonym yet; null for a map that was never arranged. */
export async function heldPage(
  store: Store,
  { network: id, query }: { readonly network: string; readonly query: SharedPageQuery },
): Promise<{ readonly held: HeldPage; readonly missing: number } | null> {
  const network = (await findNetwork(store, id))!;
  const plate = query.plate === undefined ? null : await findPlate(store, query.plate);
  const saved = plate?.map ?? (await readMap(store, id));
  const positions = plate ? await platePositions(store, plate.id) : await readPositions(store, id);
  if (!positions) return null;
  const given = await publishedNames(store, network, readTable(store.folder, id, 'nodes'));
  const names = namesGiven(given);
  const plain = await preparedMap(store, network, saved.description);
  const map = names ? withNames(plain, names) : plain;
  const isTimed = query.days === 'true';
  const dailyTieCounts = isTimed ? await dailyTieCountsOf(store, network) : null;
  const timed = { ...map, network: { ...map.network, dailyTieCounts } };
  const chosen = query.columns.split('|').filter((name) => !given.leftOut.includes(name));
  const drawn = holdMap(timed, network, fromPlacesBytes(positions), {
    columns: chosen,
    days: isTimed,
    counts: query.messages !== 'none',
  });
  const caption = captionText(captionOf(network, map, { layout: saved.layout, moved: saved.moved }));
  const people = await personNames(store);
  const methods = await readMethods(store, { network: id, length: 'long' });
  const title = query.title || plate?.title || network.name;
  const made = new Date().toISOString();
  const held: HeldPage = {
    title,
    author: query.author,
    licence: query.licence,
    caption,
    told: figureText(network, map, caption),
    methods: methods.paragraphs.map((sentences) => sentences.join(' ')),
    references: referenceLines(methods.references),
    cite: citationOf({ author: query.author, title, made, what: 'Network map' }),
    made,
    portraits:
      query.portraits === 'true' ? await publishedPortraits(store, network.id, plain.labels, map) : [],
    map: {
      ...drawn,
      messages:
        query.messages === 'texts'
          ? await heldMessages(store, network, map, query.texts, {
              called: people,
              rename: (text) => renamed(text, people),
            })
          : null,
    },
  };
  return { held, missing: given.missing };
}

/** People who are mentioned, by what they are called in what is published. */
function renamed(text: string, called: (handle: string) => string): string {
  let at = 0;
  let written = '';
  for (const { start, end, key } of findMentions(text)) {
    const name = called(handleKey(key));
    written += text.slice(at, start) + (name === handleKey(key) ? text.slice(start, end) : `@${name}`);
    at = end;
  }
  return written + text.slice(at);
}
