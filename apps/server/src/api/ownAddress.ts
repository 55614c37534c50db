import type { Request, RequestHandler } from 'express';
import { OWN_HOSTS } from '@pebble/contract';
import { ApiError } from './problems';

/**
 * Answers only what is asked of this machine by its own name and port, so that no page from elsewhere reaches the application by a name that
 * was turned to this machine (DNS rebinding, OWASP), and no page of another program on this machine asks in the reader's name.
 */
export const ownHost: RequestHandler = (request, _response, next) => {
  const { name, port } = hostOf(request);
  if (!OWN_HOSTS.includes(name) || port !== request.socket.localPort)
    throw new ApiError(
      403,
      'Wrong host',
      'This address is not served here. Open the address that was printed at the start.',
    );
  next();
};

/**
 * Data are given to the pages of this application alone: what a browser sends from another page says so (Origin, RFC 6454; Fetch Metadata,
 * W3C). Programs that are no browsers send neither.
 */
export const ownPages: RequestHandler = (request, response, next) => {
  response.set('cache-control', 'no-store');
  const { origin } = request.headers;
  const site = request.get('sec-fetch-site');
  const isOwn =
    (origin === undefined || origin === `http://${request.headers.host}`) &&
    (site === undefined || site === 'same-origin' || site === 'none');
  if (!isOwn) throw new ApiError(403, 'Wrong origin', 'Requests from other pages are not answered.');
  next();
};

/** The name and port under which is asked; none where two are given. */
function hostOf({ rawHeaders }: Request): { name: string; port: number } {
  const hosts = rawHeaders.filter((_, i) => i % 2 === 1 && rawHeaders[i - 1].toLowerCase() === 'host');
  const [, name, port] =
    /^(\[[0-9a-fA-F:]+\]|[^:]+)(?::(\d+))?$/.exec(hosts.length === 1 ? hosts[0] : '') ?? [];
  return { name: name ?? '', port: Number(port ?? 80) };
}
