import { createReadStream, existsSync } from 'node:fs';
import { Router, type Response } from 'express';
import { AccountWeave, EvidenceQuery, type Network } from '@pebble/contract';
import { numbersOf, textsOf, writeGraphml, writeNodesCsv, writeTiesCsv } from '@pebble/core';
import { readEvidence, readMessageTies, readPortrait } from '../db/evidence';
import { findNetwork, listNetworks, readMap, readPositions } from '../db/networks';
import { networkPath } from '../files/places';
import { readTable } from '../files/tables';
import { ApiError, notFound } from './problems';
import type { Services } from './services';

export function networkRoutes({ store, runner }: Services): Router {
  const routes = Router();
  const find = async (id: string): Promise<Network> => {
    const network = await findNetwork(store, id);
    if (!network) throw notFound('This network');
    return network;
  };

  routes.post('/studies/:study/estimate', async (request, response) => {
    response.json(await runner.read('estimate', request.params.study, AccountWeave.parse(request.body)));
  });

  routes.get('/studies/:study/networks', async (request, response) => {
    response.json(await listNetworks(store, request.params.study));
  });

  routes.get(
    '/networks/:network',
    async (request, response) => void response.json(await find(request.params.network)),
  );

  for (const table of ['nodes', 'edges'] as const) {
    routes.get(`/networks/:network/${table}.arrow`, async (request, response) => {
      const network = await find(request.params.network);
      const path = networkPath(store.folder, network.id, table);
      if (!existsSync(path)) throw notFound('The table of this network');
      response.type('application/vnd.apache.arrow.file').set('cache-control', 'no-store');
      createReadStream(path).pipe(response);
    });
  }

  routes.get(
    '/networks/:network/map',
    async (request, response) => void response.json(await readMap(store, request.params.network)),
  );

  routes.get('/networks/:network/positions', async (request, response) => {
    const positions = await readPositions(store, request.params.network);
    if (!positions) throw notFound('The arrangement of this map');
    response.type('application/octet-stream').send(positions);
  });

  routes.get('/networks/:network/evidence', async (request, response) => {
    const network = await find(request.params.network);
    const query = EvidenceQuery.parse(request.query);
    const accounts = numbersOf(readTable(store.folder, network.id, 'nodes'), 'id');
    const account = (node: number): number => {
      if (!(node < accounts.length))
        throw new ApiError(404, 'Not found', `This network has no node ${node}.`);
      return accounts[node];
    };
    const scope = scopeOf(network);
    if (query.source !== undefined && query.target !== undefined) {
      response.json(
        await readEvidence(store, scope, { from: account(query.source), to: account(query.target) }, query),
      );
    } else {
      const nodes =
        query.node !== undefined ? [query.node] : membersOf(store.folder, network.id, query.community!);
      response.json(await readEvidence(store, scope, { accounts: nodes.map(account) }, query));
    }
  });

  routes.get('/networks/:network/portrait/:community', async (request, response) => {
    const network = await find(request.params.network);
    const community = Number(request.params.community);
    const accounts = numbersOf(readTable(store.folder, network.id, 'nodes'), 'id');
    const members = membersOf(store.folder, network.id, community).map((node) => accounts[node]);
    if (members.length === 0) throw notFound('This community');
    response.json(await readPortrait(store, scopeOf(network), community, members));
  });

  routes.get('/networks/:network/message-ties/:message', async (request, response) => {
    const network = await find(request.params.network);
    const accounts = numbersOf(readTable(store.folder, network.id, 'nodes'), 'id');
    const node = new Map(Array.from(accounts, (id, i) => [id, i]));
    const pairs = await readMessageTies(store, scopeOf(network), Number(request.params.message));
    const ties = pairs.flatMap(({ source, target }) =>
      node.has(source) && node.has(target) ? [{ source: node.get(source)!, target: node.get(target)! }] : [],
    );
    response.json({ ties });
  });

  routes.get('/networks/:network/export/:format', async (request, response) => {
    const network = await find(request.params.network);
    sendExport(response, store.folder, network, request.params.format);
  });

  return routes;
}

function membersOf(folder: string, network: string, community: number): number[] {
  const groups = numbersOf(readTable(folder, network, 'nodes'), 'community');
  return Array.from(groups.keys()).filter((node) => groups[node] === community);
}

function sendExport(response: Response, folder: string, network: Network, format: string): void {
  const nodes = readTable(folder, network.id, 'nodes');
  const edges = readTable(folder, network.id, 'edges');
  const file =
    network.name
      .replace(/[^\p{L}\p{N} _-]/gu, '')
      .trim()
      .slice(0, 80) || 'network';
  switch (format) {
    case 'graphml':
      response
        .attachment(`${file}.graphml`)
        .type('application/graphml+xml')
        .send(writeGraphml(nodes, edges, network.nodes, network.directed));
      return;
    case 'csv-nodes':
      response
        .attachment(`${file} nodes.csv`)
        .type('text/csv; charset=utf-8')
        .send(`\ufeff${writeNodesCsv(nodes, network.nodes)}`);
      return;
    case 'csv-ties':
      response
        .attachment(`${file} ties.csv`)
        .type('text/csv; charset=utf-8')
        .send(`\ufeff${writeTiesCsv(edges, textsOf(nodes, 'handle'))}`);
      return;
    default:
      throw new ApiError(
        404,
        'Not found',
        `“${format}” is not a format of export; there are graphml, csv-nodes and csv-ties.`,
      );
  }
}

/** What the evidence of a network is taken from; a network that came finished from a file has none. */
function scopeOf({ study, weave }: Network): { study: string; weave: AccountWeave } {
  if (!weave)
    throw new ApiError(
      409,
      'No messages',
      'This network came finished from a file; there are no messages behind its ties.',
    );
  return { study, weave };
}
