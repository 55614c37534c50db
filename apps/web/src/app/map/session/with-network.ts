import { computed, inject } from '@angular/core';
import type { Network, TitlesByColumn } from '@pebble/contract';
import {
  capital,
  fromArrow,
  graphOf,
  kindOf,
  neighbourRows,
  nodeWords,
  wovenAs,
  type DailyTieCounts,
  type MapNetwork,
} from '@pebble/core';
import { patchState, signalStoreFeature, withComputed, withMethods, withState } from '@ngrx/signals';
import { Store } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import { Api, pathOf, type NetworkPlace } from '../../api/api';
import { work } from '../../store/work.reducer';
import { readTables } from './read-tables';

export interface Opened {
  readonly network: Network | null;
  readonly data: MapNetwork | null;
  /** When the messages of the ties were written; null until it was asked for, or where it is not known. */
  readonly dailyTieCounts: DailyTieCounts | null;
  readonly error: string | null;
  /** Whether there is no network at the address that was asked for. */
  readonly isMissing: boolean;
}

const CLOSED: Opened = { network: null, data: null, dailyTieCounts: null, error: null, isMissing: false };

/** The network that is open: its tables, and what is to be known of it. */
export function withNetwork() {
  return signalStoreFeature(
    withState<Opened>(CLOSED),
    withComputed(({ network, data }, networks = inject<Store>(Store).selectSignal(work.selectNetworks)) => ({
      /** What its nodes are called. */
      words: computed(() => {
        const open = network();
        const [one, many] = nodeWords(open && wovenAs(open));
        return { one, many, Many: capital(many) };
      }),
      /** What its groups are called, by column and by value; other titles are known as soon as the list of networks is read anew. */
      titles: computed(
        (): TitlesByColumn => {
          const open = network();
          return (networks().find(({ id }) => id === open?.id) ?? open)?.titles ?? {};
        },
        { equal: (a, b) => a === b || JSON.stringify(a) === JSON.stringify(b) },
      ),
      /** Whether messages stand behind its ties. */
      hasMessages: computed(() => {
        const weave = network()?.weave;
        return weave != null && kindOf(weave).hasMessages;
      }),
      /** Whether its ties are messages from one account to another. */
      isByAddress: computed(() => {
        const weave = network()?.weave;
        return weave != null && kindOf(weave).isByAddress;
      }),
      /** Who is tied to whom, either way. */
      rows: computed(() => {
        const tables = data();
        return tables ? neighbourRows(graphOf(tables.nodeCount, tables.edges)) : null;
      }),
    })),
    withMethods((store, api = inject(Api)) => {
      /** Of which network the messages of each day were asked for. */
      let asked: string | null = null;
      return {
        _open: (opened: Partial<Opened>): void => patchState(store, opened),
        _fail: (error: string, isMissing = false): void => patchState(store, { error, isMissing }),
        _closeNetwork(): void {
          asked = null;
          patchState(store, CLOSED);
        },
        _readTables: (place: NetworkPlace) => readTables(api, place),
        /** Asks when the messages of the ties were written, once. Where it is not known, first and last ones have to do. */
        async readDailyTieCounts(): Promise<void> {
          const network = store.network();
          if (!network || !store.hasMessages() || asked === network.id) return;
          asked = network.id;
          try {
            const bytes = await firstValueFrom(api.dailyTieCounts(pathOf(network)));
            if (store.network()?.id !== network.id) return;
            const { edge, day, messages } = fromArrow(new Uint8Array(bytes)) as unknown as DailyTieCounts;
            patchState(store, { dailyTieCounts: { edge, day, messages } });
          } catch {
            // Ties through shared partners have no messages of their own.
            patchState(store, { dailyTieCounts: null });
          }
        },
      };
    }),
  );
}
