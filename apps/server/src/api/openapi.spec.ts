import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PARTS } from '../app';
import { StudyFolders } from '../storage/studyFolders';
import { openApiDocument } from './openapi';
import type { Services } from './services';

it('the API describes every address that it has, and no other', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'pebble-'));
  const studies = await StudyFolders.open(folder);
  const there = PARTS.flatMap((part) =>
    part({ studies, config: {}, runner: {}, collector: {} } as unknown as Services).stack.flatMap(
      ({ route }) =>
        route ? route.stack.map(({ method }) => `${method} ${route.path.replace(/:([a-z]+)/g, '{$1}')}`) : [],
    ),
  );
  const { paths } = openApiDocument() as { paths: Record<string, object> };
  const described = Object.entries(paths).flatMap(([path, methods]) =>
    Object.keys(methods).map((method) => `${method} ${path}`),
  );
  await studies.close();
  rmSync(folder, { recursive: true });
  expect(described.filter((one) => one !== 'get /health').sort()).toEqual([...new Set(there)].sort());
});
