import type { Request, Response, Router } from 'express';
import {
  Bytes,
  Events,
  pathParts,
  type BodyOf,
  type PathOf,
  type QueryOf,
  type Route,
} from '@pebble/contract';
import * as z from 'zod';
import { abortOnDisconnect } from './abortOnDisconnect';
import { parseRequest } from './parsing';
import { ApiError } from './problems';
import { send, type Sendable } from './sending';

/** What was asked, read as the table of routes says. */
interface Asked<R extends Route> {
  readonly path: PathOf<R>;
  readonly query: QueryOf<R>;
  readonly body: BodyOf<R>;
  readonly request: Request;
  readonly response: Response;
  /** Aborted when the one who asked goes away before there is an answer. */
  readonly signal: AbortSignal;
}

/** What a handler gives for its route; of events it writes each itself. */
type Given<R extends Route> = R extends { readonly answer: infer A }
  ? A extends z.ZodType
    ? z.output<A>
    : A extends Bytes
      ? Sendable
      : void
  : void;

export type Handler<R extends Route> = (asked: Asked<R>) => Given<R> | Promise<Given<R>>;

/** Says what answers a route of the table. */
export type Answering = <R extends Route>(route: R, handler: Handler<R>) => void;

const NOTHING = z.object({});

/** Lets a router answer routes of the table: requests are read, and answers sent, as the table says. */
export function answeringOn(router: Router): Answering {
  return (route, handler) => {
    router[route.method](expressPath(route), async (request, response) => {
      const given = await handler({
        path: readPath(request),
        query: parseRequest(route.query ?? NOTHING, request.query),
        body:
          route.body === undefined || route.body instanceof Bytes
            ? undefined
            : parseRequest(route.body, request.body),
        request,
        response,
        signal: abortOnDisconnect(response),
      } as Asked<typeof route>);
      await answer(route, response, given);
    });
  };
}

/** The address of a route as Express writes it. */
export function expressPath({ path }: Route): string {
  return path.replaceAll(/\{(\w+)\}/g, ':$1');
}

/** What is named in an address and cannot be there is not there. Throws ApiError. */
function readPath({ params }: Request): Record<string, unknown> {
  return Object.fromEntries(
    Object.entries(params).map(([name, text]) => {
      const { data, error } = pathParts[name as keyof typeof pathParts].safeParse(text);
      if (error) throw new ApiError(404, 'Not found', notOne(name, String(text), error));
      return [name, data];
    }),
  );
}

/** Words for a part of an address that does not fit; what there is of a few is said. */
function notOne(name: string, text: string, { issues: [issue] }: z.ZodError): string {
  const what = name.replaceAll(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);
  const known =
    issue.code === 'invalid_value' ? `there are ${issue.values.join(', ')}` : 'it would be a number';
  return `“${text}” is no ${what} that there is; ${known}.`;
}

async function answer(route: Route, response: Response, given: unknown): Promise<void> {
  if (route.answer instanceof Events) return;
  if (route.answer instanceof Bytes) return send(response, route.answer.types[0], given as Sendable);
  response.status(route.status ?? (route.answer ? 200 : 204));
  if (route.answer) response.json(given);
  else response.end();
}
