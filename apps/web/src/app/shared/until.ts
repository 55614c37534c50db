import { effect, type Injector } from '@angular/core';

/** Waits until something that signals say holds; for ever where its place is left before. */
export function until(holds: () => boolean, injector: Injector): Promise<void> {
  return new Promise((resolve) => {
    const watching = effect(
      () => {
        if (!holds()) return;
        resolve();
        queueMicrotask(() => watching.destroy());
      },
      { injector },
    );
  });
}
