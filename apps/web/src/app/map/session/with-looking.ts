import type { MapDescription } from '@pebble/contract';
import type { Focus, Size, View } from '@pebble/core';
import { patchState, signalStoreFeature, withMethods, withState } from '@ngrx/signals';

/** A part of the time: from one moment on and before another; null for no bound. */
export type Period = NonNullable<MapDescription['show']['period']>;

export interface Looking {
  /** Where the reader looks; null until the map was fitted. */
  readonly view: View | null;
  /** Whether the whole map is kept in view: until the reader moves it, also where its room becomes another. */
  readonly isFitted: boolean;
  readonly size: Size;
  /** Whether the next line that is drawn on the map stays there. */
  readonly isDrawing: boolean;
  /** A period that is only looked at, above the one of the description: while it is played or drawn. */
  readonly passing: Period | null;
  /** What a panel shows on the map, above what is selected. */
  readonly emphasis: Focus | null;
}

const FROM_AFAR = { view: null, isFitted: true, isDrawing: false, passing: null, emphasis: null } as const;

/** How the map is looked at; nothing of it is kept. */
export function withLooking() {
  return signalStoreFeature(
    withState<Looking>({ ...FROM_AFAR, size: { width: 900, height: 620 } }),
    withMethods((store) => ({
      lookAt: (view: View | null): void => patchState(store, { view }),
      keepFitted: (isFitted: boolean): void => patchState(store, { isFitted }),
      resize: (size: Size): void => patchState(store, { size }),
      beginDrawing: (): void => patchState(store, { isDrawing: true }),
      endDrawing: (): void => patchState(store, { isDrawing: false }),
      passTo: (passing: Period | null): void => patchState(store, { passing }),
      emphasise: (emphasis: Focus | null): void => patchState(store, { emphasis }),
      _lookAway: (): void => patchState(store, FROM_AFAR),
    })),
  );
}
