import { tableFromIPC, type Table } from 'apache-arrow';
import { readParquet } from 'parquet-wasm/node';
import { NetworkExport, type Network, type Step } from '@pebble/contract';
import { fromArrow } from '@pebble/core';
import { readWorkbook } from '@pebble/core/files';
import { makePosts, postsAsJsonLines } from '@pebble/standins';
import { startedApplication } from './testing/application';
import { WovenNetworks, type Made } from './testing/wovenNetworks';

const ENDINGS = {
  gml: 'gml',
  'json-graph': 'json',
  'node-link': 'json',
  dot: 'dot',
  graphml: 'graphml',
} as const;

describe('a network as a file', () => {
  const app = startedApplication();
  const woven = new WovenNetworks(app);
  let made: Made;
  let network: Network;
  beforeAll(async () => {
    await app.take('tidepost.jsonl', postsAsJsonLines(makePosts(500).posts));
    made = await woven.make({ what: 'accounts', kinds: ['reply', 'mention'] });
    network = await app.get<Network>(`networks/${made.id}`);
  }, 60_000);

  const bytes = async (format: NetworkExport): Promise<Buffer> => {
    const { body } = await app.api
      .get(`/api/v1/studies/${app.study}/networks/${made.id}/export/${format}`)
      .buffer()
      .parse((response, done) => {
        const parts: Buffer[] = [];
        response.on('data', (part: Buffer) => parts.push(part));
        response.on('end', () => done(null, Buffer.concat(parts)));
      })
      .expect(200);
    return body as Buffer;
  };

  it.each(Object.keys(ENDINGS) as (keyof typeof ENDINGS)[])(
    'as %s is taken in again with its nodes, its ties and their weights',
    async (format) => {
      const step = await app.take(`again.${ENDINGS[format]}`, await bytes(format));
      const again = await app.get<Network>(`networks/${String(step.result?.['network'])}`);
      expect([again.nodes, again.edges, again.directed]).toEqual([network.nodes, network.edges, true]);
      const weights = async (id: string): Promise<number[]> => {
        const { text } = await app.api
          .get(`/api/v1/studies/${app.study}/networks/${id}/export/csv-ties`)
          .buffer()
          .expect(200);
        const [head, ...lines] = text.trim().replace('\ufeff', '').split('\r\n');
        const at = head.split(',').indexOf('weight');
        return lines.map((line) => Number(line.split(',')[at])).sort((a, b) => a - b);
      };
      expect(await weights(again.id)).toEqual(await weights(made.id));
      const said = (await app.step('export-network', { network: made.id, format }).expect(200)).body as Step;
      expect(said.sentence).toMatch(/^The network was exported (as|in) /);
    },
  );

  it('as a workbook has a row for each node and each tie', async () => {
    const [nodes, ties] = readWorkbook(await bytes('xlsx'));
    expect([nodes.name, nodes.rows.length, ties.name, ties.rows.length]).toEqual([
      'nodes',
      network.nodes + 1,
      'ties',
      network.edges + 1,
    ]);
    expect(nodes.rows.slice(1).map(([id]) => id)).toEqual(made.handles);
  });

  it('as Parquet has tables that join by the ids of nodes, for another library', async () => {
    const read = async (format: NetworkExport): Promise<Table> =>
      tableFromIPC(readParquet(new Uint8Array(await bytes(format))).intoIPCStream());
    const [nodes, ties] = [await read('parquet-nodes'), await read('parquet-ties')];
    const column = (table: Table, name: string): unknown[] => [
      ...(table.getChild(name) as Iterable<unknown>),
    ];
    expect(column(nodes, 'id')).toEqual(made.handles);
    const source = made.edges['source'] as Uint32Array;
    expect(column(ties, 'source')).toEqual(Array.from(source, (v) => made.handles[v]));
    expect(column(ties, 'weight')).toEqual([...made.edges['weight']]);
    expect(column(nodes, 'messages')).toEqual([...(made.nodes['messages'] as Float64Array)]);
  });

  it('as Arrow has the tables with all columns', async () => {
    const nodes = fromArrow(new Uint8Array(await bytes('arrow-nodes')));
    expect(nodes['handle']).toEqual(made.handles);
    const ties = fromArrow(new Uint8Array(await bytes('arrow-ties')));
    expect(ties['source']).toHaveLength(network.edges);
    expect(Object.keys(ties)).toEqual(expect.arrayContaining(['source', 'target', 'weight']));
  });
});
