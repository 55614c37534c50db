import { createHash } from 'node:crypto';
import type { Entry, ZipFile } from 'yauzl';
import { PACKAGE_MAP_VERSION, PackageMap } from '@pebble/contract';
import { fromArrow, type DailyTieCounts, type TableColumns } from '@pebble/core';
import { BadPackage, withZip } from '../files/openedZip';
import { CHECKSUMS, DESCRIPTOR, MAP, titleIn } from '../files/packageFile';
import { versionedJson } from '../files/versionedJson';
import type { Progress } from '../threads/progress';

/** What came out of a package. */
export interface OpenedPackage {
  readonly title: string;
  readonly map: PackageMap;
  readonly nodes: TableColumns;
  readonly edges: TableColumns;
  readonly days: DailyTieCounts | null;
  /** By the file in which they lie. */
  readonly positions: ReadonlyMap<string, Buffer>;
  /** What does not fit what the package says of itself, in sentences. */
  readonly notes: readonly string[];
}

/** Files of a package at most, and how many bytes of each are read into memory. */
const MOST_FILES = 2000;
const LARGEST = 1024 ** 3;
/** Files that are told by name. */
const MOST_TOLD = 5;

/** Reads a package to its end and checks every file of it; what was changed by hand is told, and opened all the same. Throws BadPackage. */
export async function readPacked(path: string, progress: Progress): Promise<OpenedPackage> {
  const { kept, sums } = await withZip(path, (zip) => readEntries(zip, progress));
  const map = versionedJson(textOf(kept, MAP), {
    schema: PackageMap,
    newest: PACKAGE_MAP_VERSION,
    what: `${MAP} in it`,
  });
  const { nodes: nodeCount, edges: edgeCount } = map.network;
  const nodes = tableOf(kept, 'map/nodes.arrow');
  const edges = tableOf(kept, 'map/edges.arrow');
  checkNodes(nodes, nodeCount);
  checkEdges(edges, edgeCount, nodeCount);
  const positions = new Map<string, Buffer>();
  for (const place of [map.map.positions, ...map.plates.map((plate) => plate.positions)])
    positions.set(place, placesOf(kept, place, nodeCount));
  const days = kept.has('map/days.arrow') ? daysOf(tableOf(kept, 'map/days.arrow'), edgeCount) : null;
  return {
    title: titleIn(kept.get(DESCRIPTOR)) ?? map.network.name,
    map,
    nodes,
    edges,
    days,
    positions,
    notes: changesOf(kept, sums),
  };
}

/** The bytes of the files that are needed, and the checksums of all. */
interface Read {
  readonly kept: ReadonlyMap<string, Buffer>;
  readonly sums: ReadonlyMap<string, string>;
}

async function readEntries(zip: ZipFile, progress: Progress): Promise<Read> {
  const kept = new Map<string, Buffer>();
  const sums = new Map<string, string>();
  for await (const entry of zip.eachEntry()) {
    const place = entry.fileName;
    if (place.endsWith('/')) continue;
    if (sums.size >= MOST_FILES) throw new BadPackage(`It has more than ${MOST_FILES} files.`);
    if (entry.isEncrypted()) throw new BadPackage('It is locked with a password. Unpack it first.');
    if (entry.uncompressedSize > LARGEST)
      throw new BadPackage(`“${place.slice(0, 80)}” in it is larger than a gigabyte.`);
    progress('Reading', Math.min(1, sums.size / Math.max(1, zip.entryCount)));
    const isKept = place.startsWith('map/') || place === CHECKSUMS || place === DESCRIPTOR;
    const { bytes, sum } = await read(zip, entry, isKept);
    sums.set(place, sum);
    if (bytes) kept.set(place, bytes);
  }
  return { kept, sums };
}

async function read(
  zip: ZipFile,
  entry: Entry,
  isKept: boolean,
): Promise<{ readonly bytes: Buffer | null; readonly sum: string }> {
  const sum = createHash('sha256');
  const pieces: Buffer[] = [];
  try {
    for await (const piece of (await zip.openReadStreamPromise(entry)) as AsyncIterable<Buffer>) {
      sum.update(piece);
      if (isKept) pieces.push(piece);
    }
  } catch {
    throw new BadPackage(`“${entry.fileName.slice(0, 80)}” in it cannot be unpacked.`);
  }
  return { bytes: isKept ? Buffer.concat(pieces) : null, sum: sum.digest('hex') };
}

