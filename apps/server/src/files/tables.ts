import { mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';
import { fromArrow, toArrow, type TableColumns } from '@pebble/core';
import { networkPath, type NetworkPart } from './places';

/** Writes a network's table whole or not at all: to a file beside it, which then takes its place. */
export function writeTable(folder: string, network: string, table: NetworkPart, columns: TableColumns): void {
  const path = networkPath(folder, network, table);
  mkdirSync(dirname(path), { recursive: true });
  writeFileSync(`${path}.part`, toArrow(columns));
  renameSync(`${path}.part`, path);
}

/** @param only names of the columns that are wanted; all where it is left out */
export function readTable(
  folder: string,
  network: string,
  table: NetworkPart,
  only?: readonly string[],
): TableColumns {
  return fromArrow(readFileSync(networkPath(folder, network, table)), only);
}
