import type { ImportMapping, SkippedRow } from '@pebble/contract';
import type { FileRecord } from '../record';
import { BrokenNetwork, type NetworkBuilder } from './foundNetwork';

/** A function that adds the tie of a row to a network, or says why it cannot. A row with one end alone is a node without a tie. */
export function takeEdge(
  reading: ImportMapping,
  builder: NetworkBuilder,
): (record: FileRecord) => SkippedRow | null {
  const at = (role: string): number => reading.columns.findIndex((column) => column.role === role);
  const source = at('source');
  const target = at('target');
  const weight = at('weight');
  const rest = reading.columns.flatMap(({ role, name }, i) =>
    role === 'number' || role === 'attribute' || role === 'time' ? [{ name, i }] : [],
  );
  for (const { role, name } of reading.columns)
    if (role === 'number' || role === 'attribute' || role === 'time')
      builder.say('edge', name, role === 'number' ? 'number' : 'text');
  return ({ row, values, extra }) => {
    const from = values[source].trim();
    const to = values[target].trim();
    if (from === '' && to === '')
      return { row, field: reading.columns[source].name, reason: 'The row names no node.' };
    if (from === '' || to === '') {
      builder.node(from || to);
      return null;
    }
    const given = rest.filter(({ i }) => values[i] !== '').map(({ name, i }) => [name, values[i]] as const);
    const attributes = Object.fromEntries([...Object.entries(extra ?? {}), ...given]);
    try {
      builder.edge(from, to, weight < 0 ? '' : values[weight], attributes, row);
      return null;
    } catch (error) {
      if (!(error instanceof BrokenNetwork)) throw error;
      return { row, field: reading.columns[weight].name, reason: error.message };
    }
  };
}
