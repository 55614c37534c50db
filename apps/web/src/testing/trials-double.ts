import { Injectable, signal } from '@angular/core';

/** Stands where tries of arrangements would run in a web worker, which the tests have not. */
@Injectable()
export class LayoutTrials {
  readonly trials = signal([]);
  readonly done = signal<number | null>(null);
  readonly start = jest.fn();
  readonly stop = jest.fn();
}
