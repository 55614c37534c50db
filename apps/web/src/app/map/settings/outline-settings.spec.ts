import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideMockStore } from '@ngrx/store/testing';
import { defaultMap, GroupTitles, type MapDescription } from '@pebble/contract';
import type { MapNetwork } from '@pebble/core';
import { of, throwError } from 'rxjs';
import { host, text } from '../../../testing/dom';
import { exampleNetwork } from '../../../testing/examples';
import { Api } from '../../api/api';
import { MapSession } from '../session/map-session';
import { OutlineSettings } from './outline-settings';
import { mapMethods } from '../../../testing/map-methods';

jest.mock('../session/map-session', () => ({ MapSession: class MapSession {} }));

const data: MapNetwork = {
  nodeCount: 5,
  nodes: { handle: ['a', 'b', 'c', 'd', 'e'], kind: ['press', 'press', 'shop', 'shop', ''] },
  edges: {},
};
type Regions = MapDescription['regions'];
const described = (change: Partial<Regions>): MapDescription => ({
  ...defaultMap,
  regions: { ...defaultMap.regions, least: 2, ...change },
});

const asked = mapMethods();

describe('OutlineSettings', () => {
  const groupTitles = jest.fn();
  async function settings(change: Partial<Regions>) {
    const description = signal(described(change));
    const columns = [{ name: 'kind', title: 'kind', type: 'category' as const, how: '' }];
    const session = {
      network: signal(exampleNetwork({ columns })),
      data: signal(data),
      description,
    };
    TestBed.configureTestingModule({
      providers: [
        provideMockStore(),
        { provide: MapSession, useValue: { ...session, ...asked } },
        { provide: Api, useValue: { groupTitles } },
      ],
    });
    const fixture = TestBed.createComponent(OutlineSettings);
    await fixture.whenStable();
    const field = (label: string) => host(fixture).querySelector<HTMLInputElement>(`[aria-label="${label}"]`);
    const write = (label: string, value: string): void => {
      const input = field(label)!;
      input.value = value;
      input.dispatchEvent(new Event('change'));
    };
    const press = (name: string): void =>
      [...host(fixture).querySelectorAll('button')].find((b) => b.textContent.trim() === name)!.click();
    const saved = (regions: Partial<Regions>) =>
      expect(asked.describe).toHaveBeenLastCalledWith(described({ ...change, ...regions }));
    return { fixture, session, field, write, press, saved };
  }

  it('titles groups; one that has a title can have a note below it', async () => {
    const before = { column: 'kind', titles: { shop: 'The quay' } };
    const { field, write, saved } = await settings(before);
    expect(field('Note of press')).toBeNull();
    expect(field('Note of shop')!.maxLength).toBe(300);
    write('Title of press', ' Press ');
    saved({ titles: { shop: 'The quay', press: 'Press' } });
    write('Note of shop', 'They open late.');
    saved({ notes: { shop: 'They open late.' } });
    write('Title of shop', '');
    saved({ titles: {} });
  });

  it('takes a note away that was emptied, also where the title is gone', async () => {
    const { write, saved } = await settings({ column: 'kind', notes: { press: 'Old', shop: 'Late' } });
    write('Note of press', '');
    saved({ notes: { shop: 'Late' } });
  });

  it('titles chosen nodes and drawn lines, and takes them away', async () => {
    const own = [{ title: 'Mine', nodes: [0, 1] }];
    const strokes = [{ title: '', note: 'Here', width: 20, points: [{ near: 0, dx: 0, dy: 0 }] }];
    const { write, press, saved } = await settings({ own, strokes });
    write('Note of chosen nodes', 'Both write at night.');
    saved({ own: [{ ...own[0], note: 'Both write at night.' }] });
    write('Title of a drawn line', 'The river');
    saved({ strokes: [{ ...strokes[0], title: 'The river' }] });
    press('take away');
    saved({ own: [] });
  });

  it('suggests titles, which do not replace those that were written', async () => {
    const titles: GroupTitles['titles'] = { press: '#late', shop: '#quay' };
    groupTitles.mockReturnValue(of({ titles }));
    const { press, saved } = await settings({ column: 'kind', titles: { shop: 'The quay' } });
    press('Suggest titles');
    saved({ titles: { press: '#late', shop: 'The quay' } });
  });

  it('says why titles could not be suggested', async () => {
    groupTitles.mockReturnValue(throwError(() => new Error('This network is no longer there.')));
    const { fixture, press } = await settings({ column: 'kind' });
    press('Suggest titles');
    await fixture.whenStable();
    expect(text(fixture)).toContain('This network is no longer there.');
  });

  it('makes room for a line that is drawn on the map', async () => {
    const { fixture, press } = await settings({});
    const left = jest.fn();
    fixture.componentInstance.left.subscribe(left);
    press('Draw one by hand');
    expect([asked.beginDrawing, left].map(({ mock }) => mock.calls.length)).toEqual([1, 1]);
  });
});
