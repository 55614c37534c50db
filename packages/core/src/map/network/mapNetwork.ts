import type { NodePicture, TitlesByColumn } from '@pebble/contract';
import type { DailyTieCounts } from './dailyTieCounts';
import type { TableColumns } from '../../network/tables';

/** A network as the map needs it: its node table and its edge table. */
export interface MapNetwork {
  readonly nodeCount: number;
  /** Whether its ties have a direction; without it the columns tell, once it is measured. */
  readonly directed?: boolean;
  readonly nodes: TableColumns;
  readonly edges: TableColumns;
  /** When the messages of its ties were written, where that is known and was asked for. */
  readonly dailyTieCounts?: DailyTieCounts | null;
  /** Small pictures for nodes, where there are any. */
  readonly pictures?: readonly NodePicture[];
  /** What its groups are called, by column and by value. */
  readonly titles?: TitlesByColumn;
}

/** Whether its ties have a direction; one of which nothing is said, and that was not measured yet, is taken to be directed. */
export function isDirected({ directed, nodes }: MapNetwork): boolean {
  return directed ?? ('inDegree' in nodes || !('degree' in nodes));
}
