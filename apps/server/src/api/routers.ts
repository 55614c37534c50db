import { Router, type RequestHandler } from 'express';
import { ROUTES, type Route } from '@pebble/contract';
import type { Store } from '../storage/open';
import type { StudyFolders } from '../storage/studyFolders';
import { answeringOn, type Answering } from './answering';
import { ApiError, notFound } from './problems';

/** Finds a study; what is not there, or was deleted, is not found, whatever is asked of it. Throws ApiError. */
type StoreOf = (study: string) => Store;

function storeOf(studies: StudyFolders): StoreOf {
  return (study) => {
    const store = studies.storeOf(study);
    if (!store) throw notFound('This study');
    return store;
  };
}

/** A router, and what lets it answer routes of studies, and of networks and collecting runs in them. */
interface StudyRouter {
  readonly router: Router;
  readonly on: Answering;
  readonly store: StoreOf;
}

export function studyRouter(studies: StudyFolders): StudyRouter {
  const router = Router();
  const store = storeOf(studies);
  const isThere = (study: string, table: string, id: string, alive = ''): boolean =>
    store(study).raw.prepare(`select 1 from ${table} where id = ? ${alive}`).get(id) !== undefined;
  router.param('study', (_request, _response, next, study: string) => {
    store(study);
    next();
  });
  router.param('network', ({ params }, _response, next, id: string) => {
    const found = isThere(String(params['study']), 'network', id, 'and deleted_at is null');
    next(found ? undefined : notFound('This network'));
  });
  router.param('run', ({ params }, _response, next, id: string) => {
    next(isThere(String(params['study']), 'collect_run', id) ? undefined : notFound('This run'));
  });
  return { router, on: answeringOn(router), store };
}

const known = Object.values(ROUTES as Readonly<Record<string, Route>>).map(({ path, method }) => ({
  path: new RegExp(`^${path.replaceAll('.', '\\.').replaceAll(/\{\w+\}/g, '[^/]+')}/?$`),
  method: method.toUpperCase(),
}));

/** Says of what no route answers whether it is the method or the whole that is wrong. */
export const nothingHere: RequestHandler = (request, response) => {
  const methods = known.filter(({ path }) => path.test(request.path)).map(({ method }) => method);
  if (methods.length === 0) throw notFound(`${request.method} ${request.originalUrl}`);
  const allowed = [...new Set(methods)].sort();
  response.set('allow', allowed.join(', '));
  throw new ApiError(
    405,
    'This cannot be done here',
    `${request.method} is not answered at this address; ${allowed.join(' and ')} ${allowed.length === 1 ? 'is' : 'are'}.`,
  );
};
