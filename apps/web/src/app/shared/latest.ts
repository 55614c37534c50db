import type { Signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { catchError, of, switchMap, type Observable } from 'rxjs';

/**
 * The answer to what is asked now: asked anew whenever that changes, an answer to an older question is let go. Null before the first answer
 * and where it failed.
 */
export function latest<Q, A>(asked: Signal<Q>, read: (question: Q) => Observable<A>): Signal<A | null> {
  const answers = toObservable(asked).pipe(
    switchMap((question) => read(question).pipe(catchError(() => of(null)))),
  );
  return toSignal(answers, { initialValue: null });
}
