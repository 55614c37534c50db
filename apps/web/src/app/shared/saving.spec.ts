import { TestBed } from '@angular/core/testing';
import { of, Subject, throwError } from 'rxjs';
import { Api } from '../api/api';
import { exampleStep } from '../../testing/examples';
import * as files from './save-file';
import { saving } from './saving';

describe('a file that the server makes', () => {
  const step = jest.fn(() => of(exampleStep()));
  const out = {
    study: 's',
    kind: 'export-network',
    parameters: { network: 'n', format: 'gml', allowed: null },
    name: 'Map.zip',
    type: 'application/zip',
  } as const;
  const begin = () => TestBed.runInInjectionContext(() => saving());
  let saved: jest.SpyInstance;

  beforeEach(() => {
    step.mockClear();
    saved = jest.spyOn(files, 'saveFile').mockImplementation();
    TestBed.configureTestingModule({ providers: [{ provide: Api, useValue: { step } }] });
  });
  afterEach(() => saved.mockRestore());

  it('is written down and saved once it is there', () => {
    const bytes = new Subject<ArrayBuffer>();
    const one = begin();
    const done = jest.fn();
    one.start(bytes, out, done);
    expect([one.busy(), step.mock.calls.length]).toEqual([true, 0]);
    bytes.next(new ArrayBuffer(3));
    expect(step).toHaveBeenCalledWith('s', 'export-network', out.parameters);
    expect(saved).toHaveBeenCalledWith(expect.any(Blob), 'Map.zip');
    expect([one.busy(), done.mock.calls.length]).toEqual([false, 1]);
  });

  it('that is stopped, or does not come, is neither', () => {
    const bytes = new Subject<ArrayBuffer>();
    const one = begin();
    one.start(bytes, out, jest.fn());
    one.stop();
    expect([one.busy(), bytes.observed]).toEqual([false, false]);
    one.start(
      throwError(() => new Error('The map was never arranged.')),
      out,
      jest.fn(),
    );
    expect([one.busy(), one.problem()]).toEqual([false, 'The map was never arranged.']);
    expect([step.mock.calls.length, saved.mock.calls.length]).toEqual([0, 0]);
  });
});
