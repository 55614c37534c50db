import { inject, Injectable, signal } from '@angular/core';
import { Router } from '@angular/router';
import { Store } from '@ngrx/store';
import type { DraftRequest, RoutineDraft } from '@pebble/contract';
import { Api } from '../api/api';
import { WorkActions } from '../store/work.actions';

/** A routine that is being made or changed, on its way from where it was begun to where it is kept. */
export interface OpenDraft extends Pick<RoutineDraft, 'routine' | 'left'> {
  /** The kept routine whose place it takes; null for a new one. */
  readonly id: string | null;
  /** How many steps went along that nobody had chosen. */
  readonly along: number;
}

@Injectable({ providedIn: 'root' })
export class RoutineDrafts {
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  private readonly store = inject(Store);
  readonly open = signal<OpenDraft | null>(null);
  readonly isBusy = signal(false);

  /** Makes one of steps of a logbook, or of all that led to a plate, and shows it. */
  make(study: string, asked: DraftRequest): void {
    this.isBusy.set(true);
    this.api.draftRoutine({ study }, asked).subscribe({
      next: ({ routine, along, left }) => {
        this.isBusy.set(false);
        this.open.set({ routine, left, id: null, along: along.length });
        void this.router.navigate(['/studies', study, 'logbook', 'routines']);
      },
      error: (error: Error) => {
        this.isBusy.set(false);
        this.store.dispatch(WorkActions.failed({ message: error.message }));
      },
    });
  }
}
