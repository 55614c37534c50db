import { linkedSignal, type Signal } from '@angular/core';

/** The answer that came last about the same thing, which stands while it is asked for anew; null before there was one. */
export function lastRead<A>(about: () => unknown, found: Signal<A | null>): Signal<A | null> {
  return linkedSignal<{ about: unknown; found: A | null }, A | null>({
    source: () => ({ about: about(), found: found() }),
    computation: (now, before) =>
      now.found ?? (before && before.source.about === now.about ? before.value : null),
  }).asReadonly();
}
