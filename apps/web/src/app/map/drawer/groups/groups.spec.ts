import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideMockStore } from '@ngrx/store/testing';
import { defaultMap, GroupingSettings } from '@pebble/contract';
import { of } from 'rxjs';
import { button, choose, host, text, type } from '../../../../testing/dom';
import { exampleNetwork, exampleStep } from '../../../../testing/examples';
import { Api } from '../../../api/api';
import { Chart } from '../../../../testing/chart-double';
import { Notices } from '../../../store/notices';
import { MapSession } from '../../session/map-session';
import { GroupCompare } from './group-compare';
import { GroupFinder } from './group-finder';
import { GroupMatrix } from './group-matrix';
import { GroupsPanel } from './groups-panel';
import { GroupTable } from './group-table';
import { mapMethods } from '../../../../testing/map-methods';

// The real one starts a web worker by the address of its module, which only the browser's build knows.
jest.mock('../../session/map-session', () => ({ MapSession: class MapSession {} }));
jest.mock('../../../shared/chart', () => jest.requireActual('../../../../testing/chart-double'));

const category = (name: string) => ({
  name,
  title: name,
  type: 'category' as const,
  how: `How ${name} came.`,
});
const settings = GroupingSettings.parse({});
// Two triangles, a tie between them, and a node alone.
const data = {
  nodeCount: 7,
  nodes: {
    handle: ['a', 'b', 'c', 'd', 'e', 'f', 'g'],
    name: ['', '', '', '', '', '', ''],
    community: Uint32Array.of(1, 1, 1, 2, 2, 2, 3),
    Leiden: ['1', '1', '1', '1', '2', '2', '3'],
    'Leiden, sure': Float64Array.of(1, 1, 1, 0.5, 1, 1, 1),
  },
  edges: {
    source: Uint32Array.of(0, 1, 2, 3, 4, 5, 2),
    target: Uint32Array.of(1, 2, 0, 4, 5, 3, 3),
    weight: Float64Array.of(1, 1, 1, 1, 1, 1, 1),
  },
};
const network = exampleNetwork({
  columns: [category('community'), category('Leiden')],
  groupings: {
    Leiden: {
      settings,
      groups: 3,
      single: 1,
      modularity: 0.31,
      stability: { mean: 0.9, merged: [{ a: '1', b: '2', share: 0.4 }], compared: 2 },
    },
  },
});

const asked = mapMethods();

