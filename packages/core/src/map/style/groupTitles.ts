import type { TitlesByColumn } from '@pebble/contract';
import { groupKey, type ColourGroup } from './colours';
import { isolated } from './textWidth';

/**
 * What a group of a column is called: by its title, else by the value of its category where that is written, and only then by the node that
 * leads it.
 */
export function groupTitle(
  titles: TitlesByColumn | undefined,
  column: string,
  group: Pick<ColourGroup, 'name' | 'value' | 'leader'>,
): string {
  return (
    titles?.[column]?.[groupKey(group)] ?? group.name ?? `${group.value} · round ${isolated(group.leader)}`
  );
}
