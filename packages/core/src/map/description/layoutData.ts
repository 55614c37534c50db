import type { LayoutSettings, MapDescription } from '@pebble/contract';
import { groupCodes } from '../../network/groupCodes';
import { isCategory } from '../../measures/columns';
import type { LayoutData } from '../../layout/common/placed';
import { sortsIn } from '../../weaves/projection';
import { isDirected, type MapNetwork } from '../network/mapNetwork';

/** What an arrangement is told of the nodes of a network: the columns that it goes by, their groups and sorts. */
export function layoutData(
  network: MapNetwork,
  { colour }: Pick<MapDescription, 'colour'>,
  settings: LayoutSettings,
  now: LayoutData['now'] = null,
): LayoutData {
  const { nodes, edges } = network;
  const groups = groupColumn(network, settings.column, colour.column);
  const sorts = sortsIn(nodes, edges);
  return {
    first: numbers(network, settings.column),
    second: numbers(network, settings.other),
    directed: isDirected(network),
    now,
    groups: groups === null ? null : groupCodes(nodes[groups]).of,
    // Sources of ties stand on the left.
    sides: sorts && Uint8Array.from(sorts, (sort) => (sort === sortOfSources(network, sorts) ? 0 : 1)),
  };
}

function sortOfSources({ edges }: MapNetwork, sorts: readonly string[]): string {
  const source = edges['source'] as Uint32Array;
  return source.length > 0 ? sorts[source[0]] : sorts[0];
}

/** The groups that are asked for; those that colour the map; communities. */
function groupColumn({ nodes }: MapNetwork, asked: string | null, colour: string): string | null {
  const isGroup = (name: string): boolean =>
    name in nodes && (Array.isArray(nodes[name]) || isCategory(name));
  if (asked !== null && isGroup(asked)) return asked;
  if (isGroup(colour)) return colour;
  return isGroup('community') ? 'community' : null;
}

function numbers({ nodes }: MapNetwork, column: string | null): ArrayLike<number> | null {
  if (column === null || !(column in nodes)) return null;
  const values = nodes[column];
  return ArrayBuffer.isView(values) ? values : groupCodes(values).of;
}
