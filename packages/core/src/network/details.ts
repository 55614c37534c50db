import { NodePlaces } from './nodePlaces';
import { typedColumn, type ColumnType } from './typedColumn';

/** What a table tells of a node: its columns by their names. */
export interface NodeDetails {
  readonly key: string;
  readonly attributes: Readonly<Record<string, string>>;
}

/** Details as columns of a network's nodes. */
export interface MatchedDetails {
  /** Texts, or numbers where all that is written are numbers; nodes that the table does not name have none. */
  readonly columns: Readonly<Record<string, Float64Array | readonly string[]>>;
  /** How many nodes the table tells of. */
  readonly nodes: number;
  /** Names of the table that no node has. */
  readonly unknown: readonly string[];
}

/**
 * Gives the nodes of a network what a table tells of them; of two rows for one node the later one holds.
 * @param handles names by which the nodes are known, in the network's order
 * @param names labels of the nodes; they are tried where a handle does not fit
 * @param types what columns hold, where that is known
 */
export function matchDetails(
  handles: readonly string[],
  names: readonly string[],
  rows: readonly NodeDetails[],
  types: ReadonlyMap<string, ColumnType> = new Map(),
): MatchedDetails {
  const places = new NodePlaces(handles, names);
  const columns = new Map<string, string[]>();
  const told = new Set<number>();
  const unknown: string[] = [];
  for (const { key, attributes } of rows) {
    const at = places.of(key);
    if (at === undefined) {
      unknown.push(key);
      continue;
    }
    told.add(at);
    for (const [name, value] of Object.entries(attributes)) {
      let column = columns.get(name);
      if (!column) columns.set(name, (column = new Array<string>(handles.length).fill('')));
      column[at] = value;
    }
  }
  return {
    columns: Object.fromEntries(
      [...columns].map(([name, values]) => [name, typedColumn(values, types.get(name))]),
    ),
    nodes: told.size,
    unknown,
  };
}
