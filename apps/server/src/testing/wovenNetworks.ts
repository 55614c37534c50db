import type { MessagePage, Step, WeaveEstimate } from '@pebble/contract';
import { fromArrow, type TableColumns } from '@pebble/core';
import type { TestApplication } from './application';

/** A network that was woven, with its tables. */
export interface Made {
  readonly id: string;
  readonly step: Step;
  readonly nodes: TableColumns;
  readonly edges: TableColumns;
  readonly handles: readonly string[];
}

/** Weaves networks of the study of an application. */
export class WovenNetworks {
  constructor(private readonly app: TestApplication) {}

  readonly estimate = async (weave: object): Promise<WeaveEstimate> =>
    (await this.app.api.post(`/api/v1/studies/${this.app.study}/estimate`).send(weave).expect(200))
      .body as WeaveEstimate;

  /** Weaves, and sees to it that the estimate is what is made. */
  readonly make = async (weave: object): Promise<Made> => {
    const step = (await this.app.step('weave', { name: 'Test', weave }).expect(200)).body as Step;
    const made = await this.read(step, String(step.result?.['network']));
    const size = await this.estimate(weave);
    expect([size.nodes, size.edges]).toEqual([made.handles.length, made.edges['source'].length]);
    return made;
  };

  /** Gives the nodes of a network their places, in few rounds. */
  readonly arrange = async (network: string): Promise<void> => {
    const layout = { iterations: 10 };
    await this.app
      .step('arrange-map', { network, layout, upload: null, iterations: null, moved: 0 })
      .expect(200);
  };

  readonly read = async (step: Step, id: string): Promise<Made> => {
    const nodes = await this.table(id, 'nodes');
    return {
      id,
      step,
      nodes,
      edges: await this.table(id, 'edges'),
      handles: nodes['handle'] as readonly string[],
    };
  };

  /** The first 200 messages behind a node or a tie, and how many there are. */
  readonly evidence = async (id: string, query: object): Promise<MessagePage> =>
    (
      await this.app.api
        .get(`/api/v1/studies/${this.app.study}/networks/${id}/evidence`)
        .query({ limit: 200, ...query })
        .expect(200)
    ).body as MessagePage;

  readonly table = async (
    id: string,
    name: 'nodes' | 'edges' | 'daily-tie-counts',
  ): Promise<TableColumns> => {
    const { body } = await this.app.api
      .get(`/api/v1/studies/${this.app.study}/networks/${id}/${name}.arrow`)
      .buffer(true)
      .parse((response, done) => {
        const parts: Buffer[] = [];
        response.on('data', (part: Buffer) => parts.push(part));
        response.on('end', () => done(null, Buffer.concat(parts)));
      })
      .expect(200);
    return fromArrow(body as Uint8Array);
  };
}

export function ends({ edges }: Made, e: number): { source: number; target: number } {
  return { source: edges['source'][e] as number, target: edges['target'][e] as number };
}

/** The place of the strongest tie. */
export function strongest({ edges }: Made): number {
  const weights = Array.from(edges['weight'] as Float64Array);
  return weights.indexOf(Math.max(...weights));
}
