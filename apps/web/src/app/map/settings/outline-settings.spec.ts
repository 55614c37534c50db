import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideMockStore } from '@ngrx/store/testing';
import { defaultMap, PortraitSettings, type MapDescription, type TitlesByColumn } from '@pebble/contract';
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
  const step = jest.fn();
  async function settings(change: Partial<Regions>) {
    const description = signal(described(change));
    const columns = [{ name: 'kind', title: 'kind', type: 'category' as const, how: '' }];
    const session = {
      network: signal(exampleNetwork({ columns })),
      data: signal(data),
      description,
      titles: signal<TitlesByColumn>({}),
    };
    TestBed.configureTestingModule({
      providers: [
        provideMockStore(),
        { provide: MapSession, useValue: { ...session, ...asked } },
        { provide: Api, useValue: { step } },
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

  it('draws portraits for groups that have no titles, and calls groups by those that they have', async () => {
    step.mockReturnValue(of({ state: 'done' }));
    const { press, field, session, fixture } = await settings({
      column: 'kind',
      titles: { shop: 'The quay' },
    });
    press('Find titles');
    const asked = { network: 'n1', column: 'kind', settings: PortraitSettings.parse({}) };
    expect(step).toHaveBeenLastCalledWith(exampleNetwork().study, 'portray-groups', asked);
    session.titles.set({ kind: { press: '#late', shop: '#quay' } });
    await fixture.whenStable();
    expect(field('Title of press')!.placeholder).toBe('#late');
    expect(field('Title of shop')!.value).toBe('The quay');
    expect(text(fixture)).not.toContain('Find titles');
  });

  it('says why titles could not be found', async () => {
    step.mockReturnValue(throwError(() => new Error('This network is no longer there.')));
    const { fixture, press } = await settings({ column: 'kind' });
    press('Find titles');
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
