import type { Condition, MapDescription, NodeFilter, Shown } from '@pebble/contract';
import { carriedMap } from '../map/description/carriedMap';
import { counted } from '../words/sentence';

interface Kept<T> {
  readonly kept: T;
  /** What was left out, in words. */
  readonly left: readonly string[];
}

/** What speaks of certain nodes or communities goes: other data do not have them. Rules stay. */
export const withoutHands = {
  ofMap(map: MapDescription): Kept<MapDescription> {
    const { names, regions, notes, held, colour, legend } = map;
    const shown = withoutHands.ofShown(map.show);
    return {
      kept: {
        ...carriedMap(map, new Uint32Array(0)),
        colour: { ...colour, chosen: named(colour.chosen), order: colour.order.filter(isNamed) },
        legend: { ...legend, names: named(legend.names) },
        regions: {
          ...regions,
          titles: named(regions.titles),
          notes: named(regions.notes),
          own: [],
          strokes: [],
        },
        show: shown.kept,
      },
      left: [
        ...some(names.placed.length, 'name moved by hand', 'names moved by hand'),
        ...some(held.length, 'node that is held', 'nodes that are held'),
        ...some(notes.length, 'note', 'notes'),
        ...some(regions.own.length + regions.strokes.length, 'outline by hand', 'outlines by hand'),
        ...some(
          numbered(regions.titles) + numbered(regions.notes) + numbered(legend.names),
          'name of a group',
          'names of groups',
        ),
        ...some(numbered(colour.chosen), 'colour chosen for a group', 'colours chosen for groups'),
        ...some(
          nodesIn(names.where),
          'condition of chosen nodes for names',
          'conditions of chosen nodes for names',
        ),
        ...shown.left,
      ],
    };
  },
  ofShown(shown: Shown): Kept<Shown> {
    return {
      kept: {
        ...shown,
        communities: null,
        where: { ...shown.where, conditions: shown.where.conditions.filter(isRule) },
      },
      left: [
        ...(shown.communities ? ['which communities were shown'] : []),
        ...some(nodesIn(shown.where), 'condition of chosen nodes', 'conditions of chosen nodes'),
      ],
    };
  },
};

/** Groups that were found have numbers, which are others in other data; other categories have names. */
const isNamed = (value: string): boolean => !/^\d+$/.test(value);
const named = <T>(byValue: Readonly<Record<string, T>>): Record<string, T> =>
  Object.fromEntries(Object.entries(byValue).filter(([value]) => isNamed(value)));
const numbered = (byValue: object): number => Object.keys(byValue).filter((one) => !isNamed(one)).length;

const isRule = (condition: Condition): boolean => !('nodes' in condition);
const nodesIn = ({ conditions }: NodeFilter): number => conditions.filter((one) => !isRule(one)).length;
const some = (count: number, one: string, more: string): string[] =>
  count > 0 ? [counted(count, one, more)] : [];
