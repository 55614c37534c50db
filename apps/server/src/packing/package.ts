import type { PackageCheck, PackageQuery } from '@pebble/contract';
import type { IdentityFinder } from '@pebble/core/files';
import { fileName, writeBytes, type ExportedFile } from '../exports/writtenFile';
import { zipOf } from '../files/zip';
import { hiddenPeople, NO_LEAKS, told } from '../people/identities';
import { withoutPseudonyms } from '../people/publishedNames';
import { leaksInTables } from '../people/readPeople';
import type { Store } from '../storage/open';
import { findNetwork } from '../storage/networks';
import { packingOf, type Packing } from './packedFiles';

interface Asked {
  readonly network: string;
  readonly query: PackageQuery;
}

/** What a package would hold, and where people can be found in it; null for a map that was never arranged. */
export async function checkPackage(store: Store, { network, query }: Asked): Promise<PackageCheck | null> {
  const packing = await packingOf(store, (await findNetwork(store, network))!, query);
  if (!packing) return null;
  const finder = await hiddenPeople(store);
  return {
    files: packing.files.map(({ place, what }) => ({ place, what })),
    without: [...packing.without],
    problem: packing.missing > 0 ? withoutPseudonyms(packing.missing) : null,
    leaks: finder ? told(leaksIn(finder, packing)) : NO_LEAKS,
  };
}

/** The package as a zip, or why there can be none; null for a map that was never arranged. */
export async function writePackage(
  store: Store,
  { network, query }: Asked,
): Promise<ExportedFile | { readonly problem: string } | null> {
  const packing = await packingOf(store, (await findNetwork(store, network))!, query);
  if (!packing) return null;
  if (packing.missing > 0) return { problem: withoutPseudonyms(packing.missing) };
  const { work, files } = packing;
  const bytes = await zipOf(
    files.map(({ place, content }) => ({ place, bytes: content })),
    work.made,
  );
  const name = `${fileName(work.title, 'map')}.package.zip`;
  return { path: writeBytes(store.folder, bytes), name, type: 'application/zip' };
}

/** Files that hold tables have been searched as tables, where those who keep their names are known by their rows. */
const TABLES = /^(?:data|map)\/.*\.(?:csv|parquet|arrow|graphml)$|^data\/network\.json$|\.(?:f32|png|pdf)$/;

function leaksIn(finder: IdentityFinder, { packed, files, figures }: Packing) {
  const letters = figures.flatMap(({ scene }) => [...scene.texts, ...scene.legend.texts]);
  return [
    ...leaksInTables(finder, packed.network.name, packed.table, packed.edges),
    ...letters.flatMap(({ text }) => finder.find('a figure', text)),
    ...files
      .filter(({ place }) => !TABLES.test(place) && !place.endsWith('.svg'))
      .flatMap(({ place, content }) => textsIn(place, content).flatMap((text) => finder.find(place, text))),
    ...files.flatMap(({ place }) => finder.find('name of a file', place)),
  ];
}

/** The texts of a file: of JSON each by itself, of others by lines; of a page what it holds. */
function textsIn(place: string, content: Uint8Array): string[] {
  const text = Buffer.from(content).toString('utf8');
  if (place.endsWith('.html')) {
    const [, held = '""'] = /<script type="application\/json" id="held">(.*?)<\/script>/s.exec(text) ?? [];
    return strings(JSON.parse(held));
  }
  return place.endsWith('.json') ? strings(JSON.parse(text)) : text.split('\n');
}

function strings(value: unknown): string[] {
  if (typeof value === 'string') return [value];
  if (Array.isArray(value)) return typeof value[0] === 'number' ? [] : value.flatMap(strings);
  if (value === null || typeof value !== 'object') return [];
  return Object.entries(value).flatMap(([name, one]) => [name, ...strings(one)]);
}
