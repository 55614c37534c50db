import type { LayoutSettings } from '@pebble/contract';
import type { Graph } from '../../graph/graph';
import type { InRounds } from '../kind';

/** An arrangement that is worked out in rounds; positions have no unit, and can be looked at between the rounds. */
export interface Running {
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly iterations: number;
  /** True once nodes hardly move any more. */
  readonly atRest: boolean;
  iterate(): void;
}

/** Positions without a unit. */
export interface Places {
  readonly x: Float64Array;
  readonly y: Float64Array;
}

/** How one begins that has nothing to do before its first round. */
export function atOnceBegun(make: (graph: Graph, settings: LayoutSettings) => Running): InRounds['begin'] {
  return function* (graph, settings) {
    return make(graph, settings);
  };
}
