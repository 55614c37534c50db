import { RASTER_FROM, TieRaster, type Scene } from '@pebble/core';
import { pictureWorker } from '../workers/picture-worker';
import { TiePicture } from './tie-picture';
import type { RowsPainted, RowsWanted } from '../workers/tie-picture.worker';

jest.mock('../workers/picture-worker', () => ({ pictureWorker: jest.fn() }));

class FakeWorker {
  readonly asked: (RowsWanted | null)[] = [];
  onmessage: (message: { data: RowsPainted }) => void = () => undefined;
  terminate = jest.fn();
  postMessage(wanted: RowsWanted | null): void {
    this.asked.push(wanted);
  }
  /** Paints what was asked for last. */
  answer(): void {
    const { id, scene, ratio, from, until } = this.asked.findLast((one) => one !== null)!;
    const { width, height, rgba } = new TieRaster().paint(scene, ratio, { from, until });
    this.onmessage({ data: { id, from, width, height, rgba } });
  }
}

/** A scene of so many short lines. */
function sceneOf(ties: number): Scene {
  const points = new Float32Array(4 * ties);
  for (let i = 0; i < ties; i++) points.set([i % 60, i % 35, (i % 60) + 4, (i % 35) + 1], 4 * i);
  const lines = [{ stroke: '#1F6F78', alpha: 0.5, width: 1, points }];
  return { width: 64, height: 40, lines, curves: [] } as unknown as Scene;
}

describe('TiePicture', () => {
  let workers: FakeWorker[] = [];
  const put = jest.fn();
  const rest = (): void => void jest.advanceTimersByTime(1000);

  beforeEach(() => {
    jest.useFakeTimers();
    workers = [];
    put.mockReset();
    jest.mocked(pictureWorker).mockImplementation(() => {
      const worker = new FakeWorker();
      workers.push(worker);
      return worker as unknown as Worker;
    });
    // jsdom has neither.
    jest
      .spyOn(HTMLCanvasElement.prototype, 'getContext')
      .mockReturnValue({ putImageData: put } as unknown as never);
    Object.assign(globalThis, {
      ImageData: class {
        constructor(
          readonly data: Uint8ClampedArray,
          readonly width: number,
          readonly height: number,
        ) {}
      },
    });
  });
  afterEach(() => {
    jest.useRealTimers();
    jest.restoreAllMocks();
  });

  it('leaves few ties to the canvas', () => {
    expect(new TiePicture().quick(sceneOf(RASTER_FROM - 1), 1)).toBeNull();
  });

  it('is coarse at once', () => {
    const picture = new TiePicture().quick(sceneOf(RASTER_FROM), 1) as HTMLCanvasElement;
    expect([picture.width, picture.height]).toEqual([32, 20]);
    expect(put).toHaveBeenCalledTimes(1);
  });

  it('is sharp when all workers have painted their rows', () => {
    const picture = new TiePicture();
    const scene = sceneOf(RASTER_FROM);
    const done = jest.fn();
    picture.quick(scene, 1);
    picture.sharpen(scene, 1, done);
    rest();
    const asked = workers.map((worker) => worker.asked.at(-1)!);
    expect(asked.map(({ from, until }) => [from, until])).toEqual([
      [0, 20],
      [20, 40],
    ]);
    put.mockClear();
    workers[1].answer();
    expect(done).not.toHaveBeenCalled();
    workers[0].answer();
    expect(done).toHaveBeenCalledTimes(1);
    expect(put.mock.calls.map(([image, , top]) => [image.height, top])).toEqual([
      [20, 20],
      [20, 0],
    ]);
  });

  it('is not made sharp once another scene was asked for, and what is being done is ended', () => {
    const picture = new TiePicture();
    const scene = sceneOf(RASTER_FROM);
    const done = jest.fn();
    picture.sharpen(scene, 1, done);
    picture.stop();
    rest();
    expect(workers).toHaveLength(0);
    picture.sharpen(scene, 1, done);
    rest();
    picture.quick(scene, 1);
    expect(workers[0].asked.at(-1)).toBeNull();
    workers.forEach((worker) => worker.answer());
    expect(done).not.toHaveBeenCalled();
    picture.close();
    expect(workers[0].terminate).toHaveBeenCalled();
  });
});
