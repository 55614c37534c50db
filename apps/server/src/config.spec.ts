import { homedir } from 'node:os';
import { join } from 'node:path';
import { ZodError } from 'zod';
import { readConfig } from './config';
import { networkPath, skippedPath, uploadPath } from './files/places';
import { stepDefinition } from './operations';
import { StepCancelled, StepRefused } from './errors/stepErrors';
import { StepKind } from '@pebble/contract';

describe('the settings', () => {
  it('listen on this machine only, and keep data in the home folder, where nothing else is said', () => {
    expect(readConfig({}, null)).toMatchObject({
      host: '127.0.0.1',
      port: 4620,
      standinsPort: 4621,
      dataFolder: join(homedir(), '.pebble-thread'),
    });
  });

  it('come from the environment', () => {
    expect(readConfig({ PORT: '5000', PEBBLE_DATA: '/data', PEBBLE_HOST: '::1' }, '/web')).toMatchObject({
      host: '::1',
      port: 5000,
      dataFolder: '/data',
      webFolder: '/web',
    });
  });

  it.each(['0.0.0.0', '192.168.0.2', '::', 'example.org', ''])(
    'never listen to a network (%s)',
    (address) => {
      expect(() => readConfig({ PEBBLE_HOST: address }, null)).toThrow('an address of this machine alone');
    },
  );

  it.each(['abc', '-1', '70000', '1.5'])('refuse the port %s with a sentence', (PORT) => {
    expect(() => readConfig({ PORT }, null)).toThrow(`PORT must be a number from 0 to 65535, not “${PORT}”.`);
  });
});

describe('places in the data folder', () => {
  const id = '0a1b2c3d-0a1b-4c3d-8e5f-0a1b2c3d4e5f';

  it('are made from ids', () => {
    expect(uploadPath('/d', id)).toBe(join('/d', 'uploads', id));
    expect(networkPath('/d', id, 'edges')).toBe(join('/d', 'networks', id, 'edges.arrow'));
    expect(skippedPath('/d', 7)).toBe(join('/d', 'uploads', 'skipped-7.csv'));
  });

  it.each(['../../etc/passwd', 'a/b', '', 'ABCDEF12', `${id}/..`])('are never made from “%s”', (name) => {
    expect(() => uploadPath('/d', name)).toThrow('not an id');
  });
});

describe('every kind of step', () => {
  it.each(StepKind.options)('%s has a definition of its own', (kind) => {
    expect(stepDefinition(kind).kind).toBe(kind);
  });

  it('says what it was about to do while there is no result', () => {
    const reading = { columns: [] } as never;
    const file = { upload: 'u', file: 'a.csv', name: 'a', reading, more: [] };
    expect(stepDefinition('import-source').describe(file as never, null)).toBe(
      'Messages were to be imported from a.csv.',
    );
    expect(stepDefinition('import-network').describe(file as never, null)).toBe(
      'A network was to be taken from a.csv.',
    );
    const source = { source: 1, name: 'a.csv' };
    expect(stepDefinition('restore-source').describe(source as never, null)).toBe(
      'The source a.csv was to be taken back.',
    );
  });

  it('says in a sentence what it did, with counts', () => {
    const report = { nodes: 1200, edges: 5400, directed: true, skipped: 3 };
    expect(stepDefinition('import-network').describe({ file: 'ties.csv' } as never, report)).toBe(
      'A network of 1,200 nodes and 5,400 directed ties was taken from ties.csv; 3 rows could not be read and were skipped.',
    );
    expect(stepDefinition('remove-source').describe({ source: 1, name: 'a.csv' }, { messages: 2000 })).toBe(
      'The source a.csv was taken out with its 2,000 messages; it can be taken back.',
    );
    expect(
      stepDefinition('restore-source').describe(
        { source: 1, name: 'a.csv' },
        {
          messages: 10,
          again: 2,
        },
      ),
    ).toBe(
      'The source a.csv was taken back with 10 messages; 2 of its messages have come again from another source and stay as they are there.',
    );
    const mail = { kept: 10, authors: 2, from: null, until: null, skipped: 1, duplicates: 1, unit: 'email' };
    expect(stepDefinition('import-source').describe({ file: 'a.mbox', more: [] } as never, mail)).toBe(
      '10 messages by 2 accounts were imported from a.mbox; 1 items could not be read and were skipped; 1 duplicates (same message id) were left out.',
    );
  });
});

it('errors of steps say what was kept', () => {
  expect(new StepCancelled().message).toContain('Nothing of this step was kept');
  expect(new StepRefused('No.', { file: 'a', row: 3 }).place).toEqual({ file: 'a', row: 3 });
  expect(new StepRefused('No.')).not.toBeInstanceOf(ZodError);
});
