import { createHash, timingSafeEqual } from 'node:crypto';
import type { Request, RequestHandler } from 'express';
import { ApiError } from './problems';

/** A year, in milliseconds: as long as a browser may keep the cookie. */
const YEAR = 365 * 24 * 3600 * 1000;

const WHY =
  'This address needs its key. Open the address that was printed at the start, or send the key of the file access-token in the data folder (Authorization: Bearer).';

/**
 * Answers only those who have the key: it comes once in the address (`?key=`) and is a cookie from then on, which no script can read and no
 * other page sends (HttpOnly, SameSite=Strict); programs send it as a bearer token (RFC 6750). Throws 401 for everybody else, on everything
 * but the question whether the application is ready.
 */
export function withKey(key: string): RequestHandler {
  const expected = digest(key);
  const fits = (given: unknown): boolean =>
    typeof given === 'string' && timingSafeEqual(digest(given), expected);
  return (request, response, next) => {
    if (request.path === '/api/v1/health') return next();
    const isPage = request.method === 'GET' && !/^\/api(\/|$)/.test(request.path);
    if (isPage && fits(request.query['key'])) {
      response
        .set('cache-control', 'no-store')
        .cookie(cookieName(request), key, { httpOnly: true, sameSite: 'strict', maxAge: YEAR })
        // The key does not stay in the address.
        .redirect(303, request.path.replace(/^\/+/, '/'));
      return;
    }
    const cookies = request.cookies as Record<string, unknown>;
    if (fits(bearer(request)) || fits(cookies[cookieName(request)])) return next();
    response.set({ 'cache-control': 'no-store', 'www-authenticate': 'Bearer' });
    if (!isPage || !request.accepts('html')) throw new ApiError(401, 'Without its key', WHY);
    response
      .status(401)
      .type('html')
      .send(askingPage(request.query['key'] !== undefined));
  };
}

/** Two applications on one machine have two keys; cookies do not know ports. */
function cookieName({ socket }: Request): string {
  return `pebble-key-${socket.localPort}`;
}

function bearer(request: Request): string | undefined {
  return /^Bearer +(\S+)$/i.exec(request.get('authorization') ?? '')?.[1];
}

/** Of equal length, so that the time of comparing tells nothing. */
function digest(text: string): Buffer {
  return createHash('sha256').update(text).digest();
}

/** The page for somebody whose browser has no key; it needs nothing that would have to be asked for. */
const askingPage = (isWrong: boolean): string => `<!doctype html>
<html lang="en">
  <meta charset="utf-8" />
  <meta name="viewport" content="width=device-width" />
  <title>Pebble Thread</title>
  <style>
    :root { color-scheme: light dark; font: 17px/1.5 system-ui, sans-serif;
      --paper: light-dark(#fbfaf6, #14191d); --ink: light-dark(#1e2a32, #ece8df); --line: light-dark(#9a958a, #6b747b); --thread: light-dark(#b4512f, #e58a66); }
    body { max-width: 32em; margin: 16vh auto; padding: 0 1.5em; background: var(--paper); color: var(--ink); }
    h1 { font: 600 1.7em/1.3 Georgia, serif; }
    [role=alert] { color: var(--thread); }
    a { color: inherit; }
    form { margin: 1.5em 0; }
    input, button { font: inherit; padding: 0.35em 0.7em; border: 1px solid var(--line); border-radius: 6px; background: none; color: inherit; }
    button { background: var(--ink); color: var(--paper); border-color: var(--ink); }
    input { width: 18em; max-width: 100%; }
  </style>
  <h1>Pebble Thread needs its key</h1>
  ${isWrong ? '<p role="alert">This is not the key of this application. Nothing was shown or changed.</p>' : ''}
  <p>It keeps messages of people, and shows them to whoever started it. Open the address that was printed at the start: it holds the key. The same key stands in the file <b>access-token</b> in the data folder.</p>
  <form action="/" method="get">
    <label for="key">Key</label><br />
    <input id="key" name="key" type="password" autocomplete="off" required autofocus />
    <button>Open</button>
  </form>
  <p>Did you come by a link of another page? Then <a href="/">go on from here</a>.</p>
</html>
`;
