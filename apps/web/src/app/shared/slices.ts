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
