import { computed, effect, inject, untracked, type WritableSignal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { ActivatedRoute, Router, type ParamMap, type Params } from '@angular/router';
import { nodeLabels } from '@pebble/core';
import { DRAWER_TABS, type DrawerTab } from './drawer/drawer-parts';
import { MapSession } from './session/map-session';
import type { Selection } from './session/with-selection';

/** What of the map stands in its address; null for what does not. */
export interface MapAddress extends Params {
  readonly node: string | null;
  readonly from: string | null;
  readonly to: string | null;
  readonly community: string | null;
  readonly panel: DrawerTab | null;
}

const NOTHING: MapAddress = { node: null, from: null, to: null, community: null, panel: null };

/** Several nodes that were chosen are not written down: there may be thousands. */
export function addressOfMap(
  selection: Selection | null,
  panel: DrawerTab | null,
  names: readonly string[],
): MapAddress {
  switch (selection?.what) {
    case 'node':
      return { ...NOTHING, panel, node: names[selection.node] };
    case 'tie':
      return { ...NOTHING, panel, from: names[selection.source], to: names[selection.target] };
    case 'community':
      return { ...NOTHING, panel, community: String(selection.community) };
    default:
      return { ...NOTHING, panel };
  }
}

/** What an address asks for; what this network does not have is left out. */
export function askedByAddress(
  params: Pick<ParamMap, 'get'>,
  names: readonly string[],
): { readonly selection: Selection | null; readonly panel: DrawerTab | null } {
  const nodeOf = (name: string): number => names.indexOf(params.get(name) ?? '');
  const [node, source, target] = [nodeOf('node'), nodeOf('from'), nodeOf('to')];
  const community = Number(params.get('community') ?? NaN);
  const panel = DRAWER_TABS.find((tab) => tab === params.get('panel')) ?? null;
  if (node >= 0) return { selection: { what: 'node', node }, panel };
  if (source >= 0 && target >= 0) return { selection: { what: 'tie', source, target }, panel };
  if (Number.isInteger(community)) return { selection: { what: 'community', community }, panel };
  return { selection: null, panel };
}

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
      if (isFirst && Object.keys(NOTHING).every((name) => !asked.has(name)))
        return write(now, network.id, true);
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
