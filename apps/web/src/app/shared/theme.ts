import { computed, effect, Injectable, signal } from '@angular/core';
import { NIGHT, PAPER } from '@pebble/core/first';

const KEY = 'pebble-theme';

/** Paper or night: the choice is kept in the browser; without one the system's is taken. */
@Injectable({ providedIn: 'root' })
export class ThemeChoice {
  readonly night = signal(this.startsWithNight());
  readonly map = computed(() => (this.night() ? NIGHT : PAPER));

  constructor() {
    effect(() => {
      document.documentElement.classList.toggle('night', this.night());
      localStorage.setItem(KEY, this.night() ? 'night' : 'paper');
    });
  }

  toggle(): void {
    this.night.update((night) => !night);
  }

  private startsWithNight(): boolean {
    const kept = localStorage.getItem(KEY);
    return kept ? kept === 'night' : matchMedia('(prefers-color-scheme: dark)').matches;
  }
}
