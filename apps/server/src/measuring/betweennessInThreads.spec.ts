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

  it('is ended within a second when the work is cancelled, and its threads with it', async () => {
    const rows = network(40_000, 200_000);
    let began = 0;
    const work = betweennessInThreads(pathsFile, 'steps', rows, {
      directed: true,
      progress() {
        began ||= performance.now();
        throw new Error('cancelled');
      },
    });
    await expect(work).rejects.toThrow('cancelled');
    expect(performance.now() - began).toBeLessThan(1000);
  });

  it('has nothing to do for a network without nodes', async () => {
    const found = await betweennessInThreads(pathsFile, 'steps', outRows(makeGraph(0, [], [])), {
      directed: true,
    });
    expect(found.values).toHaveLength(0);
  });
});
