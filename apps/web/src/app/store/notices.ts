import { inject, Injectable } from '@angular/core';
import { MatSnackBar } from '@angular/material/snack-bar';
import { Store, type Action } from '@ngrx/store';

/** Short notices at the foot of the screen, some with an undo. */
@Injectable({ providedIn: 'root' })
export class Notices {
  private readonly bar = inject(MatSnackBar);
  private readonly store = inject(Store);

  say(message: string): void {
    this.bar.open(message, 'Close', { duration: 6000 });
  }

  /** Stays until it is acted on. */
  withReload(message: string): void {
    this.bar
      .open(message, 'Reload')
      .onAction()
      .subscribe(() => location.reload());
  }

  /** @param undo an action of the store, or what takes it back */
  withUndo(message: string, undo: Action | (() => void)): void {
    this.bar
      .open(message, 'Undo', { duration: 15_000 })
      .onAction()
      .subscribe(() => (typeof undo === 'function' ? undo() : this.store.dispatch(undo)));
  }
}
