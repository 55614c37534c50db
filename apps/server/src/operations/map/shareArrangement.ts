import { counted } from '@pebble/core';
import { readMap, readPositions, saveMap, slicesOfNetwork } from '../../storage/networks';
import { nodeKeys } from '../../reading/nodeKeys';
import { StepRefused } from '../../errors/stepErrors';
import type { StepDefinition } from '../step';

interface Shared extends Record<string, unknown> {
  readonly slices: number;
}

/** Gives the slices of a network the places that its nodes have. */
export const shareArrangement: StepDefinition<'share-arrangement', Shared> = {
  kind: 'share-arrangement',
  async run({ store }, { network }, progress) {
    const positions = await readPositions(store, network);
    if (!positions) throw new StepRefused('The map of the whole has no arrangement yet. Arrange it first.');
    const { layout, iterations } = await readMap(store, network);
    const place = new Map<string, number>();
    nodeKeys(store, network).forEach((key, node) => place.set(key, node));
    const slices = await slicesOfNetwork(store, network);
    if (slices.length === 0) throw new StepRefused('This network has no slices.');
    for (const [i, slice] of slices.entries()) {
      progress('Sharing the arrangement', i / slices.length);
      const keys = nodeKeys(store, slice);
      const own = Buffer.alloc(keys.length * 8);
      keys.forEach((key, node) => {
        const at = place.get(key);
        // What stands in a slice stands in the whole, unless a threshold took it out there: it lies in the middle.
        if (at !== undefined) positions.copy(own, node * 8, at * 8, at * 8 + 8);
      });
      await saveMap(store, slice, {
        positions: own,
        ...(layout ? { layout } : {}),
        ...(iterations === null ? {} : { iterations }),
      });
    }
    return { slices: slices.length };
  },
  describe: (_, result) =>
    result
      ? `The arrangement of the whole was given to its ${counted(result.slices, 'slice')}, so that every node has one place.`
      : 'The arrangement of the whole was to be given to its slices.',
};
