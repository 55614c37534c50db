import { inject, Injector } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { NavigationEnd, Router } from '@angular/router';
import { filter } from 'rxjs';
import { focusSoon } from '../shared/focus';

/** Milliseconds for which a heading is waited for that comes with what is read. */
const PATIENCE = 15_000;
/** The screen that an address leads to: the same for all networks of a study. */
const screenOf = (address: string): string => address.split('?')[0].split('/').slice(0, 4).join('/');

/** What was pressed to get to another screen is often gone with the one before: the focus goes to where that one begins. */
export function focusOnArrival(): void {
  const router = inject(Router);
  const injector = inject(Injector);
  let before: string | null = null;
  const arrive = (): void => {
    const main = document.querySelector('main');
    const heading = main?.querySelector('h1') ?? null;
    focusSoon(injector, () => heading ?? main);
    if (!heading && main) waitFor(main, performance.now() + PATIENCE);
  };
  /** The heading may come later than the screen; whoever has gone on meanwhile is left where they are. */
  const waitFor = (main: HTMLElement, until: number): void => {
    requestAnimationFrame((now) => {
      const isHere = document.activeElement === main || document.activeElement === document.body;
      if (!isHere || now > until) return;
      const heading = main.querySelector('h1');
      if (heading) focusSoon(injector, () => heading);
      else waitFor(main, until);
    });
  };
  router.events
    .pipe(
      filter((event) => event instanceof NavigationEnd),
      takeUntilDestroyed(),
    )
    .subscribe(({ urlAfterRedirects }) => {
      const now = screenOf(urlAfterRedirects);
      const isFirst = before === null;
      if (now === before) return;
      before = now;
      // A page that was just opened begins where the browser has it begin.
      if (!isFirst) requestAnimationFrame(arrive);
    });
}
