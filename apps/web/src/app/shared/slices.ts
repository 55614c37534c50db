import type { Network } from '@pebble/contract';

/** The network that a slice is one of; a network is the whole of itself. */
export function wholeOf({ id, slice }: Network): string {
  return slice?.of ?? id;
}

/** The slices of a whole, in the order of time. */
export function slicesOf(networks: readonly Network[], whole: string): Network[] {
  return networks.filter(({ slice }) => slice?.of === whole).sort((a, b) => a.slice!.place - b.slice!.place);
}

/** Networks that stand for themselves: no slices, but for those whose whole is gone. */
export function wholesIn(networks: readonly Network[]): Network[] {
  const ids = new Set(networks.map(({ id }) => id));
  return networks.filter(({ slice }) => slice === null || !ids.has(slice.of));
}

/** The network whose map is gone to without saying which: the one that was open last, if it is still there, or else the newest. */
export function networkToOpen(networks: readonly Network[], open: string | null | undefined): Network | null {
  return networks.find(({ id }) => id === open) ?? wholesIn(networks).at(0) ?? null;
}

/** When slices begin, in their order, and when the last one ends, in milliseconds since 1970. */
export function timesOf(slices: readonly Network[]): {
  readonly starts: readonly number[];
  readonly end: number;
} {
  const bounds = slices.map(({ weave }) => (weave && 'from' in weave ? weave : { from: null, until: null }));
  return { starts: bounds.map(({ from }) => from ?? 0), end: bounds.at(-1)?.until ?? Infinity };
}
