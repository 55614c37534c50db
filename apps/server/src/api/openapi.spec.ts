import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ROUTES, type Route } from '@pebble/contract';
import { PARTS } from '../app';
import { StudyFolders } from '../storage/studyFolders';
import { expressPath } from './answering';
import { openApiDocument } from './openapi';
import type { Services } from './services';

interface Parameter {
  readonly name: string;
  readonly in: string;
  readonly required?: boolean;
  readonly schema: Record<string, unknown>;
}
interface Operation {
  readonly operationId: string;
  readonly parameters: readonly Parameter[];
  readonly requestBody?: { readonly content: object };
  readonly responses: Record<string, { readonly content?: object }>;
}
const { paths } = openApiDocument() as { paths: Record<string, Record<string, Operation>> };

describe('the API', () => {
  it('answers every route of the table, once, and no other', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'pebble-'));
    const studies = await StudyFolders.open(folder);
    const services = { studies, config: {}, runner: {}, collector: {} } as unknown as Services;
    const there = PARTS.flatMap((part) =>
      part(services).stack.flatMap(({ route }) =>
        route ? route.stack.map(({ method }) => `${method} ${route.path}`) : [],
      ),
    );
    await studies.close();
    rmSync(folder, { recursive: true });
    const table = Object.values(ROUTES).map((route: Route) => `${route.method} ${expressPath(route)}`);
    expect(there.sort()).toEqual(table.sort());
  });

  it('is described with every part of its questions', () => {
    const { get } = paths['/studies/{study}/networks/{network}/evidence'];
    const named = get.parameters.map(({ name, in: place, required }) => [name, place, required]);
    expect(named.slice(0, 3)).toEqual([
      ['study', 'path', true],
      ['network', 'path', true],
      ['node', 'query', false],
    ]);
    const offset = get.parameters.find(({ name }) => name === 'offset');
    expect(offset?.schema).toMatchObject({ type: 'integer', minimum: 0, default: 0 });
    const portraits = paths['/studies/{study}/networks/{network}/portraits'].get;
    expect(portraits.parameters.find(({ name }) => name === 'column')?.required).toBe(true);
    const saved = paths['/studies/{study}/export/messages.{dataFormat}'].get;
    expect(saved.parameters.map(({ name }) => name)).toContain('hashtag');
    expect(saved.parameters.find(({ name }) => name === 'dataFormat')?.schema['enum']).toEqual([
      'csv',
      'jsonl',
    ]);
  });

  it('is described with what is sent, what comes back, and what can be wrong', () => {
    const { post } = paths['/studies/{study}/uploads'];
    expect(post.parameters.map(({ name }) => name)).toEqual(['study', 'x-file-name']);
    expect(Object.keys(post.requestBody!.content)).toEqual(['application/octet-stream']);
    expect(Object.keys(post.responses)).toEqual(['201', '413', '422', 'default']);
    const dropped = paths['/studies/{study}/uploads/{upload}'].delete;
    expect(dropped.responses['204'].content).toBeUndefined();
    const events = paths['/studies/{study}/events'].get;
    expect(Object.keys(events.responses['200'].content!)).toEqual(['text/event-stream']);
  });
});
