import type { Column, Material, Preview, ImportMapping } from '@pebble/contract';
import type { FoundNetwork } from '../networks/foundNetwork';
import { previewOf, ROWS_SHOWN, type FileHead } from './findings';
import { sketchOf } from './trial';

/** What is shown of a network that was looked at whole. */
export function previewNetwork(
  file: FileHead,
  found: FoundNetwork,
  base: ImportMapping,
  reasons: string[],
  materials: Material[] = ['network'],
): Preview {
  const { nodes, edges } = found;
  const handles = nodes['handle'] as readonly string[];
  const names = nodes['name'] as readonly string[];
  const label = (v: number): string => names[v] || handles[v];
  const edgeColumns = Object.keys(edges).filter((name) => !['source', 'target', 'weight'].includes(name));
  const cell = (name: string, e: number): string => String(edges[name][e]).replace(/^NaN$/, '');
  const shown = Math.min(ROWS_SHOWN, edges['source'].length);
  return previewOf(
    file,
    {
      ...base,
      columns: [
        { name: 'source', role: 'source' },
        { name: 'target', role: 'target' },
        { name: 'weight', role: 'weight' },
        ...edgeColumns.map((name): Column => ({ name, role: 'attribute' })),
      ],
    },
    [...reasons, ...found.notes],
    {
      fixed: true,
      materials,
      network: sketchOf(found),
      rows: Array.from({ length: shown }, (_, e) => [
        label(edges['source'][e] as number),
        label(edges['target'][e] as number),
        cell('weight', e),
        ...edgeColumns.map((name) => cell(name, e)),
      ]),
    },
  );
}
