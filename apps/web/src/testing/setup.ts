import { setupZonelessTestEnv } from 'jest-preset-angular/setup-env/zoneless';

setupZonelessTestEnv();

/** jsdom knows no media queries: a screen that prefers nothing. */
globalThis.matchMedia ??= (media) => ({ media, matches: false }) as MediaQueryList;
