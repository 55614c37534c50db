import { setupZonelessTestEnv } from 'jest-preset-angular/setup-env/zoneless';

setupZonelessTestEnv();

/** jsdom knows no media queries: a screen that prefers nothing. */
const { addEventListener, removeEventListener } = EventTarget.prototype;
globalThis.matchMedia ??= (media) =>
  Object.assign(Object.create({ addEventListener, removeEventListener }) as object, {
    media,
    matches: false,
    addListener: () => undefined,
    removeListener: () => undefined,
  }) as unknown as MediaQueryList;

// The document of these tests has no sizes, and nothing that tells when they change.
globalThis.ResizeObserver ??= class {
  observe(): void {}
  unobserve(): void {}
  disconnect(): void {}
};
