import type { PackageCheck, PackageQuery } from '@pebble/contract';
import type { PackedFile } from '@pebble/core/documents';
import type { IdentityFinder } from '@pebble/core/files';
import { fileName, writeBytes, type ExportedFile } from '../exports/writtenFile';
import { zipOf } from '../files/zip';
import { hiddenPeople, NO_LEAKS, told } from '../people/identities';
import { withoutPseudonyms } from '../people/publishedNames';
import { leaksInTables } from '../people/readPeople';
import type { Store } from '../storage/open';
import { findNetwork } from '../storage/networks';
import { checksumsOf, sumOf } from './describedFiles';
import { packingOf, type Packing } from './packedFiles';
import type { ToPack } from './packedTables';

interface Asked {
  readonly network: string;
  readonly query: PackageQuery;
}

/** What a package would hold, and where people can be found in it; null for a map that was never arranged. */
export async function checkPackage(store: Store, { network, query }: Asked): Promise<PackageCheck | null> {
  const packing = await packingOf(store, (await findNetwork(store, network))!, query);
  if (!packing) return null;
  // How large its files are and what their sums are does not matter yet.
  const unknown = packing.files.map((file): PackedFile => ({ ...file, bytes: 0, sha256: '' }));
  const files = [...packing.files, ...packing.describe(unknown), checksumsOf([])];
  const finder = await hiddenPeople(store);
  return {
    files: files.map(({ place, what }) => ({ place, what })),
    without: [...packing.without],
    problem: packing.missing > 0 ? withoutPseudonyms(packing.missing) : null,
    leaks: finder ? told(await leaksIn(finder, packing, files)) : NO_LEAKS,
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
  const { work, files, describe } = packing;
  const described = await written(files);
  const all = [...described, ...(await written(describe(described)))];
  all.push(...(await written([checksumsOf(all)])));
  const name = `${fileName(work.title, 'map')}.package.zip`;
  const path = writeBytes(store.folder, await zipOf(all, work.made));
  return { path, name, type: 'application/zip' };
}

/** Files with their bytes. */
async function written(files: readonly ToPack[]) {
  const all = [];
  for (const { content, ...file } of files) {
    const bytes = await content();
    all.push({ ...file, content: bytes, bytes: bytes.length, sha256: sumOf(bytes) });
  }
  return all;
}

/** Files that hold tables have been searched as tables, where those who keep their names are known by their rows. */
const TABLES =
  /^(?:data|map)\/.*\.(?:csv|parquet|arrow|graphml)$|^data\/network\.json$|\.(?:f32|png|pdf|svg)$/;

async function leaksIn(finder: IdentityFinder, { packed, figures }: Packing, files: readonly ToPack[]) {
  const drawn = await Promise.all(figures.map((draw) => draw()));
  const letters = drawn.flatMap(({ scene }) => [...scene.texts, ...scene.legend.texts]);
  const leaks = [
    ...leaksInTables(finder, packed.network.name, packed.table, packed.edges),
    ...letters.flatMap(({ text }) => finder.find('a figure', text)),
  ];
  for (const { place, content } of files) {
    leaks.push(...finder.find('name of a file', place));
    if (TABLES.test(place)) continue;
    for (const text of textsIn(place, await content())) leaks.push(...finder.find(place, text));
  }
  return leaks;
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
