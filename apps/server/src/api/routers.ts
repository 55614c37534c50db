import { Router, type RequestHandler } from 'express';
import type { Store } from '../db/open';
import { ApiError, notFound } from './problems';

/** Routes of studies, networks and collecting runs: what is not there, or was deleted, is not found, whatever is asked of it. */
export function routerOf({ raw }: Store): Router {
  const routes = Router();
  const study = raw.prepare('select 1 from study where id = ? and deleted_at is null');
  const network = raw.prepare(
    `select 1 from network n join study s on s.id = n.study_id
     where n.id = ? and n.deleted_at is null and s.deleted_at is null`,
  );
  const run = raw.prepare(
    `select 1 from collect_run r join study s on s.id = r.study_id where r.id = ? and s.deleted_at is null`,
  );
  routes.param('run', (_request, _response, next, id: string) =>
    next(run.get(id) ? undefined : notFound('This run')),
  );
  routes.param('study', (_request, _response, next, id: string) =>
    next(study.get(id) ? undefined : notFound('This study')),
  );
  routes.param('network', (_request, _response, next, id: string) =>
    next(network.get(id) ? undefined : notFound('This network')),
  );
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
