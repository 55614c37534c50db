import { computed, effect, inject, untracked, type WritableSignal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { ActivatedRoute, Router } from '@angular/router';
import { nodeLabels } from '@pebble/core';
import type { DrawerTab } from './drawer/drawer-parts';
import { addressOfMap, askedByAddress, IN_ADDRESS, type MapAddress } from './map-address';
import { MapSession } from './session/map-session';

/**
 * Keeps what is open on the map in the address, so that back and forward go through it and a link shows somebody else the same.
 * @param panel what is open below the map
 */
export function keepInAddress(panel: WritableSignal<DrawerTab | null>): void {
  const route = inject(ActivatedRoute);
  const router = inject(Router);
  const session = inject(MapSession);
  const params = toSignal(route.queryParamMap, { requireSync: true });
  const names = computed(() => nodeLabels(session.data()?.nodes ?? { handle: [], name: [] }));
  /** The network for which the address was read. */
  let read: string | null = null;

  const isSaid = (address: MapAddress): boolean =>
    Object.entries(address).every(([name, value]) => untracked(params).get(name) === value);
  const write = (address: MapAddress, network: string, replaceUrl: boolean): void => {
    const commands = ['/studies', session.network()!.study, 'map', network];
    void router.navigate(commands, { queryParams: address, queryParamsHandling: 'merge', replaceUrl });
  };

  effect(() => {
    const asked = params();
    const network = session.network();
    if (!network || !session.data()) return;
    untracked(() => {
      const isFirst = read !== network.id;
      read = network.id;
      const now = addressOfMap(session.selection(), panel(), names());
      if (isSaid(now)) return;
      // Somebody comes back to a map by the rail: what was open is open still.
      if (isFirst && IN_ADDRESS.every((name) => !asked.has(name))) return write(now, network.id, true);
      const { selection, panel: tab } = askedByAddress(asked, names());
      session.select(selection);
      panel.set(tab);
    });
  });

  effect(() => {
    const now = addressOfMap(session.selection(), panel(), names());
    const network = session.network();
    if (!network || !session.data() || read !== network.id || isSaid(now)) return;
    untracked(() => write(now, network.id, false));
  });
}
