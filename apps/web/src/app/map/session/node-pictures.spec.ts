import { TestBed } from '@angular/core/testing';
import type { NodePicture } from '@pebble/contract';
import { of, throwError } from 'rxjs';
import { Api } from '../../api/api';
import { NodePictures } from './node-pictures';

const image = 'data:image/jpeg;base64,AAAA';

describe('NodePictures', () => {
  let kept: NodePicture[] = [];
  const api = {
    pictures: jest.fn((_path: { study: string }) => of([...kept])),
    sendBytes: jest.fn((_path: { study: string }, _sent: { bytes: ArrayBuffer }) => of({ id: 'upload' })),
    step: jest.fn((_study: string, _kind: string, _parameters: object) =>
      of({ state: 'done', error: null as string | null }),
    ),
  };
  let pictures: NodePictures;

  beforeEach(() => {
    kept = [{ name: 'ann', image }];
    for (const one of Object.values(api)) one.mockClear();
    TestBed.configureTestingModule({ providers: [{ provide: Api, useValue: api }] });
    pictures = TestBed.inject(NodePictures);
  });

  it('are read once for a study, and anew for another', async () => {
    await pictures.open('a');
    await pictures.open('a');
    expect(api.pictures).toHaveBeenCalledTimes(1);
    expect(pictures.list()).toEqual(kept);
    kept = [];
    await pictures.open('b');
    expect(pictures.list()).toEqual([]);
  });

  it('are asked for again after they could not be read', async () => {
    api.pictures.mockReturnValueOnce(throwError(() => new Error('The server does not answer.')));
    await pictures.open('a');
    expect(pictures.list()).toEqual([]);
    await pictures.open('a');
    expect(pictures.list()).toEqual(kept);
  });

  it('are sent as one file, and read anew', async () => {
    const more = [{ name: 'ü', image }];
    kept = [...kept, ...more];
    await pictures.add('a', more);
    const sent = new TextDecoder().decode(api.sendBytes.mock.calls[0][1].bytes);
    expect(JSON.parse(sent)).toEqual(more);
    expect(api.step).toHaveBeenCalledWith('a', 'add-pictures', { upload: 'upload' });
    expect(pictures.list()).toEqual(kept);
  });

  it('stay as they were where a step is refused or cancelled', async () => {
    await pictures.open('a');
    api.step.mockReturnValueOnce(of({ state: 'failed', error: 'The disk is full.' }));
    await expect(pictures.add('a', [])).rejects.toThrow('The disk is full.');
    api.step.mockReturnValueOnce(of({ state: 'cancelled', error: null }));
    await expect(pictures.remove('a')).rejects.toThrow('It was cancelled.');
    expect(pictures.list()).toEqual(kept);
  });
});