/** What does not fit the checksums. */
function changesOf(kept: Read['kept'], sums: Read['sums']): string[] {
  const list = kept.get(CHECKSUMS)?.toString('utf8');
  if (list === undefined) return ['It has no checksums, so that nobody can say whether it was changed.'];
  const said = new Map<string, string>();
  for (const line of list.split('\n')) {
    const [, sum, place] = /^([0-9a-f]{64}) [ *](.+)$/.exec(line) ?? [];
    if (sum && place) said.set(place, sum);
  }
  const changed = [...said].filter(([place, sum]) => sums.has(place) && sums.get(place) !== sum);
  const missing = [...said.keys()].filter((place) => !sums.has(place));
  const further = [...sums.keys()].filter((place) => place !== CHECKSUMS && !said.has(place));
  return [
    sentence(
      'does not fit its checksum any more',
      'do not fit their checksums any more',
      changed.map(([place]) => place),
    ),
    sentence('is missing', 'are missing', missing),
    sentence('was added', 'were added', further),
  ].filter((one) => one !== '');
}

function sentence(one: string, many: string, places: readonly string[]): string {
  if (places.length === 0) return '';
  const told = places.slice(0, MOST_TOLD).map((place) => place.slice(0, 80));
  const more = places.length > MOST_TOLD ? ` and ${places.length - MOST_TOLD} more` : '';
  return `${told.join(', ')}${more} ${places.length === 1 ? one : many}.`;
}

function textOf(kept: Read['kept'], place: string): string {
  return bytesOf(kept, place).toString('utf8');
}

function bytesOf(kept: Read['kept'], place: string): Buffer {
  const bytes = kept.get(place);
  if (!bytes) throw new BadPackage(`${place.slice(0, 80)} is missing in it.`);
  return bytes;
}

function tableOf(kept: Read['kept'], place: string): TableColumns {
  try {
    return fromArrow(bytesOf(kept, place));
  } catch (error) {
    if (error instanceof BadPackage) throw error;
    throw new BadPackage(`${place} in it is no Arrow file that can be read.`);
  }
}

function placesOf(kept: Read['kept'], place: string, nodes: number): Buffer {
  const bytes = bytesOf(kept, place);
  if (bytes.length !== 8 * nodes)
    throw new BadPackage(`${place} has places for ${bytes.length / 8} nodes, and there are ${nodes}.`);
  for (let at = 0; at < bytes.length; at += 4)
    if (!Number.isFinite(bytes.readFloatLE(at)))
      throw new BadPackage(`${place} has a place that is no number.`);
  return bytes;
}

/** Every column has a value for each row, and the columns that every network has are there. */
function checkNodes(nodes: TableColumns, count: number): void {
  for (const name of ['id', 'handle', 'name'])
    if (!(name in nodes)) throw new BadPackage(`The nodes in it have no column “${name}”.`);
  checkLengths('nodes', nodes, count);
  for (const name of ['handle', 'name'])
    if (ArrayBuffer.isView(nodes[name]))
      throw new BadPackage(`The column “${name}” of the nodes in it is no text.`);
}

function checkEdges(edges: TableColumns, count: number, nodes: number): void {
  for (const name of ['source', 'target', 'weight'])
    if (!ArrayBuffer.isView(edges[name])) throw new BadPackage(`The ties in it have no numbers “${name}”.`);
  checkLengths('ties', edges, count);
  for (const name of ['source', 'target'])
    checkPlaces(edges[name] as Iterable<number>, nodes, 'A tie in it ends at a node');
}

function daysOf(days: TableColumns, edges: number): DailyTieCounts {
  const { edge, day, messages } = days;
  if (!ArrayBuffer.isView(edge) || !ArrayBuffer.isView(day) || !ArrayBuffer.isView(messages))
    throw new BadPackage('The days in it are no numbers.');
  checkLengths('days', days, edge.length);
  checkPlaces(edge, edges, 'A day in it is of a tie');
  return { edge: Uint32Array.from(edge), day: Float64Array.from(day), messages: Uint32Array.from(messages) };
}

function checkLengths(what: string, table: TableColumns, count: number): void {
  for (const [name, values] of Object.entries(table))
    if (values.length !== count)
      throw new BadPackage(
        `The column “${name.slice(0, 80)}” of its ${what} has ${values.length} rows in the place of ${count}.`,
      );
}

function checkPlaces(places: Iterable<number>, below: number, what: string): void {
  for (const place of places)
    if (!Number.isInteger(place) || place < 0 || place >= below)
      throw new BadPackage(`${what} that is not there (${place}).`);
}
