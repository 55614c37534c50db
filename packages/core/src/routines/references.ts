import type { RoutineReference, RoutineStep } from '@pebble/contract';

/** Whether something stands for a value that is not known yet. */
export function isReference(value: unknown): value is RoutineReference {
  if (typeof value !== 'object' || value === null || Array.isArray(value)) return false;
  const [[key, name] = [], ...more] = Object.entries(value);
  return more.length === 0 && (key === 'ask' || key === 'made') && typeof name === 'string';
}

/** Where a value stands: names of fields, and places in lists. */
export type Path = readonly (string | number)[];

/**
 * The same value with other leaves: what is neither a list nor an object, and references.
 * @param change gives what stands in place of a leaf
 */
export function withLeaves(
  value: unknown,
  change: (leaf: unknown, path: Path) => unknown,
  path: Path = [],
): unknown {
  if (isReference(value)) return change(value, path);
  if (Array.isArray(value)) return value.map((one, i) => withLeaves(one, change, [...path, i]));
  if (typeof value !== 'object' || value === null) return change(value, path);
  return Object.fromEntries(
    Object.entries(value).map(([name, one]) => [name, withLeaves(one, change, [...path, name])]),
  );
}

/** All references in a value, each with its place. */
export function referencesIn(
  value: unknown,
): { readonly reference: RoutineReference; readonly path: Path }[] {
  const found: { reference: RoutineReference; path: Path }[] = [];
  withLeaves(value, (leaf, path) => {
    if (isReference(leaf)) found.push({ reference: leaf, path });
    return leaf;
  });
  return found;
}

/** The steps on what of which a step rests, by their names. */
export function referencesTo({ parameters }: RoutineStep): string[] {
  return referencesIn(parameters).flatMap(({ reference }) => ('made' in reference ? [reference.made] : []));
}
