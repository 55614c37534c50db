import type { Router, Response } from 'express';
import {
  EvidenceQuery,
  FIGURE_FORMATS,
  FigureQuery,
  GroupTitlesQuery,
  Weave,
  type Network,
} from '@pebble/contract';
import { readDeleted } from '../storage/deleted';
import { keptLooks } from '../storage/looks';
import { findNetwork, readMap, readPositions } from '../storage/networks';
import { nodePictures } from '../storage/pictures';
import { NETWORK_EXPORTS } from '../exports/exportNetwork';
import { wholeTable } from '../storage/files/tables';
import type { ReadName, Reads } from '../runner/reads';
import { abortOnDisconnect } from './abortOnDisconnect';
import { checkOwnThings } from './ownThings';
import { sendFile, streamFile } from './sendFile';
import { ApiError, notFound } from './problems';
import { parseRequest } from './parsing';
import { routerOf, storeOf } from './routers';
import type { Services } from './services';

/** A request for something of a network. */
interface OfNetwork {
  readonly params: { readonly study: string; readonly network: string };
}

export function networkRoutes({ studies, runner }: Services): Router {
  const routes = routerOf(studies);
  const store = storeOf(studies);
  const find = async (request: OfNetwork): Promise<Network> => {
    const network = await findNetwork(store(request), request.params.network);
    if (!network) throw notFound('This network');
    return network;
  };

  /** What is read from a network takes a while for a large one: it is done in a thread of its own. */
  const read = <N extends ReadName>(
    request: OfNetwork,
    response: Response,
    name: N,
    asks: Reads[N]['asks'],
  ): Promise<Reads[N]['gives']> => runner.read(name, request.params.study, asks, abortOnDisconnect(response));

  routes.post('/studies/:study/estimate', async (request, response) => {
    const weave = parseRequest(Weave, request.body);
    checkOwnThings(store(request), 'estimate', { weave });
    const size = await runner.readTelling(
      'estimate',
      request.params.study,
      weave,
      abortOnDisconnect(response),
    );
    response.json(size);
  });

  routes.get('/looks', async (_request, response) => {
    response.json(await keptLooks(studies.catalogue));
  });

  routes.get('/studies/:study/pictures', async (request, response) => {
    response.json(await nodePictures(store(request)));
  });

  routes.get('/studies/:study/deleted', async (request, response) => {
    response.json(await readDeleted(store(request)));
  });

  routes.get('/studies/:study/networks', async (request, response) => {
    response.json(await runner.read('networks', request.params.study, undefined));
  });

  routes.get(
    '/studies/:study/networks/:network',
    async (request, response) => void response.json(await find(request)),
  );

  for (const table of ['nodes', 'edges'] as const) {
    routes.get(`/studies/:study/networks/:network/${table}.arrow`, async (request, response) => {
      const network = await find(request);
      const path = wholeTable(store(request).folder, network.id, table);
      response.type('application/vnd.apache.arrow.file').set('cache-control', 'no-store');
      await streamFile(response, path);
    });
  }

  routes.get(
    '/studies/:study/networks/:network/map',
    async (request, response) => void response.json(await readMap(store(request), request.params.network)),
  );

  routes.get('/studies/:study/networks/:network/positions', async (request, response) => {
    const positions = await readPositions(store(request), request.params.network);
    if (!positions) throw notFound('The arrangement of this map');
    response.type('application/octet-stream').send(positions);
  });

  routes.get('/studies/:study/networks/:network/small-picture', async (request, response) => {
    // A map that was never arranged has none, which is no error.
    response.json(await read(request, response, 'smallPicture', request.params.network));
  });

  routes.get('/studies/:study/networks/:network/evidence', async (request, response) => {
    const network = await find(request);
    const query = parseRequest(EvidenceQuery, request.query);
    for (const node of [query.node, query.source, query.target])
      if (node !== undefined && !(node < network.nodes))
        throw new ApiError(404, 'Not found', `This network has no node ${node}.`);
    const page = await read(request, response, 'evidence', { network: network.id, query });
    response.json(page ?? fail(noMessages(network)));
  });

  routes.get('/studies/:study/networks/:network/portrait/:community', async (request, response) => {
    const network = await find(request);
    const asks = { network: network.id, community: Number(request.params.community) };
    const portrait = await read(request, response, 'portrait', asks);
    if (portrait === 'no such community') throw notFound('This community');
    response.json(portrait ?? fail(noMessages(network)));
  });

  routes.get('/studies/:study/networks/:network/moments.arrow', async (request, response) => {
    const moments = await read(request, response, 'moments', request.params.network);
    if (!moments) throw notFound('When the messages of each tie were written');
    response.type('application/vnd.apache.arrow.file').set('cache-control', 'no-store');
    response.send(Buffer.from(moments.buffer, moments.byteOffset, moments.byteLength));
  });

  routes.get('/studies/:study/networks/:network/titles', async (request, response) => {
    const asks = { network: request.params.network, ...parseRequest(GroupTitlesQuery, request.query) };
    response.json({ titles: await read(request, response, 'titles', asks) });
  });

  routes.get('/studies/:study/networks/:network/message-ties/:message', async (request, response) => {
    const network = await find(request);
    const asks = { network: network.id, message: Number(request.params.message) };
    response.json({
      ties: (await read(request, response, 'messageTies', asks)) ?? fail(noMessages(network)),
    });
  });

  routes.get('/studies/:study/networks/:network/export/:format', async (request, response) => {
    const format = NETWORK_EXPORTS.find((known) => known === request.params.format);
    if (!format)
      throw new ApiError(
        404,
        'Not found',
        `“${request.params.format}” is not a format of export; there are ${NETWORK_EXPORTS.join(', ')}.`,
      );
    const file = await read(request, response, 'exportNetwork', { network: request.params.network, format });
    await sendFile(response, file);
  });

  for (const format of FIGURE_FORMATS)
    routes.get(`/studies/:study/networks/:network/figure.${format}`, async (request, response) => {
      const { id: network } = await find(request);
      const query = parseRequest(FigureQuery, request.query);
      await sendFile(
        response,
        (await read(request, response, 'exportFigure', { network, format, query })) ?? fail(NEVER_ARRANGED),
      );
    });

  return routes;
}

const NEVER_ARRANGED = new ApiError(
  409,
  'Not arranged',
  'This map was never arranged, so there is no figure of it. Open it once, or arrange it by the step arrange-map.',
);

function fail(error: Error): never {
  throw error;
}

/** Why nothing can be read behind a network. */
function noMessages(network: Network): ApiError {
  return new ApiError(
    409,
    'No messages',
    network.weave?.what === 'follows'
      ? 'Who follows whom is told by follower lists; there are no messages behind these ties.'
      : 'This network came finished from a file; there are no messages behind its ties.',
  );
}
