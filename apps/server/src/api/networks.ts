import { createReadStream, existsSync } from 'node:fs';
import type { Router, Response } from 'express';
import { EvidenceQuery, GroupTitlesQuery, Weave, type Network } from '@pebble/contract';
import {
  numbersOf,
  textsOf,
  toArrow,
  writeGraphml,
  writeNodesCsv,
  writeTiesCsv,
  type TableColumns,
} from '@pebble/core';
import { keptLooks } from '../db/looks';
import { findNetwork, listNetworks, readMap, readPositions } from '../db/networks';
import { fromPlacesBytes } from '../db/placesBytes';
import type { Store } from '../db/open';
import { nodePictures } from '../db/pictures';
import { networkPath } from '../files/places';
import { readTable } from '../files/tables';
import { evidenceOf, type Evidence } from '../weaving/evidence';
import { groupTitles } from '../weaving/groupTitles';
import { goneSignal } from './gone';
import { ApiError, notFound } from './problems';
import { parseRequest } from './parsing';
import { routerOf } from './routers';
import type { Services } from './services';

export function networkRoutes({ store, runner }: Services): Router {
  const routes = routerOf(store);
  const find = async (id: string): Promise<Network> => {
    const network = await findNetwork(store, id);
    if (!network) throw notFound('This network');
    return network;
  };

  routes.post('/studies/:study/estimate', async (request, response) => {
    const weave = parseRequest(Weave, request.body);
    const size = await runner.read('estimate', request.params.study, weave, goneSignal(response));
    response.json(size);
  });

  routes.get('/looks', async (_request, response) => {
    response.json(await keptLooks(store));
  });

  routes.get('/studies/:study/pictures', async (request, response) => {
    response.json(await nodePictures(store, request.params.study));
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
    const query = parseRequest(EvidenceQuery, request.query);
    const checked = (node: number): number => {
      if (!(node < network.nodes)) throw new ApiError(404, 'Not found', `This network has no node ${node}.`);
      return node;
    };
    const evidence = await behind(store, network);
    if (query.source !== undefined && query.target !== undefined) {
      const tie = { source: checked(query.source), target: checked(query.target) };
      response.json(await evidence.messages({ ties: [tie] }, query));
    } else {
      const nodes =
        query.node !== undefined
          ? [checked(query.node)]
          : membersOf(store.folder, network.id, query.community!);
      response.json(await evidence.messages({ nodes }, query));
    }
  });

  routes.get('/networks/:network/portrait/:community', async (request, response) => {
    const network = await find(request.params.network);
    const community = Number(request.params.community);
    const members = membersOf(store.folder, network.id, community);
    if (members.length === 0) throw notFound('This community');
    response.json(await (await behind(store, network)).portrait(community, members));
  });

  routes.get('/networks/:network/moments.arrow', async (request, response) => {
    const network = await find(request.params.network);
    const moments = await (await evidenceOf(store, network))?.moments();
    if (!moments) throw notFound('When the messages of each tie were written');
    response.type('application/vnd.apache.arrow.file').set('cache-control', 'no-store');
    response.send(Buffer.from(toArrow({ ...moments })));
  });

  routes.get('/networks/:network/titles', async (request, response) => {
    const network = await find(request.params.network);
    const { column, least } = parseRequest(GroupTitlesQuery, request.query);
    response.json({ titles: await groupTitles(store, network, column, least) });
  });

  routes.get('/networks/:network/message-ties/:message', async (request, response) => {
    const network = await find(request.params.network);
    const evidence = await behind(store, network);
    response.json({ ties: await evidence.tiesOf(Number(request.params.message)) });
  });

  routes.get('/networks/:network/export/:format', async (request, response) => {
    const network = await find(request.params.network);
    const places = placeColumns(await readPositions(store, network.id));
    sendExport(response, store.folder, network, request.params.format, places);
  });

  return routes;
}

function membersOf(folder: string, network: string, community: number): number[] {
  const groups = numbersOf(readTable(folder, network, 'nodes'), 'community');
  return Array.from(groups.keys()).filter((node) => groups[node] === community);
}

/** Where the nodes lie on the map, as columns; none for a map that was never arranged. */
function placeColumns(positions: Buffer | null): TableColumns {
  if (!positions) return {};
  const { x, y } = fromPlacesBytes(positions);
  return { x: Float64Array.from(x), y: Float64Array.from(y) };
}

function sendExport(
  response: Response,
  folder: string,
  network: Network,
  format: string,
  places: TableColumns,
): void {
  const own = readTable(folder, network.id, 'nodes');
  // A column of the network's own stays, should one be called x.
  const nodes = { ...own, ...places, ...own };
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

/** What stands behind a network. Throws where there are no messages. */
async function behind(store: Store, network: Network): Promise<Evidence> {
  const evidence = await evidenceOf(store, network);
  if (evidence) return evidence;
  throw new ApiError(
    409,
    'No messages',
    network.weave?.what === 'follows'
      ? 'Who follows whom is told by follower lists; there are no messages behind these ties.'
      : 'This network came finished from a file; there are no messages behind its ties.',
  );
}
