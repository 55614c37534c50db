import compression from 'compression';
import cookieParser from 'cookie-parser';
import express, { type Express, type Request, type RequestHandler, type Response } from 'express';
import expressStaticGzip from 'express-static-gzip';
import helmet from 'helmet';
import { withKey } from './api/access';
import { collectingRoutes } from './api/collecting';
import { gatherRoutes } from './api/gather';
import { tidyRoutes } from './api/tidy';
import { networkRoutes } from './api/networks';
import { peopleRoutes } from './api/people';
import { plateRoutes } from './api/plates';
import { reportRoutes } from './api/reports';
import { routineRoutes } from './api/routines';
import { readingRoutes } from './api/reading';
import { ownHost, ownPages } from './api/ownAddress';
import { openApiDocument } from './api/openapi';
import { notFound, problemHandler } from './api/problems';
import { nothingHere } from './api/routers';
import type { Services } from './api/services';
import { standingRoutes } from './api/standing';
import { stepRoutes } from './api/steps';
import { studyRoutes } from './api/studies';

/** The web application: the API under /api/v1, and the built interface. */
export function createApp(services: Services): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'"],
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          fontSrc: ["'self'", 'data:'],
          connectSrc: ["'self'"],
          workerSrc: ["'self'", 'blob:'],
          objectSrc: ["'none'"],
          frameAncestors: ["'none'"],
          baseUri: ["'self'"],
          formAction: ["'self'"],
        },
      },
      strictTransportSecurity: false,
    }),
  );
  app.use(ownHost, cookieParser(), withKey(services.key));
  // Bytes that are asked for again and again are small on their way; pictures and event streams are left as they are.
  app.use(compression({ filter: isWorthIt }));
  app.use('/api/v1', ownPages, express.json({ limit: '10mb' }), apiRoutes(services));
  if (services.config.webFolder) serveInterface(app, services.config.webFolder);
  app.use(problemHandler(services.log));
  return app;
}

/** What the API is made of. */
export const PARTS = [
  studyRoutes,
  gatherRoutes,
  tidyRoutes,
  collectingRoutes,
  networkRoutes,
  peopleRoutes,
  plateRoutes,
  reportRoutes,
  routineRoutes,
  standingRoutes,
  readingRoutes,
  stepRoutes,
];

function apiRoutes(services: Services): RequestHandler {
  const routes = express.Router();
  routes.get('/health', (_request, response) => void response.json({ ready: true }));
  routes.get('/openapi.json', (_request, response) => void response.json(openApiDocument()));
  routes.use(...PARTS.map((part) => part(services)), nothingHere);
  return routes;
}

/**
 * Events must go out at once. Tables of networks compress well, but they never leave this computer, and packing a large one takes five
 * times as long as handing it over.
 */
function isWorthIt(request: Request, response: Response): boolean {
  const type = String(response.getHeader('content-type') ?? '');
  return !type.startsWith('text/event-stream') && compression.filter(request, response);
}

/** Files that carry a hash of themselves in their name never change; some are packed beforehand (scripts/build.mjs). */
const HASHED = /-[A-Z0-9]{8}\.(?:js|css|woff2)(?:\.br)?$/;

function serveInterface(app: Express, folder: string): void {
  app.use(
    expressStaticGzip(folder, {
      enableBrotli: true,
      index: false,
      serveStatic: {
        setHeaders: (response, path) =>
          void response.setHeader(
            'cache-control',
            HASHED.test(path) ? 'public, max-age=31536000, immutable' : 'no-cache',
          ),
      },
    }),
  );
  app.get(/^(?!\/api\/).*/, (request, response) => {
    // Only stops of the interface have no ending; a script that is missing must not be answered by the page.
    if (/\.[a-z0-9]{2,5}$/i.test(request.path)) throw notFound('This file');
    response.set('cache-control', 'no-cache').sendFile('index.html', { root: folder });
  });
}
