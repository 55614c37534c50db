import { Router, type RequestHandler } from 'express';
import type { Store } from '../storage/open';
import type { StudyFolders } from '../storage/studyFolders';
import { ApiError, notFound } from './problems';

/** Finds the study of a request; what is not there, or was deleted, is not found, whatever is asked of it. */
export type StoreOf = (request: { readonly params: { readonly study?: unknown } }) => Store;

export function storeOf(studies: StudyFolders): StoreOf {
  return ({ params: { study } }) => {
    const store = studies.storeOf(String(study));
    if (!store) throw notFound('This study');
    return store;
  };
}

/** Routes of studies, and of networks and collecting runs in them. */
export function routerOf(studies: StudyFolders): Router {
  const routes = Router();
  const find = storeOf(studies);
  const isThere = (store: Store, table: string, id: string, alive = ''): boolean =>
    store.raw.prepare(`select 1 from ${table} where id = ? ${alive}`).get(id) !== undefined;
  routes.param('study', (request, _response, next) => {
    find(request);
    next();
  });
  routes.param('network', (request, _response, next, id: string) => {
    const store = find(request);
    next(isThere(store, 'network', id, 'and deleted_at is null') ? undefined : notFound('This network'));
  });
  routes.param('run', (request, _response, next, id: string) => {
    const store = find(request);
    next(isThere(store, 'collect_run', id) ? undefined : notFound('This run'));
  });
  return routes;
}

/** Says of what no route answers whether it is the method or the whole that is wrong. */
export function nothingHere(routers: readonly Router[]): RequestHandler {
  const known = routers.flatMap(({ stack }) =>
    stack.flatMap(({ route }) =>
      route
        ? [
            {
              path: new RegExp(`^${route.path.replaceAll('.', '\\.').replace(/:[a-z]+/g, '[^/]+')}/?$`),
              methods: route.stack.map(({ method }) => method.toUpperCase()),
            },
          ]
        : [],
    ),
  );
  return (request, response) => {
    const methods = known.filter(({ path }) => path.test(request.path)).flatMap((one) => one.methods);
    if (methods.length === 0) throw notFound(`${request.method} ${request.originalUrl}`);
    const allowed = [...new Set(methods)].sort();
    response.set('allow', allowed.join(', '));
    throw new ApiError(
      405,
      'This cannot be done here',
      `${request.method} is not answered at this address; ${allowed.join(' and ')} ${allowed.length === 1 ? 'is' : 'are'}.`,
    );
  };
}
