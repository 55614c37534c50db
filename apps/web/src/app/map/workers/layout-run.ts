import type { LayoutFrame, LayoutProgress, LayoutRefusal, LayoutRequest } from './layout.worker';

/** What is told of a layout while it runs. */
interface LayoutCallbacks {
  /** How far one is that has nothing to show before it is done, 0 to 1. */
  readonly share: (share: number) => void;
  /** Places so far; with `done` it has ended by itself. */
  readonly frame: (frame: LayoutFrame) => void;
  /** It cannot be done, and why. */
  readonly refused: (reason: string) => void;
  /** It broke down. */
  readonly broke: (reason: string) => void;
}

/** One layout at a time in a web worker; after its end nothing more is told of it. */
export class LayoutRun {
  private worker: Worker | null = null;

  get isRunning(): boolean {
    return this.worker !== null;
  }

  start(request: LayoutRequest, ears: LayoutCallbacks): void {
    this.end();
    const worker = new Worker(new URL('./layout.worker', import.meta.url), { type: 'module' });
    this.worker = worker;
    worker.onmessage = ({ data }: MessageEvent<LayoutFrame | LayoutProgress | LayoutRefusal>) => {
      if (worker !== this.worker) return;
      if ('share' in data) ears.share(data.share);
      else if ('error' in data) ears.refused(data.error);
      else ears.frame(data);
    };
    worker.onerror = ({ message }) => ears.broke(message);
    worker.postMessage(request);
  }

  end(): void {
    this.worker?.terminate();
    this.worker = null;
  }
}
