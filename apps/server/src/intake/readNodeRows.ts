import type { ImportMapping } from '@pebble/contract';
import type { NodeDetails } from '@pebble/core';
import { takeNode } from '@pebble/core/files';
import { needRoles } from './needRoles';
import { readRecords } from './readRecords';
import type { SkippedRows } from './skippedRows';

/** The rows of a table that tells of nodes; rows that cannot be read are handed to `skipped`. Throws StepRefused where none names nodes. */
export function readNodeRows(
  path: string,
  file: string,
  reading: ImportMapping,
  skipped: SkippedRows,
): NodeDetails[] {
  needRoles(file, reading);
  const rows: NodeDetails[] = [];
  const take = takeNode(reading, (row) => void rows.push(row));
  readRecords(path, file, reading, {
    onRecord(record) {
      const row = take(record);
      if (row) skipped.add(row);
    },
    onSkip: (row, field, reason) => skipped.add({ row, field, reason }),
  });
  return rows;
}
