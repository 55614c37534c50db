import type { Legibility } from '@pebble/core';
import type { LegibilityRequest } from './legibility.worker';

/** Reads in the background how well a picture can be read, one at a time. */
export class LegibilityReader {
  private worker: Worker | null = null;
  private answer: ((figures: Legibility | null) => void) | null = null;

  /** Ends the reading before; null when this one was ended itself. */
  read(request: LegibilityRequest): Promise<Legibility | null> {
    this.stop();
    const worker = new Worker(new URL('./legibility.worker', import.meta.url), { type: 'module' });
    this.worker = worker;
    return new Promise((resolve) => {
      this.answer = resolve;
      worker.onmessage = ({ data }: MessageEvent<Legibility>) => {
        this.answer = null;
        this.stop();
        resolve(data);
      };
      worker.onerror = () => this.stop();
      worker.postMessage(request);
    });
  }

  stop(): void {
    this.worker?.terminate();
    this.worker = null;
    this.answer?.(null);
    this.answer = null;
  }
}
