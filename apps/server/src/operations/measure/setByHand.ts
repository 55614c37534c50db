import type { Network } from '@pebble/contract';
import { isTakenColumn, SET_BY_HAND, textsIn } from '@pebble/core';
import { StepRefused } from '../../errors/stepErrors';
import { readTable } from '../../storage/files/tables';
import { addOwnColumns } from '../../storage/networks';
import type { StepContext } from '../step';

/**
 * Gives nodes of a network a value of a category that is set by hand, which is made where it is not there yet. Throws StepRefused where the
 * column came about otherwise.
 * @returns how many had another value before
 */
export async function setByHand(
  { store, files }: StepContext,
  { id, columns, nodes: count }: Network,
  chosen: readonly number[],
  column: string,
  value: string,
): Promise<number> {
  const known = columns.find(({ name }) => name === column);
  // What a method found, or a table told, is not written over.
  if (isTakenColumn(column) || (known && known.how !== SET_BY_HAND))
    throw new StepRefused(
      `“${column}” was not set by hand (${known?.how ?? 'it is computed'}). Choose another name; nothing was changed.`,
    );
  const nodes = readTable(store.folder, id, 'nodes');
  const before = column in nodes ? textsIn(nodes[column]) : new Array<string>(count).fill('');
  const after = [...before];
  for (const v of chosen) after[v] = value;
  files.table(id, 'nodes', { ...nodes, [column]: after });
  if (!known)
    await addOwnColumns(store, id, [{ name: column, title: column, type: 'category', how: SET_BY_HAND }]);
  return chosen.filter((v) => before[v] !== value).length;
}
