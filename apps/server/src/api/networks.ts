import type { Router } from 'express';
import { ROUTES, type Network } from '@pebble/contract';
import { kindOf } from '@pebble/core';
import { formatProblem } from '../exports/formatProblem';
import { readDeleted } from '../storage/deleted';
import { keptLooks } from '../storage/looks';
import { findNetwork, readMap, readPositions } from '../storage/networks';
import { nodePictures } from '../storage/pictures';
import { withoutPseudonyms } from '../people/publishedNames';
import { findPlate } from '../storage/plates';
import { wholeTable } from '../storage/files/tables';
import { checkOwnThings } from './ownThings';
import { ApiError, fail, NEVER_ARRANGED, notFound } from './problems';
import { studyRouter } from './routers';
import type { Services } from './services';

/** Which network, and of which study. */
interface Place {
  readonly study: string;
  readonly network: string;
}

/** What is read from a network takes a while for a large one: it is done in a thread of its own. */
export function networkRoutes({ studies, runner }: Services): Router {
  const { router, on, store } = studyRouter(studies);
  const find = async ({ study, network: id }: Place): Promise<Network> =>
    (await findNetwork(store(study), id)) ?? fail(notFound('This network'));

  on(ROUTES.estimate, ({ path: { study }, body: weave, signal }) => {
    checkOwnThings(store(study), 'estimate', { weave });
    return runner.readTelling('estimate', study, weave, signal);
  });

  on(ROUTES.looks, () => keptLooks(studies.catalogue));

  on(ROUTES.pictures, ({ path }) => nodePictures(store(path.study)));

  on(ROUTES.deleted, ({ path }) => readDeleted(store(path.study)));

  on(ROUTES.networks, ({ path, query }) => runner.read('networks', path.study, query));

  on(ROUTES.network, ({ path }) => find(path));

  on(ROUTES.dailyTieCounts, async ({ path: { study, network }, signal }) => {
    const counts = await runner.read('dailyTieCounts', study, network, signal);
    return counts ?? fail(notFound('When the messages of each tie were written'));
  });

  on(ROUTES.table, ({ path: { study, network, table } }) => ({
    kept: wholeTable(store(study).folder, network, table),
  }));

  on(ROUTES.savedMap, ({ path: { study, network } }) => readMap(store(study), network));

  on(ROUTES.positions, async ({ path: { study, network } }) => {
    const positions = await readPositions(store(study), network);
    return positions ?? fail(notFound('The arrangement of this map'));
  });

  // A map that was never arranged has none, which is no error.
  on(ROUTES.smallPicture, ({ path: { study, network }, signal }) =>
    runner.read('smallPicture', study, network, signal),
  );

  on(ROUTES.evidence, async ({ path, query, signal }) => {
    const network = await find(path);
    for (const node of [query.node, query.source, query.target])
      if (node !== undefined && !(node < network.nodes))
        throw new ApiError(404, 'Not found', `This network has no node ${node}.`);
    const page = await runner.read('evidence', path.study, { network: network.id, query }, signal);
    return page ?? fail(noMessages(network));
  });

  on(ROUTES.portrait, async ({ path, signal }) => {
    const network = await find(path);
    const asks = { network: network.id, community: path.community };
    const portrait = await runner.read('portrait', path.study, asks, signal);
    if (portrait === 'no such community') throw notFound('This community');
    return portrait ?? fail(noMessages(network));
  });

  on(ROUTES.portraits, async ({ path, query: { column }, signal }) => {
    const { id: network } = await find(path);
    return runner.read('portraits', path.study, { network, column }, signal);
  });

  on(ROUTES.groupPortrait, async ({ path, query, signal }) => {
    const { id: network } = await find(path);
    const portrait = await runner.read('groupPortrait', path.study, { network, ...query }, signal);
    return portrait ?? fail(notFound('The portrait of this group'));
  });

  on(ROUTES.following, async ({ path, signal }) => {
    const { id } = await find(path);
    return runner.read('following', path.study, id, signal);
  });

  on(ROUTES.followedNodes, async ({ path, query, signal }) => {
    const { id: network } = await find(path);
    return runner.read('followedNodes', path.study, { network, query }, signal);
  });

  on(ROUTES.overTime, async ({ path, query, signal }) => {
    const network = await find(path);
    const found = await runner.read('overTime', path.study, { network: network.id, query }, signal);
    return found ?? fail(noMessages(network));
  });

  on(ROUTES.groupMessages, async ({ path, query, signal }) => {
    const network = await find(path);
    const page = await runner.read('groupMessages', path.study, { network: network.id, query }, signal);
    return page ?? fail(noMessages(network));
  });

  on(ROUTES.messageTies, async ({ path, signal }) => {
    const network = await find(path);
    const asks = { network: network.id, message: path.message };
    const ties = await runner.read('messageTies', path.study, asks, signal);
    return { ties: ties ?? fail(noMessages(network)) };
  });

  on(ROUTES.exportNetwork, async ({ path, signal }) => {
    const found = await find(path);
    const network = found.id;
    const { study, networkFormat: format } = path;
    const problem = formatProblem(format, found);
    if (problem) throw new ApiError(409, 'Not in this format', problem);
    const { missing } = await runner.read('nodeNames', study, network, signal);
    if (missing > 0) throw new ApiError(409, 'Without a pseudonym', withoutPseudonyms(missing));
    return runner.read('exportNetwork', study, { network, format }, signal);
  });

  const checkPlate = async ({ study, network }: Place, plate: number | undefined): Promise<void> => {
    if (plate === undefined) return;
    const found = await findPlate(store(study), plate);
    if (found?.network !== network) throw notFound('This plate of the network');
  };

  on(ROUTES.methods, ({ path: { study, network }, query: { length }, signal }) =>
    runner.read('methods', study, { network, length }, signal),
  );

  on(ROUTES.sharedPageCheck, async ({ path, query, signal }) => {
    await checkPlate(path, query.plate);
    const asked = { network: path.network, query };
    const check = await runner.read('sharedPageCheck', path.study, asked, signal);
    return check ?? fail(NEVER_ARRANGED);
  });

  on(ROUTES.sharedPage, async ({ path, query, signal }) => {
    await checkPlate(path, query.plate);
    const asked = { network: path.network, query };
    const page = (await runner.read('sharedPage', path.study, asked, signal)) ?? fail(NEVER_ARRANGED);
    if ('problem' in page) throw new ApiError(409, 'Not as a page', page.problem);
    return page;
  });

  on(ROUTES.figure, async ({ path: { study, network, figureFormat: format }, query, signal }) => {
    await checkPlate({ study, network }, query.plate);
    const figure = await runner.read('exportFigure', study, { network, format, query }, signal);
    return figure ?? fail(NEVER_ARRANGED);
  });

  return router;
}

/** Why nothing can be read behind a network. */
function noMessages(network: Network): ApiError {
  return new ApiError(
    409,
    'No messages',
    network.weave && !kindOf(network.weave).hasMessages
      ? 'Who follows whom is told by follower lists; there are no messages behind these ties.'
      : 'This network came finished from a file; there are no messages behind its ties.',
  );
}
