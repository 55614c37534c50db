import type { ParamMap, Params } from '@angular/router';
import { DRAWER_TABS, type DrawerTab } from './drawer/drawer-parts';
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

/** The names under which that stands. */
export const IN_ADDRESS = Object.keys(NOTHING);

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
