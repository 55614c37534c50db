import type { Network, NetworkExport } from '@pebble/contract';
import { sheetProblem } from '@pebble/core/files';

/** Why a network cannot be saved in a format, and what can hold it; null where it can. */
export function formatProblem(
  format: NetworkExport,
  { nodes, edges }: Pick<Network, 'nodes' | 'edges'>,
): string | null {
  if (format === 'xlsx') return sheetProblem(nodes, edges);
  if (format === 'parquet-ties' && edges === 0)
    return 'This network has no ties, and few programs read a Parquet file without rows. Save its ties as CSV or Arrow.';
  return null;
}
