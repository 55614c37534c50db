import type { SharedPageCheck, SharedPageQuery } from '@pebble/contract';
import type { HeldPage } from '@pebble/core';
import { fileName, writeBytes, type ExportedFile } from '../exports/writtenFile';
import { hiddenPeople, NO_LEAKS, told } from '../people/identities';
import { withoutPseudonyms } from '../people/publishedNames';
import type { Store } from '../storage/open';
import { heldPage } from './heldPage';
import { pageFile } from './pageFile';
import { tooLarge } from './tooLarge';

interface Asked {
  readonly network: string;
  readonly query: SharedPageQuery;
}

/** A page as it would be, with why it cannot go out. */
interface Made {
  readonly held: HeldPage;
  readonly bytes: Buffer;
  readonly problem: string | null;
}

async function make(store: Store, asked: Asked): Promise<Made | null> {
  const made = await heldPage(store, asked);
  if (!made) return null;
  const { held, missing } = made;
  const bytes = Buffer.from(pageFile(held));
  return {
    held,
    bytes,
    problem: missing > 0 ? withoutPseudonyms(missing) : tooLarge(bytes.length, held.map),
  };
}

/** How large a page would be, and where people can be found in it; null for a map that was never arranged. */
export async function checkSharedPage(store: Store, asked: Asked): Promise<SharedPageCheck | null> {
  const made = await make(store, asked);
  if (!made) return null;
  const { held, bytes, problem } = made;
  const finder = await hiddenPeople(store);
  return {
    bytes: bytes.length,
    texts: held.map.messages?.all.length ?? 0,
    problem,
    leaks: finder ? told(textsOf(held).flatMap(({ place, text }) => finder.find(place, text))) : NO_LEAKS,
  };
}

/** The page as a file, or why there can be none; null for a map that was never arranged. */
export async function writeSharedPage(
  store: Store,
  asked: Asked,
): Promise<ExportedFile | { readonly problem: string } | null> {
  const made = await make(store, asked);
  if (!made) return null;
  if (made.problem) return { problem: made.problem };
  return {
    path: writeBytes(store.folder, made.bytes),
    name: `${fileName(made.held.title, 'map')}.html`,
    type: 'text/html; charset=utf-8',
  };
}

/** Every text that stands in a page, at any depth, with its place; those who keep their names are not looked for. */
function textsOf(held: HeldPage): { place: string; text: string }[] {
  const found: { place: string; text: string }[] = [];
  const visit = (place: string, value: unknown): void => {
    if (typeof value === 'string') found.push({ place, text: value });
    else if (Array.isArray(value)) {
      if (typeof value[0] !== 'number') for (const one of value) visit(place, one);
    } else if (value !== null && typeof value === 'object')
      for (const [name, one] of Object.entries(value)) {
        if (!/^\d+$/.test(name)) found.push({ place: `${place}, name of a part`, text: name });
        visit(PLACES[name] ?? place, one);
      }
  };
  visit('page', held);
  return found;
}

/** What parts of a page are called for people. */
const PLACES: Readonly<Record<string, string>> = {
  title: 'title',
  author: 'author',
  caption: 'caption',
  told: 'text for those who cannot see it',
  methods: 'how it was made',
  references: 'references',
  cite: 'how to cite it',
  portraits: 'portraits of groups',
  labels: 'names of nodes',
  columns: 'columns of nodes',
  infos: 'what columns say',
  tieColumns: 'columns of ties',
  titles: 'titles of groups',
  description: 'look of the map',
  messages: 'messages',
};
