import type { Preview, ImportMapping } from '@pebble/contract';
import { takeEdge } from '../networks/edgeTable';
import { BrokenNetwork, NetworkBuilder, type FoundNetwork } from '../networks/foundNetwork';
import { takeNode } from '../networks/nodeTable';
import { takeTwoMode, TwoModeBuilder } from '../networks/twoMode';
import { counted } from '../../words/sentence';
import type { FileRecord } from '../record';
import type { Sample } from './sample';
import { recordTaker } from '../sourceReader';
import { Tally } from './tally';
import { UnreadableFile } from '../unreadable';

/** Tries the first rows: what cannot be read of them, and what comes of a whole two-mode file. */
export function tryRecords(
  reading: ImportMapping,
  file: string,
  sample: Sample,
  complete: boolean,
): Pick<Preview, 'problems'> & Partial<Pick<Preview, 'network' | 'outcome'>> {
  if (reading.material === 'groups') return { problems: [] };
  if (reading.material === 'network') return { problems: tieProblems(reading, sample.records) };
  if (reading.material === 'nodes') return tryNodes(reading, sample, complete);
  if (reading.material === 'two-mode') return tryTwoMode(reading, sample, complete);
  const tally = new Tally();
  sample.records.forEach(recordTaker(reading, file, tally));
  return { problems: tally.problems, outcome: tally.sentence(isWhole(sample, complete)) };
}

function isWhole(sample: Sample, complete: boolean): boolean {
  return complete && sample.records.length === sample.all.length;
}

function tryNodes(
  reading: ImportMapping,
  sample: Sample,
  complete: boolean,
): Pick<Preview, 'problems' | 'outcome'> {
  let nodes = 0;
  const take = takeNode(reading, () => nodes++);
  const problems = sample.records.flatMap((record) => take(record) ?? []);
  const what = isWhole(sample, complete)
    ? 'The table tells of'
    : `The first ${counted(sample.records.length, 'row')} tell of`;
  const kept = reading.columns.filter(({ role }) => role === 'number' || role === 'attribute');
  const columns = kept.length > 0 ? `; kept of each: ${kept.map(({ name }) => name).join(', ')}` : '';
  return { problems, outcome: nodes > 0 ? `${what} ${counted(nodes, 'node')}${columns}.` : null };
}

function tryTwoMode(
  reading: ImportMapping,
  sample: Sample,
  complete: boolean,
): Pick<Preview, 'problems' | 'network'> {
  return readSafely(() => {
    const builder = new TwoModeBuilder(reading);
    const take = takeTwoMode(reading, builder);
    const rows = complete ? sample.all : sample.rows;
    const problems = rows.flatMap((values, i) => take({ row: i + 2, values, extra: null }) ?? []);
    return { problems, network: complete && builder.size > 0 ? sketchOf(builder.finish()) : null };
  });
}

/** What a found network looks like. */
export function sketchOf({
  nodes,
  edges,
  nodeCount,
  directed,
  weighted,
}: FoundNetwork): NonNullable<Preview['network']> {
  return {
    nodes: nodeCount,
    edges: edges['source'].length,
    directed,
    weighted,
    nodeColumns: Object.keys(nodes).filter((name) => !['id', 'handle', 'name'].includes(name)),
    edgeColumns: Object.keys(edges).filter((name) => !['source', 'target', 'weight'].includes(name)),
  };
}

/** Says what a broken network lacks as what the file lacks. Throws UnreadableFile. */
export function readSafely<T>(read: () => T): T {
  try {
    return read();
  } catch (error) {
    if (error instanceof BrokenNetwork) throw new UnreadableFile(error.message, error.row);
    throw error;
  }
}

function tieProblems(reading: ImportMapping, records: readonly FileRecord[]): Preview['problems'] {
  const take = takeEdge(reading, new NetworkBuilder(true));
  return records.flatMap((record) => take(record) ?? []);
}
