import { TestBed } from '@angular/core/testing';
import { provideMockStore } from '@ngrx/store/testing';
import type { MessageSet } from '@pebble/contract';
import { of } from 'rxjs';
import { host } from '../../../testing/dom';
import { exampleNetwork } from '../../../testing/examples';
import { Api } from '../../api/api';
import { Portraits } from '../common/portraits';
import { work } from '../../store/work.reducer';
import { SetPicker } from './set-picker';

describe('choosing a set', () => {
  async function fieldsOf(set: MessageSet) {
    TestBed.configureTestingModule({
      providers: [
        provideMockStore({
          selectors: [
            { selector: work.selectNetworks, value: [exampleNetwork()] },
            { selector: work.selectSources, value: [] },
            { selector: work.selectStudy, value: null },
          ],
        }),
        { provide: Api, useValue: { codebook: () => of(null) } },
        {
          provide: Portraits,
          useValue: { list: () => null, titles: () => [], titleOf: (group: string) => group },
        },
      ],
    });
    const fixture = TestBed.createComponent(SetPicker);
    fixture.componentRef.setInput('name', 'A');
    fixture.componentRef.setInput('network', exampleNetwork());
    fixture.componentRef.setInput('column', 'community');
    fixture.componentRef.setInput('set', set);
    await fixture.whenStable();
    return (label: string) =>
      host(fixture).querySelector<HTMLSelectElement>(`[aria-label="${label}"]`)!.value;
  }

  it.each([
    { what: 'network', network: exampleNetwork().id },
    { what: 'group', network: exampleNetwork().id, column: 'community', group: '1' },
    { what: 'filter', filter: {} },
  ] as const)('shows what is chosen: %j', async (set) => {
    expect((await fieldsOf(set))('A is')).toBe(set.what);
  });

  it('shows the kind that the address names', async () => {
    expect((await fieldsOf({ what: 'filter', filter: { kind: 'repost' } }))('Kind of A')).toBe('repost');
  });
});
