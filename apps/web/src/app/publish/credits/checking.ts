import { computed, type Signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { debounceTime, type Observable } from 'rxjs';
import { asking } from '../../shared/asking';

/** Milliseconds without a further change after which it is looked what would go out. */
const REST = 500;

/**
 * What would go out by what is chosen, looked at once nobody changes it any more, and whether it can be saved as it is chosen now. Where fields
 * are made.
 * @param query null where there is nothing to look at
 */
export function checking<Q, A extends { readonly problem: string | null }>(
  query: Signal<Q | null>,
  read: (query: Q) => Observable<A>,
) {
  const settled = toSignal(toObservable(query).pipe(debounceTime(REST)), { initialValue: null });
  const { found, error, isBusy } = asking(settled, read);
  const canSave = computed(() => found()?.problem === null && settled() === query());
  return { found, error, isBusy, canSave };
}
