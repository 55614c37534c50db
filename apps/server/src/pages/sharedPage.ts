import type { SharedPageCheck, SharedPageQuery } from '@pebble/contract';
import { formatCount, type HeldPage } from '@pebble/core';
import { fileName, writeBytes, type ExportedFile } from '../exports/writtenFile';
import { identityFinder, told } from '../people/identities';
import { readNodeNames, withoutPseudonyms } from '../people/publishedNames';
import type { Store } from '../storage/open';
import { readNaming } from '../storage/people';
import { heldPage } from './heldPage';
import { pageFile } from './pageFile';

interface Asked {
  readonly network: string;
  readonly query: SharedPageQuery;
}

/** A larger file opens in no browser in good time. */
const MOST_BYTES = 50_000_000;

/** A page as it would be, with why it cannot go out. */
interface Made {
  readonly held: HeldPage;
  readonly bytes: Buffer;
  readonly problem: string | null;
}

async function make(store: Store, asked: Asked): Promise<Made | null> {
  const held = await heldPage(store, asked);
  if (!held) return null;
  const bytes = Buffer.from(pageFile(held));
  const { missing } = await readNodeNames(store, asked.network);
  return { held, bytes, problem: missing > 0 ? withoutPseudonyms(missing) : tooLarge(bytes.length, held) };
}

/** How large a page would be, and where people can be found in it; null for a map that was never arranged. */
export async function checkSharedPage(store: Store, asked: Asked): Promise<SharedPageCheck | null> {
  const made = await make(store, asked);
  if (!made) return null;
  const { held, bytes, problem } = made;
  const isHidden = (await readNaming(store)).form !== 'as they are';
  const finder = isHidden ? await identityFinder(store) : null;
  return {
    bytes: bytes.length,
    texts: held.map.messages?.all.length ?? 0,
    problem,
    leaks: finder
      ? told(textsOf(held).flatMap(({ place, text }) => finder.find(place, text)))
      : { leaks: [], total: 0 },
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

function tooLarge(bytes: number, { map }: HeldPage): string | null {
  if (bytes <= MOST_BYTES) return null;
  const leave = [
    ...(map.messages ? ['the texts of messages'] : []),
    ...(map.days ? ['time'] : []),
    'columns that are not needed',
    'nodes and ties that the map need not show',
  ];
  return `The page would be ${formatCount(Math.round(bytes / 1e6))} MB large; more than ${MOST_BYTES / 1e6} open in no browser in good time. Leave out ${leave.join(', or ')}.`;
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
