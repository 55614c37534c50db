import { defaultMap, type Look, type MapDescription } from '@pebble/contract';
import { groupCodes } from '../../network/groupCodes';
import { isCategory } from '../../measures/columns';
import type { MapNetwork } from '../network/mapNetwork';

/** A look with the name by which it is offered. */
export interface NamedLook {
  readonly name: string;
  /** What it is good for. */
  readonly says: string;
  readonly look: Look;
}

/** How names are drawn, without which they are and where they were put. */
function drawnNames({ column: _column, where: _where, placed: _placed, ...drawn }: MapDescription['names']) {
  return drawn;
}

const usualNames = drawnNames(defaultMap.names);

/** What of a map is its look: how sizes, colours, names and ties are drawn, not what they say. */
export function lookOf({ size, colour, names, ties, regions }: MapDescription): Look {
  return {
    size: { growth: size.growth, smallest: size.smallest, largest: size.largest, cut: size.cut },
    colour: {
      most: colour.most,
      ramp: colour.ramp,
      reversed: colour.reversed,
      palette: colour.palette,
    },
    names: drawnNames(names),
    ties,
    outlined: regions.column !== null,
  };
}

/** The same map with a look; outlines go round the groups that colour it, or round communities. */
export function withLook(description: MapDescription, look: Look, network: MapNetwork): MapDescription {
  return {
    ...description,
    size: { ...description.size, ...look.size },
    colour: { ...description.colour, ...look.colour },
    names: { ...description.names, ...look.names },
    ties: look.ties,
    regions: {
      ...description.regions,
      column: look.outlined ? (description.regions.column ?? outlinedColumn(description, network)) : null,
    },
  };
}

function outlinedColumn({ colour }: MapDescription, { nodes }: MapNetwork): string | null {
  const isGroup = (name: string): boolean =>
    name in nodes &&
    (Array.isArray(nodes[name]) || isCategory(name)) &&
    groupCodes(nodes[name]).names.length > 1;
  return [colour.column, 'community'].find(isGroup) ?? null;
}

const usual = lookOf(defaultMap);

/** Looks that come with the application. */
export const SHIPPED_LOOKS: readonly NamedLook[] = [
  { name: 'As at first', says: 'What every new map begins with.', look: usual },
  {
    name: 'For print',
    says: 'Few, larger names in serif, pale ties: for a column of a journal.',
    look: {
      ...usual,
      size: { ...usual.size, smallest: 3.5, largest: 17 },
      names: { ...usualNames, count: 15, fontSize: 15, face: 'serif' },
      ties: { ...usual.ties, strength: 0.7, arrows: false },
    },
  },
  {
    name: 'For slides',
    says: 'Large nodes, few and large names, strong ties: to be read from the last row. For dark slides choose the ground night when you publish.',
    look: {
      ...usual,
      size: { ...usual.size, smallest: 5, largest: 26, cut: 0.01 },
      names: { ...usualNames, count: 8, fontSize: 19, length: 'short' },
      ties: { ...usual.ties, strength: 1.5, arrows: false },
    },
  },
  {
    name: 'Without colour',
    says: 'Greys on white paper, for journals that print no colour. Shapes help where there are more than five groups.',
    look: {
      ...usual,
      colour: { ...usual.colour, most: 5, ramp: 'ink', palette: 'greys' },
      names: { ...usualNames, count: 15, fontSize: 14, face: 'serif' },
      ties: { ...usual.ties, colour: 'neutral', strength: 0.8, arrows: false },
    },
  },
  {
    name: 'Grey ties',
    says: 'Ties without colour, nodes with it: who belongs where, before who talks with whom.',
    look: { ...usual, ties: { ...usual.ties, colour: 'neutral', strength: 0.8 } },
  },
  {
    name: 'Communities',
    says: 'Groups outlined, ties between them bundled, small nodes: what groups there are and how they hang together.',
    look: {
      ...usual,
      size: { ...usual.size, smallest: 2, largest: 9 },
      names: { ...usualNames, count: 16, fontSize: 12 },
      ties: { ...usual.ties, form: 'bundled', tightness: 0.8, arrows: false },
      outlined: true,
    },
  },
  {
    name: 'Influence',
    says: 'A few large nodes with large names, the rest small: who stands out.',
    look: {
      ...usual,
      size: { growth: 'linear', smallest: 1.5, largest: 30, cut: 0.01 },
      names: { ...usualNames, count: 20, fontSize: 13, grow: true },
      ties: { ...usual.ties, strength: 0.5, width: 'even' },
    },
  },
];
