import * as z from 'zod';
import { addressOf, Bytes, EXPORT_ROUTES, pathParts, ROUTES, type Route } from '.';

const routes = Object.entries(ROUTES as Readonly<Record<string, Route>>);

describe('the table of routes', () => {
  it.each(routes)('%s names only parts of addresses that can be read', (_, { path }) => {
    const names = [...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => name ?? '');
    expect(names.filter((name) => !Object.hasOwn(pathParts, name))).toEqual([]);
  });

  it('has every address once for each method, and sends nothing along where nothing may be sent', () => {
    const addresses = routes.map(([, { method, path }]) => `${method} ${path}`);
    expect(new Set(addresses).size).toBe(addresses.length);
    const odd = routes.filter(
      ([, { method, query, body }]) => (method === 'get' && body) || (method !== 'get' && query),
    );
    expect(odd).toEqual([]);
  });

  it('takes no nested values behind the "?"', () => {
    const nested = routes.flatMap(([name, { query }]) =>
      Object.values(query?.shape ?? {})
        .map((type) => z.toJSONSchema(type as z.ZodType, { unrepresentable: 'any' }).type)
        .filter((type) => type === 'object' || type === 'array')
        .map(() => name),
    );
    expect(nested).toEqual([]);
  });

  it('gives files as bytes', () => {
    for (const route of Object.values(EXPORT_ROUTES)) expect(route.answer).toBeInstanceOf(Bytes);
  });
});

describe('an address', () => {
  it('is the template with its parts, each percent-encoded (RFC 6570, simple expansion)', () => {
    expect(addressOf(ROUTES.thread, { study: 'a', message: 7 })).toBe('/api/v1/studies/a/messages/7/thread');
    expect(addressOf(ROUTES.study, { study: 'a/b ü' })).toBe('/api/v1/studies/a%2Fb%20%C3%BC');
    expect(addressOf(ROUTES.table, { study: 'a', network: 'n', table: 'edges' })).toBe(
      '/api/v1/studies/a/networks/n/edges.arrow',
    );
  });

  it('has only the parts of its question that are set', () => {
    const asked = { text: 'lamp & “light”', author: '', kind: undefined, source: 0 };
    expect(addressOf(EXPORT_ROUTES.messages, { study: 'a', dataFormat: 'csv' }, asked)).toBe(
      '/api/v1/studies/a/export/messages.csv?text=lamp+%26+%E2%80%9Clight%E2%80%9D&source=0',
    );
    expect(addressOf(ROUTES.exportLogbook, { study: 'a', dataFormat: 'jsonl' }, {})).toBe(
      '/api/v1/studies/a/export/logbook.jsonl',
    );
  });
});
