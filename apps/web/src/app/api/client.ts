import { HttpClient, HttpHeaders, HttpParams } from '@angular/common/http';
import {
  addressOf,
  Bytes,
  ROUTES,
  type AnswerOf,
  type PathOf,
  type QueryOf,
  type Route,
  type WrittenBodyOf,
} from '@pebble/contract';
import { catchError, map, throwError, type Observable } from 'rxjs';
import { toProblem } from './problem';

/** Bytes on their way to the server, with the name of the file that they are, if they are one. */
interface SentBytes {
  readonly bytes: Blob | ArrayBuffer;
  readonly name?: string;
}

/** What is sent along with a question: what stands behind the "?", or a body. */
type SentOf<R extends Route> = R extends { readonly body: infer B }
  ? B extends Bytes
    ? SentBytes
    : WrittenBodyOf<R>
  : R extends { readonly query: object }
    ? Partial<QueryOf<R>>
    : undefined;

type ArgumentsOf<R extends Route> = [
  ...(keyof PathOf<R> extends never ? [] : [path: PathOf<R>]),
  ...(SentOf<R> extends undefined ? [] : [sent: SentOf<R>]),
];

/** The whole API, a method for each route of the table; every answer is checked against the contract. */
export type Client = {
  readonly [N in keyof typeof ROUTES]: (
    ...asked: ArgumentsOf<(typeof ROUTES)[N]>
  ) => Observable<AnswerOf<(typeof ROUTES)[N]>>;
};

/** The part of a schema that is needed here; asking for less than all of it keeps the compiler quick. */
interface Shape {
  parse(value: unknown): unknown;
}

export function clientOf(http: HttpClient): Client {
  const methods = Object.entries(ROUTES as Readonly<Record<string, Route>>).map(([name, route]) => {
    const isNamed = route.path.includes('{');
    const ask = (...given: unknown[]): Observable<unknown> => {
      const path = isNamed ? (given[0] as object) : {};
      return askRoute(http, route, path, given[isNamed ? 1 : 0]);
    };
    return [name, ask];
  });
  return Object.fromEntries(methods) as Client;
}

function askRoute(http: HttpClient, route: Route, path: object, sent: unknown): Observable<unknown> {
  const address = addressOf(route, path);
  const takesBytes = route.body instanceof Bytes;
  const options = {
    body: takesBytes ? (sent as SentBytes).bytes : route.body && sent,
    headers: takesBytes ? headersOf(sent as SentBytes) : new HttpHeaders(),
    params: route.query ? paramsOf(sent as object | undefined) : new HttpParams(),
  };
  if (route.answer instanceof Bytes)
    return asProblem(http.request(route.method, address, { ...options, responseType: 'arraybuffer' }));
  const shape = route.answer as Shape | undefined;
  return asProblem(http.request(route.method, address, options)).pipe(
    map((body) => (shape ? shape.parse(body) : undefined)),
  );
}

/** A name of any letters fits into a header percent-encoded. */
export function headersOf({ name }: SentBytes): HttpHeaders {
  const headers = new HttpHeaders({ 'content-type': 'application/octet-stream' });
  return name === undefined ? headers : headers.set('x-file-name', encodeURIComponent(name));
}

/** Only the parts that are set. */
function paramsOf(query: object = {}): HttpParams {
  let params = new HttpParams();
  for (const [name, value] of Object.entries(query) as [string, unknown][])
    if (value !== undefined && value !== null && value !== '') params = params.set(name, String(value));
  return params;
}

function asProblem<T>(answer: Observable<T>): Observable<T> {
  return answer.pipe(catchError((error: unknown) => throwError(() => toProblem(error))));
}
