import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PARTS } from '../app';
import { openStore } from '../db/open';
import { openApiDocument } from './openapi';
import type { Services } from './services';

it('the API describes every address that it has, and no other', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'pebble-'));
  const store = await openStore(folder);
  const there = PARTS.flatMap((part) =>
    part({ store, config: {}, runner: {}, collector: {} } as unknown as Services).stack.flatMap(
      ({ route }) =>
        route ? route.stack.map(({ method }) => `${method} ${route.path.replace(/:([a-z]+)/g, '{$1}')}`) : [],
    ),
  );
  const { paths } = openApiDocument() as { paths: Record<string, object> };
  const described = Object.entries(paths).flatMap(([path, methods]) =>
    Object.keys(methods).map((method) => `${method} ${path}`),
  );
  await store.close();
  rmSync(folder, { recursive: true });
  expect(described.filter((one) => one !== 'get /health').sort()).toEqual([...new Set(there)].sort());
});
