import { computed, effect, signal, untracked, type Signal } from '@angular/core';
import type { Observable } from 'rxjs';

/** The answer to what is asked now, with what goes wrong and whether it is waited for. */
interface Asking<A> {
  /** Null until it is there, and where nothing is asked. */
  readonly found: Signal<A | null>;
  readonly error: Signal<string | null>;
  readonly isBusy: Signal<boolean>;
}

/**
 * Asks anew whenever what is asked changes: an answer to an older question is let go, and is not shown under the name of a newer one. Where
 * fields are made.
 * @param asked null where nothing is; told apart as JSON
 */
export function asking<Q, A>(asked: () => Q | null, read: (question: Q) => Observable<A>): Asking<A> {
  const found = signal<A | null>(null);
  const error = signal<string | null>(null);
  const isBusy = signal(false);
  // What is read anew elsewhere gives other objects that ask the same.
  const current = computed(asked, { equal: (a, b) => JSON.stringify(a) === JSON.stringify(b) });
  effect((onCleanup) => {
    const question = current();
    found.set(null);
    error.set(null);
    isBusy.set(question !== null);
    if (question === null) return;
    const reading = untracked(() => read(question)).subscribe({
      next: (answer) => {
        found.set(answer);
        isBusy.set(false);
      },
      error: (problem: Error) => {
        error.set(problem.message);
        isBusy.set(false);
      },
    });
    onCleanup(() => reading.unsubscribe());
  });
  return { found: found.asReadonly(), error: error.asReadonly(), isBusy: isBusy.asReadonly() };
}
