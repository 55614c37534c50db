import { setupZonelessTestEnv } from 'jest-preset-angular/setup-env/zoneless';

setupZonelessTestEnv();

/** jsdom knows no media queries: a screen that prefers nothing. */
globalThis.matchMedia ??= (media) => ({ media, matches: false }) as MediaQueryList;

// The document of these tests has no sizes, and nothing that tells when they change.
globalThis.ResizeObserver ??= class {
  observe(): void {}
  unobserve(): void {}
  disconnect(): void {}
};
