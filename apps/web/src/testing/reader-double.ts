import { legibility, type Legibility } from '@pebble/core';
import type { LegibilityRequest } from '../app/map/settings/legibility.worker';

/** Reads at once, since the tests have no web workers. */
export class LegibilityReader {
  read({ graph, nodes, edges, places }: LegibilityRequest): Promise<Legibility | null> {
    return Promise.resolve(legibility(graph, nodes, edges, places));
  }

  stop(): void {}
}
