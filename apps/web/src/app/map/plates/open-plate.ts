import { effect, inject, signal, untracked } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { ActivatedRoute, Router } from '@angular/router';
import type { PlateMap } from '@pebble/contract';
import { forkJoin } from 'rxjs';
import { Api } from '../../api/api';
import { Notices } from '../../store/notices';
import { MapSession } from '../session/map-session';
import { separate, type Places } from '../session/places';

/** Puts the map into the state of the plate that the address names, once its network is open; the address names it no longer then. */
export function openPlateOfAddress(): void {
  const route = inject(ActivatedRoute);
  const router = inject(Router);
  const session = inject(MapSession);
  const api = inject(Api);
  const notices = inject(Notices);
  const params = toSignal(route.queryParamMap, { requireSync: true });
  const place = toSignal(route.paramMap, { requireSync: true });

  /** Read, and laid under the map as soon as the address is that of the map alone. */
  const waiting = signal<{
    readonly network: string;
    readonly map: PlateMap;
    readonly places: Places;
  } | null>(null);

  effect((onCleanup) => {
    const plate = Number(params().get('plate') ?? NaN);
    const network = session.network();
    const isThere = network !== null && session.data() !== null && network.id === place().get('network');
    if (!Number.isInteger(plate) || !isThere) return;
    const at = { study: network.study, plate };
    const leaveAddress = (): void =>
      void router.navigate([], {
        relativeTo: route,
        queryParams: { plate: null },
        queryParamsHandling: 'merge',
        replaceUrl: true,
      });
    const reading = forkJoin([api.plateMap(at), api.platePositions(at)]).subscribe({
      next: ([map, bytes]) => {
        waiting.set({ network: network.id, map, places: separate(new Float32Array(bytes)) });
        leaveAddress();
      },
      error: (error: Error) => {
        notices.say(`The plate was not opened. ${error.message}`);
        leaveAddress();
      },
    });
    onCleanup(() => reading.unsubscribe());
  });

  // What the address says is selected would take the place of what the plate has selected: it is read before.
  effect(() => {
    const plate = waiting();
    if (!plate || params().has('plate')) return;
    untracked(() => {
      waiting.set(null);
      if (session.network()?.id === plate.network) session.layPlate(plate.map, plate.places);
    });
  });
}
