import type { FullPortrait, StandingNode, TieWay } from '@pebble/contract';

/** A list of nodes of a portrait. */
interface StandingList {
  readonly heading: string;
  /** What the numbers are. */
  readonly how: string;
  readonly nodes: readonly StandingNode[];
  /** Which ties they count; messages that the node wrote where it is left out. */
  readonly way?: TieWay;
  /** Whether it is shown only when more is asked for. */
  readonly isFurther: boolean;
}

/** Who stands how in a group. */
export function standing(portrait: FullPortrait, directed: boolean): readonly StandingList[] {
  const { addressed, addressing, active, waysOut, outside } = portrait;
  return [
    directed
      ? {
          heading: 'most addressed',
          how: 'Weight of the ties that come in',
          nodes: addressed,
          way: 'in',
          isFurther: false,
        }
      : {
          heading: 'most ties',
          how: 'Weight of all ties',
          nodes: addressed,
          way: 'either',
          isFurther: false,
        },
    { heading: 'most active', how: 'Messages', nodes: active, isFurther: false },
    {
      heading: 'ways out',
      how: 'Weight of ties to and from other groups',
      nodes: waysOut,
      way: 'across',
      isFurther: false,
    },
    {
      heading: 'addressing most',
      how: 'Weight of the ties that go out',
      nodes: addressing,
      way: 'out',
      isFurther: true,
    },
    {
      heading: 'from elsewhere, tied to most',
      how: 'Nodes of other groups: with how many of this group they are tied',
      nodes: outside,
      way: 'with',
      isFurther: true,
    },
  ];
}
