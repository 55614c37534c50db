import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { defaultMap, type MapDescription } from '@pebble/contract';
import { focusOnNodes, graphOf, neighbourRows, prepareMap } from '@pebble/core';
import { provideRouter } from '@angular/router';
import { provideMockStore } from '@ngrx/store/testing';
import { of } from 'rxjs';
import { Api } from '../../api/api';
import { host } from '../../../testing/dom';
import { exampleNetwork } from '../../../testing/examples';
import { ChosenNodes } from './chosen-nodes';
import { MapSession } from '../session/map-session';
import { mapMethods } from '../../../testing/map-methods';

jest.mock('../session/map-session', () => ({ MapSession: class MapSession {} }));

// A path ann – ben – cem, and dora tied to ann and cem both.
const data = {
  nodeCount: 5,
  nodes: {
    handle: ['ann', 'ben', 'cem', 'dora', 'eli'],
    name: ['', '', '', '', ''],
    inDegree: Uint32Array.of(1, 2, 3, 0, 0),
    degree: Uint32Array.of(2, 2, 2, 2, 0),
    betweenness: new Float64Array(5),
    community: Uint32Array.of(1, 1, 1, 1, 2),
  },
  edges: {
    source: Uint32Array.of(0, 1, 3, 3),
    target: Uint32Array.of(1, 2, 0, 2),
    weight: Float64Array.of(1, 1, 1, 1),
  },
};
const rows = neighbourRows(graphOf(5, data.edges));

const asked = mapMethods();

describe('ChosenNodes', () => {
  const chosen = signal<readonly number[]>([]);
  const description = signal<MapDescription>(defaultMap);
  const step = jest.fn(() => of({ state: 'done', sentence: 'Done.' }));
  const session = {
    chosen,
    description,
    network: signal(exampleNetwork({ columns: [] })),
    words: signal({ one: 'account', many: 'accounts', Many: 'Accounts' }),
    data: signal(data),
    rows: signal(rows),
    focus: () => focusOnNodes(data, rows, chosen()),
    prepared: signal(prepareMap(data, defaultMap)),
    places: signal({ x: Float32Array.of(0, 10, 20, 30, 40), y: Float32Array.of(0, 5, 10, 0, 0) }),
    refresh: jest.fn(),
  };
  let page: HTMLElement;

  const open = async (nodes: readonly number[]): Promise<void> => {
    chosen.set(nodes);
    description.set(defaultMap);
    TestBed.configureTestingModule({
      providers: [
        provideMockStore(),
        provideRouter([]),
        { provide: MapSession, useValue: { ...session, ...asked } },
        { provide: Api, useValue: { step } },
      ],
    });
    const fixture = TestBed.createComponent(ChosenNodes);
    await fixture.whenStable();
    page = host(fixture);
  };
  const press = (words: string): void =>
    [...page.querySelectorAll('button')].find((b) => b.textContent.trim() === words)!.click();
  const describedLast = (): MapDescription => asked.describe.mock.lastCall![0] as MapDescription;

  it('says who is chosen, the first in rank first, and how many ties are among them', async () => {
    await open([0, 1, 2]);
    expect(page.querySelector('h2')!.textContent).toBe('3 accounts chosen');
    expect(page.textContent).toContain('2 ties among them');
    expect([...page.querySelectorAll('.list .link')].map((one) => one.textContent)).toEqual([
      'cem',
      'ben',
      'ann',
    ]);
  });

  it('chooses neighbours, those tied to every one, and all others', async () => {
    await open([0, 2]);
    press('Their neighbours too');
    expect(asked.chooseNodes).toHaveBeenLastCalledWith([0, 1, 2, 3]);
    press('Tied to every one');
    expect(asked.chooseNodes).toHaveBeenLastCalledWith([0, 1, 2, 3]);
    press('All others instead');
    expect(asked.chooseNodes).toHaveBeenLastCalledWith([1, 3, 4]);
  });

  it('finds shortest paths between two, and says where there is none', async () => {
    await open([0, 2]);
    press('ann → cem');
    expect(asked.chooseNodes).toHaveBeenLastCalledWith([0, 1, 2]);
    press('cem → ann');
    await TestBed.tick();
    expect(page.querySelector('.finding')!.textContent).toBe('There is no path from cem to ann.');
    press('Either way');
    expect(asked.chooseNodes).toHaveBeenLastCalledWith([0, 1, 2, 3]);
  });

  it('moves all at once, which is one change', async () => {
    await open([0, 1, 2]);
    press('In a row');
    expect(asked.moveNodes).toHaveBeenLastCalledWith(
      [0, 1, 2],
      [
        [0, 5],
        [10, 5],
        [20, 5],
      ],
    );
  });

  it('holds, outlines, and shows only these or all but these', async () => {
    await open([0, 1]);
    press('Hold in place');
    expect(describedLast().held).toEqual([0, 1]);
    press('Outline them');
    expect(describedLast().regions.own).toEqual([{ title: '', nodes: [0, 1] }]);
    press('Only these');
    expect(describedLast().show.where.conditions).toEqual([{ what: 'chosen', nodes: [0, 1], not: false }]);
    press('All but these');
    expect(asked.clearSelection).toHaveBeenLastCalledWith();
  });

  it('does not widen a filter of which one condition is enough', async () => {
    await open([0, 1]);
    const named = (text: string) => ({ what: 'named' as const, text, not: false });
    const where = { joined: 'or' as const, conditions: [named('a'), named('b')] };
    description.set({ ...defaultMap, show: { ...defaultMap.show, where } });
    press('Only these');
    expect(describedLast().show.where).toEqual({
      joined: 'and',
      conditions: [
        { what: 'chosen', nodes: [0, 1, 2, 3, 4], not: false },
        { what: 'chosen', nodes: [0, 1], not: false },
      ],
    });
  });

  it('puts them in a category by a step', async () => {
    await open([0, 1]);
    const [, column, value] = page.querySelectorAll<HTMLInputElement>('form input');
    for (const [field, text] of [
      [column, 'Role'],
      [value, 'press'],
    ] as const) {
      // prettier-ignore
      field.value = text;
      field.dispatchEvent(new Event('input'));
    }
    await TestBed.tick();
    press('Set');
    expect(step).toHaveBeenCalledWith(expect.anything(), 'mark-nodes', {
      network: session.network().id,
      nodes: [0, 1],
      column: 'Role',
      value: 'press',
    });
    expect(session.refresh).toHaveBeenCalled();
    // Once the column is there, the map can be coloured by it at once.
    session.data.set({ ...data, nodes: { ...data.nodes, Role: ['press', 'press', '', '', ''] } } as never);
    await TestBed.tick();
    press('Colour the map by Role');
    expect(describedLast().colour.column).toBe('Role');
    session.data.set(data);
  });
});
