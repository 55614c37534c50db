import { afterNextRender, type Injector } from '@angular/core';

/** Moves the focus to a part of the screen that has just come, and is read out from there; it takes no place in the order of tabs. */
function focusOn(element: HTMLElement | null): void {
  if (!element) return;
  if (!element.hasAttribute('tabindex')) element.tabIndex = -1;
  element.focus({ preventScroll: true });
}

/** The same once the screen was drawn. */
export function focusSoon(injector: Injector, find: () => HTMLElement | null): void {
  afterNextRender({ read: () => focusOn(find()) }, { injector });
}
