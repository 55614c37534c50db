import { VERSION } from '../version';
import { API, Bytes, Events, pathParts, Problem, ROUTES, type PathPart, type Route } from '@pebble/contract';
import * as z from 'zod';

type Json = Record<string, unknown>;

const schemaOf = (type: z.ZodType, io: 'input' | 'output'): Json =>
  z.toJSONSchema(type, { io, unrepresentable: 'any' });

/** The API as an OpenAPI 3.1 document, made from the table of routes. */
export function openApiDocument(): Json {
  const paths: Record<string, Json> = {
    '/health': {
      get: {
        operationId: 'health',
        summary: 'Answers when the application is ready.',
        security: [],
        responses: { 200: { description: 'It is ready.' } },
      },
    },
    '/openapi.json': {
      get: {
        operationId: 'description',
        summary: 'This description.',
        responses: { 200: { description: 'An OpenAPI document.', content: { 'application/json': {} } } },
      },
    },
  };
  for (const [name, route] of Object.entries(ROUTES as Readonly<Record<string, Route>>))
    (paths[route.path] ??= {})[route.method] = {
      operationId: name,
      summary: route.summary,
      parameters: [...pathParameters(route), ...queryParameters(route), ...fileNameOf(route)],
      ...(route.body ? { requestBody: { required: true, content: contentOf(route.body, 'input') } } : {}),
      responses: responsesOf(route),
    };
  return {
    openapi: '3.1.0',
    info: {
      title: 'Pebble Thread',
      version: VERSION,
      description: 'Networks of conversations, with the messages behind every tie.',
    },
    servers: [{ url: API }],
    // The key stands in the file access-token of the data folder.
    components: {
      securitySchemes: { key: { type: 'http', scheme: 'bearer' } },
      schemas: { Problem: schemaOf(Problem, 'output') },
      responses: { Problem: { description: 'An error, by RFC 9457.', content: problemContent() } },
    },
    security: [{ key: [] }],
    paths,
  };
}

function pathParameters({ path }: Route): Json[] {
  return [...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => ({
    name,
    in: 'path',
    required: true,
    schema: schemaOf(pathParts[name as PathPart], 'output'),
  }));
}

/** What is read from text has the type that it is read as; what has a default need not be there. */
function queryParameters({ query }: Route): Json[] {
  if (!query) return [];
  const { properties } = schemaOf(query, 'output') as { properties: Json };
  return Object.entries(query.shape).map(([name, type]) => ({
    name,
    in: 'query',
    required: !(type as z.ZodType).safeParse(undefined).success,
    schema: properties[name],
  }));
}

function fileNameOf({ body }: Route): Json[] {
  if (!(body instanceof Bytes)) return [];
  return [
    {
      name: 'x-file-name',
      in: 'header',
      description: 'The name of the file, percent-encoded.',
      schema: { type: 'string' },
    },
  ];
}

function contentOf(what: z.ZodType | Bytes | Events, io: 'input' | 'output'): Json {
  if (what instanceof Bytes) return Object.fromEntries(what.types.map((type) => [type, {}]));
  if (what instanceof Events) return { 'text/event-stream': { schema: schemaOf(what.event, io) } };
  return { 'application/json': { schema: schemaOf(what, io) } };
}

function responsesOf({ answer, status, problems }: Route): Json {
  const done = {
    description: 'Done.',
    ...(answer ? { content: contentOf(answer, 'output') } : {}),
  };
  const wrong = Object.entries(problems ?? {}).map(([code, description]) => [
    code,
    { description, content: problemContent() },
  ]);
  return {
    [status ?? (answer ? 200 : 204)]: done,
    ...(Object.fromEntries(wrong) as Json),
    default: { $ref: '#/components/responses/Problem' },
  };
}

function problemContent(): Json {
  return { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } };
}
