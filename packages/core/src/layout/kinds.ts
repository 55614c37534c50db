import type { LayoutMethod } from '@pebble/contract';
import { attraction } from './attraction';
import { axes } from './axes';
import { circle } from './circle';
import { columns } from './columns';
import { fewCrossings } from './fewCrossings';
import { given } from './given';
import { grid } from './grid';
import { islands } from './islands';
import type { LayoutKind } from './kind';
import { rings } from './rings';
import { roundOne } from './roundOne';
import { springs } from './springs';
import { stress } from './stress';

/** All arrangements, in the order in which they are offered. */
export const LAYOUTS: readonly LayoutKind[] = [
  attraction,
  islands,
  rings,
  circle,
  columns,
  grid,
  axes,
  stress,
  springs,
  fewCrossings,
  roundOne,
  given,
];

export function layoutKind(method: LayoutMethod): LayoutKind {
  return LAYOUTS.find((one) => one.method === method)!;
}
