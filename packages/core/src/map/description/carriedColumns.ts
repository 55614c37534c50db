import type { Condition, MapDescription, NodeFilter } from '@pebble/contract';

/** Which columns another network has. */
export interface CarriedColumns {
  /** With the same values. */
  readonly given: ReadonlySet<string>;
  /** Computed anew, as they are for every network: their groups have other numbers. */
  readonly anew: ReadonlySet<string>;
}

/**
 * What a map says, for a network that lacks some columns: what went by them goes by the columns of a first map instead, or by nothing. Colours,
 * titles and names that were given to groups go along only where the groups do.
 */
export function withColumns(
  map: MapDescription,
  { given, anew }: CarriedColumns,
  first: MapDescription,
): MapDescription {
  const has = (column: string): boolean => given.has(column) || anew.has(column);
  const orNothing = (column: string | null): string | null =>
    column !== null && has(column) ? column : null;
  const { colour, shape, regions, names, size, legend, show } = map;
  const { unsure } = colour;
  const holdsSame = (column: string): boolean => given.has(column);
  const sameGroups = given.has(colour.column);
  const holds = (one: Condition): boolean =>
    !('column' in one) || (one.what === 'values' ? given.has(one.column) : has(one.column));
  const filter = ({ joined, conditions }: NodeFilter): NodeFilter => ({
    joined,
    conditions: conditions.filter(holds),
  });
  return {
    ...map,
    size: has(size.column) ? size : { ...size, column: first.size.column },
    colour: {
      ...colour,
      column: has(colour.column) ? colour.column : first.colour.column,
      chosen: sameGroups ? colour.chosen : {},
      order: sameGroups ? colour.order : [],
      unsure: unsure && has(unsure.column) ? unsure : null,
    },
    shape: {
      ...shape,
      column: orNothing(shape.column),
      rim: shape.rim && (shape.rim.value === null ? has : holdsSame)(shape.rim.column) ? shape.rim : null,
      letters: shape.letters === 'initials' ? shape.letters : orNothing(shape.letters),
    },
    names: {
      ...names,
      column: has(names.column) ? names.column : first.names.column,
      where: filter(names.where),
    },
    regions: {
      ...regions,
      column: orNothing(regions.column),
      titles: regions.column !== null && given.has(regions.column) ? regions.titles : {},
      notes: regions.column !== null && given.has(regions.column) ? regions.notes : {},
    },
    legend: { ...legend, names: sameGroups ? legend.names : {} },
    show: { ...show, where: filter(show.where) },
  };
}
