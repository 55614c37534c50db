import { computed, inject, type Signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { Store } from '@ngrx/store';
import { STEP_TRAITS, type Step } from '@pebble/contract';
import { debounceTime, type Observable } from 'rxjs';
import { asking } from '../../shared/asking';
import { doneSteps } from '../../shared/done-steps';
import { lastRead } from '../../shared/last-read';
import { work } from '../../store/work.reducer';

/** Milliseconds without a further change after which it is looked what would go out. */
const REST = 500;

/**
 * What would go out by what is chosen, looked at once nobody changes it any more, and whether it can be saved as it is chosen now. It is looked
 * at again when a step has changed what could go out, as portraits that come late; what was found before stands until then. Where fields are
 * made.
 * @param query null where there is nothing to look at
 */
export function checking<Q, A extends { readonly problem: string | null }>(
  query: Signal<Q | null>,
  read: (query: Q) => Observable<A>,
) {
  const steps = inject(Store).selectSignal(work.selectSteps);
  const asked = computed(() => {
    const now = query();
    return now === null ? null : { query: now, changes: doneSteps(steps(), isOfContents) };
  });
  const settled = toSignal(toObservable(asked).pipe(debounceTime(REST)), { initialValue: null });
  const { found: now, error, isBusy } = asking(settled, ({ query: of }) => read(of));
  const found = lastRead<A>(() => settled()?.query ?? null, now);
  const canSave = computed(() => now()?.problem === null && settled() === asked());
  return { found, error, isBusy, canSave };
}

/** Whether a step changes what maps, reports and packages hold. */
function isOfContents({ kind }: Step): boolean {
  return STEP_TRAITS[kind].changes.some((part) => part !== 'study');
}