describe('Groups', () => {
  const api = { step: jest.fn(() => of(exampleStep({ sentence: 'Done.', result: { column: 'Leiden 2' } }))) };
  const notices = { say: jest.fn() };
  let session: Record<string, unknown>;
  beforeEach(() => {
    jest.clearAllMocks();
    session = {
      network: signal(network),
      data: signal(data),
      description: signal(defaultMap),
      titles: signal({}),
      words: signal({ one: 'account', many: 'accounts', Many: 'Accounts' }),
      refresh: jest.fn(() => Promise.resolve()),
    };
    TestBed.configureTestingModule({
      providers: [
        provideMockStore(),
        { provide: MapSession, useValue: { ...session, ...asked } },
        { provide: Api, useValue: api },
        { provide: Notices, useValue: notices },
      ],
    });
  });
  async function table(column: string) {
    const fixture = TestBed.createComponent(GroupTable);
    fixture.componentRef.setInput('column', column);
    await fixture.whenStable();
    return fixture;
  }
  const cells = (fixture: { nativeElement: unknown }, row: number): string[] =>
    [...(fixture.nativeElement as HTMLElement).querySelectorAll('tbody tr')[row].querySelectorAll('td')].map(
      (cell) => cell.textContent.trim(),
    );

  it('shows the groups with how closed and how sure they are, and puts those of one together', async () => {
    const fixture = await table('Leiden');
    // Of the first group's six ties two leave: (2 - 4) / 6.
    expect(cells(fixture, 0).slice(2)).toEqual(['4', '4 (67 %)', '0.333', '−0.333', '88 %']);
    expect(host(fixture).querySelectorAll('tbody tr')).toHaveLength(3);
    expect(text(fixture)).toContain('group 1 and group 2 are one in 40 % of the runs.');
  });

  it('keeps changed names and groups put together as a grouping of its own', async () => {
    const fixture = await table('Leiden');
    type(host(fixture).querySelector<HTMLInputElement>('[aria-label="Name of group 1"]')!, 'Harbour');
    const boxes = host(fixture).querySelectorAll<HTMLInputElement>('tbody input[type="checkbox"]');
    boxes[0].click();
    boxes[1].click();
    await fixture.whenStable();
    type(
      host(fixture).querySelector<HTMLInputElement>('[aria-label="Name of the groups put together"]')!,
      'All',
    );
    await fixture.whenStable();
    button(fixture, 'Put 2 groups together').click();
    await fixture.whenStable();
    expect(text(fixture)).toContain('2 names changed');
    const made = jest.fn();
    fixture.componentInstance.made.subscribe(made);
    button(fixture, 'Keep').click();
    expect(api.step).toHaveBeenCalledWith(network.study, 'regroup', {
      network: 'n1',
      column: 'Leiden',
      name: 'Leiden, named',
      rename: { 1: 'All', 2: 'All' },
      move: [],
    });
    await fixture.whenStable();
    expect(made).toHaveBeenCalledWith('Leiden 2');
  });

  it('splits a chosen group', async () => {
    const fixture = await table('Leiden');
    host(fixture).querySelectorAll<HTMLInputElement>('tbody input[type="checkbox"]')[0].click();
    await fixture.whenStable();
    button(fixture, 'Split the group').click();
    expect(api.step).toHaveBeenCalledWith(network.study, 'split-group', {
      network: 'n1',
      column: 'Leiden',
      group: '1',
      name: 'Leiden, split',
      settings: GroupingSettings.parse({ resolution: 1 }),
    });
  });

  it('are found by a method with its settings', async () => {
    const fixture = TestBed.createComponent(GroupFinder);
    await fixture.whenStable();
    expect(text(fixture)).toContain('each of which hangs together');
    type(host(fixture).querySelector<HTMLInputElement>('[aria-label="Resolution"]')!, '2');
    await fixture.whenStable();
    button(fixture, 'Find groups').click();
    expect(api.step).toHaveBeenCalledWith(network.study, 'group-nodes', {
      network: 'n1',
      name: 'Leiden 2',
      settings: { ...settings, resolution: 2 },
    });
    expect(notices.say).toHaveBeenCalledWith('Done.');
    choose(host(fixture).querySelector<HTMLSelectElement>('[aria-label="Method"]')!, 'core');
    await fixture.whenStable();
    expect(host(fixture).querySelector('[aria-label="Resolution"]')).toBeNull();
    expect(text(fixture)).toContain('ring by ring');
  });

  it('are counted over resolutions, of which one can be taken', async () => {
    const found = [
      { resolution: 0.5, groups: 2, larger: 2, modularity: 0.3 },
      { resolution: 2, groups: 4, larger: 1, modularity: 0.2 },
    ];
    api.step.mockReturnValueOnce(of(exampleStep({ result: { found } })));
    const fixture = TestBed.createComponent(GroupFinder);
    await fixture.whenStable();
    button(fixture, 'How many at which').click();
    await fixture.whenStable();
    expect(text(fixture)).toContain('Number of groups by resolution');
    fixture.debugElement
      .query(({ componentInstance }) => componentInstance instanceof Chart)
      .triggerEventHandler('picked', {
        dataIndex: 1,
      });
    await fixture.whenStable();
    expect(host(fixture).querySelector<HTMLInputElement>('[aria-label="Resolution"]')!.value).toBe('2');
  });

  it('says why groups could not be found', async () => {
    api.step.mockReturnValueOnce(
      of(exampleStep({ state: 'failed', error: 'The nodes have a column “x” already.' })),
    );
    const fixture = TestBed.createComponent(GroupFinder);
    await fixture.whenStable();
    button(fixture, 'Find groups').click();
    await fixture.whenStable();
    expect(host(fixture).querySelector('[role="alert"]')!.textContent).toContain('already');
  });

  it('stand beside each other, with what they share', async () => {
    const fixture = TestBed.createComponent(GroupCompare);
    fixture.componentRef.setInput('column', 'community');
    fixture.componentRef.setInput('other', 'Leiden');
    await fixture.whenStable();
    const [rand, information] = [...host(fixture).querySelectorAll('dd')].map((one) =>
      Number(one.textContent),
    );
    expect(rand).toBeGreaterThan(0.3);
    expect(information).toBeLessThan(1);
  });

  it('have a matrix of what leads from one to another', async () => {
    const fixture = TestBed.createComponent(GroupMatrix);
    fixture.componentRef.setInput('column', 'community');
    await fixture.whenStable();
    const chart = fixture.debugElement.query(({ componentInstance }) => componentInstance instanceof Chart);
    const rows = (chart.componentInstance as Chart).rows!;
    expect(rows[1].slice(0, 4)).toEqual(['group 1', 'group 1', expect.any(Number), 3]);
    expect(text(fixture)).toContain('from the group of the row to that of the column');
  });

  it('colour the map, and are chosen by name', async () => {
    const fixture = TestBed.createComponent(GroupsPanel);
    await fixture.whenStable();
    choose(host(fixture).querySelector<HTMLSelectElement>('[aria-label="Grouping"]')!, 'Leiden');
    await fixture.whenStable();
    expect(text(fixture)).toContain('How Leiden came. Modularity 0.310.');
    button(fixture, 'Colour the map by it').click();
    expect(asked.describe).toHaveBeenCalledWith({
      ...defaultMap,
      colour: { ...defaultMap.colour, column: 'Leiden' },
    });
    button(fixture, 'Beside another').click();
    await fixture.whenStable();
    expect(text(fixture)).toContain('adjusted Rand index');
  });
});
