import { closeSync, fstatSync, openSync, readFileSync, readSync } from 'node:fs';
import { fromArrow, type TableColumns } from '@pebble/core';
import { Damaged } from '../../files/damage';
import { networkPath, type NetworkPart } from '../../files/places';

/** What is kept of a network, in words. */
const PARTS: Readonly<Record<NetworkPart, string>> = {
  nodes: 'The file with the nodes',
  edges: 'The file with the ties',
  evidence: 'The file that says which messages stand behind the ties',
  days: 'The file that says when ties have messages',
};

/** Says that a file of a network is missing or cannot be read, and what to do. */
class DamagedNetwork extends Damaged {
  constructor(part: NetworkPart) {
    super(
      `${PARTS[part]} of this network is missing or damaged. Messages, other networks and the logbook are not touched. Make the network again: weave it as its step in the logbook says, or take its file in again.`,
    );
  }
}

/** How a table begins and ends (Apache Arrow, file format). */
const MAGIC = 'ARROW1';

/** The path of a network's table, which is there and was written to its end. Throws Damaged. */
export function wholeTable(folder: string, network: string, table: NetworkPart): string {
  const path = networkPath(folder, network, table);
  try {
    const file = openSync(path, 'r');
    try {
      const { size } = fstatSync(file);
      const mark = (at: number): string => {
        const bytes = Buffer.alloc(MAGIC.length);
        readSync(file, bytes, 0, MAGIC.length, at);
        return bytes.toString('latin1');
      };
      if (size > 2 * MAGIC.length && mark(0) === MAGIC && mark(size - MAGIC.length) === MAGIC) return path;
    } finally {
      closeSync(file);
    }
  } catch {
    // Whatever keeps it from being read: it cannot be shown.
  }
  throw new DamagedNetwork(table);
}

/**
 * Throws Damaged.
 * @param only names of the columns that are wanted; all where it is left out
 * @param rows rows that are wanted, in this order; all where it is left out
 */
export function readTable(
  folder: string,
  network: string,
  table: NetworkPart,
  only?: readonly string[],
  rows?: readonly number[],
): TableColumns {
  const path = wholeTable(folder, network, table);
  try {
    return fromArrow(readFileSync(path), only, rows);
  } catch {
    throw new DamagedNetwork(table);
  }
}
