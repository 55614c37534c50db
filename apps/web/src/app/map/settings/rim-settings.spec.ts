import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideMockStore } from '@ngrx/store/testing';
import { defaultMap, type ColumnInfo, type MapDescription, type Rim } from '@pebble/contract';
import type { MapNetwork } from '@pebble/core';
import { host, text } from '../../../testing/dom';
import { exampleNetwork } from '../../../testing/examples';
import { MapSession } from '../session/map-session';
import { RimSettings } from './rim-settings';
import { mapMethods } from '../../../testing/map-methods';

jest.mock('../session/map-session', () => ({ MapSession: class MapSession {} }));

const column = (name: string, type: ColumnInfo['type']): ColumnInfo => ({ name, title: name, type, how: '' });
const data: MapNetwork = {
  nodeCount: 4,
  nodes: {
    handle: ['ann', 'ben', 'cy', 'di'],
    degree: Uint32Array.of(1, 2, 3, 4),
    kind: ['press', '', 'press', 'person'],
  },
  edges: {},
};
const withRim = (rim: Rim | null): MapDescription => ({
  ...defaultMap,
  shape: { ...defaultMap.shape, rim },
});

const asked = mapMethods();

describe('RimSettings', () => {
  async function settings(rim: Rim | null, rimGroups: readonly object[] = [{}]) {
    const columns = [column('degree', 'number'), column('kind', 'category')];
    TestBed.configureTestingModule({
      providers: [
        provideMockStore(),
        {
          provide: MapSession,
          useValue: {
            ...asked,
            network: signal(exampleNetwork({ columns })),
            data: signal(data),
            description: signal(withRim(rim)),
            titles: signal({}),
            prepared: signal({ rimGroups }),
          },
        },
      ],
    });
    const fixture = TestBed.createComponent(RimSettings);
    await fixture.whenStable();
    const choose = (label: string, value: string): void => {
      const select = host(fixture).querySelector<HTMLSelectElement>(`select[aria-label="${label}"]`)!;
      select.value = value;
      select.dispatchEvent(new Event('change'));
    };
    return { fixture, choose };
  }
  const saved = (rim: Rim | null) => withRim(rim);

  it('goes by a number, by the largest group of a category, or by nothing', async () => {
    const { choose } = await settings(null);
    choose('Rim by', 'degree');
    expect(asked.describe).toHaveBeenLastCalledWith(saved({ column: 'degree', value: null }));
    choose('Rim by', 'kind');
    expect(asked.describe).toHaveBeenLastCalledWith(saved({ column: 'kind', value: 'press' }));
    choose('Rim by', '');
    expect(asked.describe).toHaveBeenLastCalledWith(saved(null));
  });

  it('offers the values of a category, also that of nodes without one', async () => {
    const { fixture, choose } = await settings({ column: 'kind', value: 'press' });
    const options = [...host(fixture).querySelectorAll('[aria-label="Value with a rim"] option')];
    expect(options.map((one) => one.textContent.trim())).toEqual(['press', 'without a group', 'person']);
    choose('Value with a rim', '');
    expect(asked.describe).toHaveBeenLastCalledWith(saved({ column: 'kind', value: '' }));
  });

  it('says when no node stands out', async () => {
    const { fixture } = await settings({ column: 'degree', value: null }, []);
    expect(text(fixture)).toContain('No node stands out');
  });
});
