import { effect, inject, untracked } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { ActivatedRoute, Router } from '@angular/router';
import { forkJoin } from 'rxjs';
import { Api } from '../../api/api';
import { Notices } from '../../store/notices';
import { MapSession } from '../session/map-session';
import { separate } from '../session/places';

/** Puts the map into the state of the plate that the address names, once its network is open; the address names it no longer then. */
export function openPlateOfAddress(): void {
  const route = inject(ActivatedRoute);
  const router = inject(Router);
  const session = inject(MapSession);
  const api = inject(Api);
  const notices = inject(Notices);
  const params = toSignal(route.queryParamMap, { requireSync: true });
  const place = toSignal(route.paramMap, { requireSync: true });

  effect((onCleanup) => {
    const plate = Number(params().get('plate') ?? NaN);
    const network = session.network();
    const isThere = network !== null && session.data() !== null && network.id === place().get('network');
    if (!Number.isInteger(plate) || !isThere) return;
    const at = { study: network.study, plate };
    const said = (): void =>
      void router.navigate([], {
        relativeTo: route,
        queryParams: { plate: null },
        queryParamsHandling: 'merge',
        replaceUrl: true,
      });
    const reading = forkJoin([api.plateMap(at), api.platePositions(at)]).subscribe({
      next: ([map, bytes]) =>
        untracked(() => {
          session.layPlate(map, separate(new Float32Array(bytes)));
          said();
        }),
      error: (error: Error) => {
        notices.say(`The plate was not opened. ${error.message}`);
        said();
      },
    });
    onCleanup(() => reading.unsubscribe());
  });
}
