import { convertToParamMap } from '@angular/router';
import { addressOfMap, askedByAddress } from './map-address';
import type { Selection } from './session/with-selection';

const names = ['ann', 'bo b', '@c&d'];
const SELECTIONS: readonly (Selection | null)[] = [
  null,
  { what: 'node', node: 2 },
  { what: 'tie', source: 1, target: 0 },
  { what: 'community', community: 7 },
];

describe('the address of a map', () => {
  it.each(SELECTIONS)('gives back what was written: %j', (selection) => {
    const params = convertToParamMap(addressOfMap(selection, 'ranks', names));
    expect(askedByAddress(params, names)).toEqual({ selection, panel: 'ranks' });
  });

  it('asks for nothing that this network or the drawer does not have', () => {
    const asked = { node: 'zoe', from: 'ann', to: 'nobody', community: 'x', panel: 'kitchen' };
    expect(askedByAddress(convertToParamMap(asked), names)).toEqual({ selection: null, panel: null });
  });
});
