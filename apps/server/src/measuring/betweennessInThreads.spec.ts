import { join } from 'node:path';
import { betweenness, makeGraph, outRows, pathsByLength, betweennessBy, Random } from '@pebble/core';
import { buildThreads, builtThreads } from '../testing/application';
import { betweennessInThreads } from './betweennessInThreads';

const pathsFile = join(builtThreads, 'measuring/pathsThread.js');

function network(nodes: number, ties: number) {
  const chance = new Random(4);
  const ends = (): number[] => Array.from({ length: ties }, () => chance.below(nodes));
  const weights = Array.from({ length: ties }, () => 1 + chance.below(4));
  return outRows(makeGraph(nodes, ends(), ends(), weights));
}

describe('betweenness in threads', () => {
  beforeAll(buildThreads, 60_000);

  it('gives the same bits as one thread, in steps and by weight, exact and sampled', async () => {
    const rows = network(300, 1500);
    const options = { directed: true, normalised: true, seed: 3 };
    expect((await betweennessInThreads(pathsFile, 'steps', rows, options)).values).toEqual(
      betweenness(rows, options),
    );
    const sampled = { ...options, pivots: 50 };
    expect(await betweennessInThreads(pathsFile, 'length', rows, sampled)).toEqual(
      betweennessBy(pathsByLength, rows, sampled),
    );
  });

  it('is ended with its work undone when it is cancelled, and asks no more', async () => {
    const rows = network(40_000, 200_000);
    const shares: number[] = [];
    const work = betweennessInThreads(pathsFile, 'steps', rows, {
      directed: true,
      progress(share) {
        shares.push(share);
        throw new Error('cancelled');
      },
    });
    await expect(work).rejects.toThrow('cancelled');
    expect(shares).toHaveLength(1);
    expect(shares[0]).toBeLessThan(1);
  });

  it('has nothing to do for a network without nodes', async () => {
    const found = await betweennessInThreads(pathsFile, 'steps', outRows(makeGraph(0, [], [])), {
      directed: true,
    });
    expect(found.values).toHaveLength(0);
  });
});
