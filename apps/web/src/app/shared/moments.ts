import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { Store } from '@ngrx/store';
import type { Moment, Step } from '@pebble/contract';
import { Api } from '../api/api';
import { work } from '../store/work.reducer';
import { stepRun } from './step-run';
import { doneSteps } from './done-steps';

/** What the researcher marked in the time of the open study; it stands on every axis of time. */
@Injectable({ providedIn: 'root' })
export class Moments {
  private readonly api = inject(Api);
  private readonly store = inject(Store);
  private readonly study = this.store.selectSignal(work.selectStudy);
  private readonly steps = this.store.selectSignal(work.selectSteps);
  /** How many steps changed them, wherever they were asked for. */
  private readonly changed = computed(() => doneSteps(this.steps(), isOfMoments));
  private readonly found = signal<readonly Moment[]>([]);
  readonly all = this.found.asReadonly();
  readonly changing = stepRun();

  constructor() {
    effect((onCleanup) => {
      const study = this.study()?.id;
      this.changed();
      if (study === undefined) {
        this.found.set([]);
        return;
      }
      const reading = untracked(() =>
        this.api.moments({ study }).subscribe({
          next: (moments) => this.found.set(moments),
          // Charts are read without them.
          error: () => this.found.set([]),
        }),
      );
      onCleanup(() => reading.unsubscribe());
    });
  }

  /** @param time milliseconds since 1970 */
  mark(time: number, name: string): void {
    const study = this.study()?.id;
    if (study !== undefined)
      this.changing.start(study, 'mark-moment', { time, name }, () => this.readAgain(study));
  }

  forget({ id, name }: Moment): void {
    const study = this.study()?.id;
    if (study !== undefined)
      this.changing.start(study, 'forget-moment', { id, name }, () => this.readAgain(study));
  }

  private readAgain(study: string): void {
    this.api.moments({ study }).subscribe((moments) => this.found.set(moments));
  }
}

function isOfMoments({ kind }: Step): boolean {
  return kind === 'mark-moment' || kind === 'forget-moment';
}
