import type { Network, Step } from '@pebble/contract';
import { betweenness, graphOf, outRows, Random, withoutSelfLoops } from '@pebble/core';
import { startedApplication } from './testing/application';
import { WovenNetworks } from './testing/wovenNetworks';

/** Ties of a made-up network at random. */
function ties(nodes: number, count: number): string {
  const chance = new Random(5);
  const lines = Array.from({ length: count }, () => `n${chance.below(nodes)},n${chance.below(nodes)},1`);
  return ['source,target,weight', ...lines].join('\n');
}

describe('a large network', () => {
  const app = startedApplication();
  const { table } = new WovenNetworks(app);
  let network: Network;
  let measured: Network;
  const read = async (): Promise<Network> =>
    (await app.api.get(`/api/v1/studies/${app.study}/networks/${network.id}`).expect(200)).body as Network;
  const until = async (isSo: (now: Network) => boolean): Promise<Network> => {
    for (let i = 0; i < 1200; i++) {
      const now = await read();
      if (isSo(now)) return now;
      await new Promise((done) => setTimeout(done, 25));
    }
    throw new Error('It did not come.');
  };
  const kinds = async (): Promise<string[]> =>
    (await app.get<{ steps: Step[] }>('logbook')).steps.map(({ kind }) => kind);

  beforeAll(async () => {
    const step = await app.take('large.csv', ties(5000, 9000));
    network = { id: String(step.result?.['network']) } as Network;
    measured = await until(({ state }) => state === 'measured');
  }, 120_000);

  it('can be looked at without its betweenness, which it does not name', async () => {
    const { result } = await app.take('larger.csv', ties(20_000, 60_000));
    const larger = String(result?.['network']);
    const step = async (): Promise<Step | undefined> =>
      (await app.get<{ steps: Step[] }>('logbook')).steps.find(
        ({ kind, parameters }) => kind === 'measure-betweenness' && parameters['network'] === larger,
      );
    const until = async (isSo: (now: Step | undefined) => boolean): Promise<Step> => {
      for (let i = 0; i < 1200; i++) {
        const now = await step();
        if (isSo(now)) return now!;
        await new Promise((done) => setTimeout(done, 25));
      }
      throw new Error('It did not come.');
    };
    const { id } = await until((now) => now?.state === 'running');
    await app.api.post(`/api/v1/studies/${app.study}/steps/${id}/cancel`).expect(202);
    expect((await until((now) => now?.state !== 'running')).state).toBe('cancelled');
    const { state, measures, columns } = await app.get<Network>(`networks/${larger}`);
    expect([state, 'modularity' in measures, 'exact' in measures]).toEqual(['measured', true, false]);
    const names = columns.map(({ name }) => name);
    expect([names.includes('community'), names.includes('betweenness')]).toEqual([true, false]);
  }, 60_000);

  it('gets its betweenness in a step of its own, the same as in one thread', async () => {
    const done = await until(({ measures }) => 'exact' in measures);
    expect(done.columns.map(({ name }) => name)).toContain('betweenness');
    expect(done.measures).toMatchObject({
      exact: true,
      pivots: 0,
      modularity: measured.measures['modularity'],
    });
    expect(await kinds()).toEqual(expect.arrayContaining(['measure-network', 'measure-betweenness']));
    const [nodes, edges] = await Promise.all([table(network.id, 'nodes'), table(network.id, 'edges')]);
    const rows = withoutSelfLoops(outRows(graphOf(nodes['id'].length, edges)));
    const alone = betweenness(rows, { directed: true, normalised: true });
    expect(nodes['betweenness']).toEqual(alone);
  }, 60_000);

  it('says in the logbook how long it took, with what was prepared before its turn', async () => {
    const { steps } = await app.get<{ steps: Step[] }>('logbook');
    const { duration, startedAt, endedAt } = steps.find(
      ({ kind, parameters }) => kind === 'measure-betweenness' && parameters['network'] === network.id,
    )!;
    const between = Date.parse(endedAt!) - Date.parse(startedAt);
    expect(duration).toBeGreaterThan(between / 2);
    expect(duration).toBeLessThanOrEqual(between + 20);
  });

  it('says in the logbook how each was found', async () => {
    const { steps } = await app.get<{ steps: Step[] }>('logbook');
    const said = (kind: string): string =>
      steps.find((step) => step.kind === kind && step.parameters['network'] === network.id)!.sentence;
    expect(said('measure-betweenness')).toBe(
      'Betweenness along the direction of ties was computed exactly (Brandes 2001).',
    );
    expect(said('measure-network')).toMatch(/^[\d,]+ communities/);
    expect(said('measure-network')).not.toContain('betweenness');
  });
});
