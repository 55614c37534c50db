import * as z from 'zod';
import { RunCommand } from '../collect';
import { TidySort } from '../tidy';
import { DataFormat } from '../dataExport';
import { FIGURE_FORMATS } from '../figure';
import { NetworkExport, NetworkTable } from '../network';
import { REPORT_FORMATS } from '../report';

/** What stands in the addresses, by the name that it has in their templates. */
export const pathParts = {
  study: z.string(),
  network: z.string(),
  upload: z.string(),
  run: z.string(),
  sample: z.coerce.number().int(),
  plate: z.coerce.number().int(),
  step: z.coerce.number().int(),
  message: z.coerce.number().int(),
  reading: z.coerce.number().int(),
  routine: z.string(),
  routineRun: z.coerce.number().int(),
  standing: z.coerce.number().int(),
  community: z.coerce.number().int(),
  sort: TidySort,
  command: RunCommand,
  table: NetworkTable,
  networkFormat: NetworkExport,
  dataFormat: DataFormat,
  figureFormat: z.enum(FIGURE_FORMATS),
  reportFormat: z.enum(REPORT_FORMATS),
} as const;
export type PathPart = keyof typeof pathParts;

/** Bytes as they are, of these media types. */
export class Bytes {
  constructor(readonly types: readonly string[]) {}
}

/** Server-sent events, each the JSON of one of these. */
export class Events<E extends z.ZodType = z.ZodType> {
  constructor(readonly event: E) {}
}

export type Method = 'get' | 'post' | 'patch' | 'delete';

/** One thing that can be asked of the API: the server, the interface and the description of the API (OpenAPI) are made from it. */
export interface Route {
  readonly method: Method;
  /** A URI template (RFC 6570) under the address of the API; each name in it is one of `pathParts`. */
  readonly path: string;
  /** One sentence for whoever reads the description. */
  readonly summary: string;
  /** What stands behind the "?", as one flat object. */
  readonly query?: z.ZodObject;
  /** What is sent: JSON, or bytes as they are with their name percent-encoded in the header x-file-name. */
  readonly body?: z.ZodType | Bytes;
  /** What comes back; nothing where it is left out. */
  readonly answer?: z.ZodType | Bytes | Events;
  /** 200 where it is left out and something comes back, 204 where nothing does. */
  readonly status?: 201 | 202;
  /** What can be wrong beside a request that does not fit (400), no key (401), and what is not there (404); each with its reason. */
  readonly problems?: Readonly<Record<number, string>>;
}

/** Keeps the exact types of a table of routes, and has the compiler check them. */
export const routeTable = <const T extends Readonly<Record<string, Route>>>(table: T): T => table;

type NamesIn<P extends string> = P extends `${string}{${infer N}}${infer Rest}` ? N | NamesIn<Rest> : never;

/** What stands in the address of a route, read. */
export type PathOf<R extends Route> = {
  readonly [N in NamesIn<R['path']> & PathPart]: z.output<(typeof pathParts)[N]>;
};

/** What stands behind the "?" of a route, read. */
export type QueryOf<R extends Route> = R extends { readonly query: infer Q extends z.ZodType }
  ? z.output<Q>
  : undefined;

/** What is sent to a route, read; bytes are not read. */
export type BodyOf<R extends Route> = R extends { readonly body: infer B extends z.ZodType }
  ? z.output<B>
  : undefined;

/** What is sent to a route, as it is written: what has a default may be left out. */
export type WrittenBodyOf<R extends Route> = R extends { readonly body: infer B extends z.ZodType }
  ? z.input<B>
  : undefined;

/** What a route answers; for an answer without content, nothing. */
export type AnswerOf<R extends Route> = R extends { readonly answer: infer A }
  ? A extends z.ZodType
    ? z.output<A>
    : A extends Bytes
      ? ArrayBuffer
      : never
  : void;
