import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideMockStore } from '@ngrx/store/testing';
import type { Focus } from '@pebble/core';
import { of } from 'rxjs';
import { Chart } from '../../../testing/chart-double';
import { button, choose, host, text, type } from '../../../testing/dom';
import { exampleNetwork, exampleStep } from '../../../testing/examples';
import { Api } from '../../api/api';
import { Notices } from '../../store/notices';
import { MapSession } from '../session/map-session';
import { RemovalPanel } from './removal-panel';

// The real one starts a web worker by the address of its module, which only the browser's build knows.
jest.mock('../session/map-session', () => ({ MapSession: class MapSession {} }));
jest.mock('../../shared/chart', () => jest.requireActual('../../../testing/chart-double'));

const column = (name: string) => ({ name, title: name, type: 'number' as const, how: '' });
// A row of five; the middle has the highest betweenness, the second the next.
const data = {
  nodeCount: 5,
  nodes: {
    handle: ['ann', 'ben', 'cy', 'dot', 'eve'],
    name: ['', '', '', '', ''],
    betweenness: Float64Array.of(0, 0.25, 0.3, 0.2, 0),
    degree: Float64Array.of(1, 2, 2, 2, 1),
  },
  edges: {
    source: Uint32Array.of(0, 1, 2, 3),
    target: Uint32Array.of(1, 2, 3, 4),
    weight: Float64Array.of(1, 1, 1, 1),
  },
};

describe('RemovalPanel', () => {
  const api = { step: jest.fn(() => of(exampleStep({ sentence: 'Without cy, 2 would be cut off.' }))) };
  const notices = { say: jest.fn() };
  async function panel() {
    const emphasis = signal<Focus | null>(null);
    const session = {
      network: signal(exampleNetwork({ columns: [column('betweenness'), column('degree')] })),
      data: signal(data),
      selection: signal<object | null>(null),
      emphasis,
      emphasise: (focus: Focus | null) => emphasis.set(focus),
      words: signal({ one: 'account', many: 'accounts', Many: 'Accounts' }),
    };
    TestBed.configureTestingModule({
      providers: [
        provideMockStore(),
        { provide: MapSession, useValue: session },
        { provide: Api, useValue: api },
        { provide: Notices, useValue: notices },
      ],
    });
    const fixture = TestBed.createComponent(RemovalPanel);
    await fixture.whenStable();
    return { fixture, session };
  }

  it('takes out the first by a measure, says what falls apart, and shows it on the map', async () => {
    const { fixture, session } = await panel();
    const facts = [...host(fixture).querySelectorAll('dd')].map((one) => one.textContent);
    // Without cy: ann and ben here, dot and eve there; two of six pairs still reach each other.
    expect(facts).toEqual(['2', '1 → 2', '5 → 2', '33 %']);
    expect(session.emphasis()).toMatchObject({ nodes: new Set([2]), around: new Set([3, 4]) });
    type(host(fixture).querySelector<HTMLInputElement>('[aria-label="How many are taken out"]')!, '2');
    await fixture.whenStable();
    expect(session.emphasis()!.nodes).toEqual(new Set([2, 1]));
    fixture.destroy();
    expect(session.emphasis()).toBeNull();
  });

  it('takes out those that are chosen by hand, and puts them back', async () => {
    const { fixture, session } = await panel();
    choose(host(fixture).querySelector<HTMLSelectElement>('[aria-label="How nodes are chosen"]')!, 'hand');
    await fixture.whenStable();
    expect(text(fixture)).toContain('Select a node');
    session.selection.set({ what: 'node', node: 1 });
    await fixture.whenStable();
    button(fixture, 'Take out ben').click();
    await fixture.whenStable();
    expect(text(fixture)).toContain('Cut off: ann');
    button(fixture, 'ben ×').click();
    await fixture.whenStable();
    expect(session.emphasis()).toBeNull();
  });

  it('draws curves for each measure and at random, and goes into the logbook', async () => {
    const { fixture } = await panel();
    const chart = fixture.debugElement.query(({ componentInstance }) => componentInstance instanceof Chart);
    const { rows } = chart.componentInstance as Chart;
    expect(rows![0]).toEqual(['taken out', 'betweenness', 'degree', 'at random']);
    expect(rows![2].slice(0, 2)).toEqual([1, 0.4]);
    button(fixture, 'Note it in the logbook').click();
    expect(api.step).toHaveBeenCalledWith(exampleNetwork().study, 'test-removal', {
      network: 'n1',
      nodes: [2],
      by: 'betweenness',
    });
    expect(notices.say).toHaveBeenCalledWith('Without cy, 2 would be cut off.');
  });
});
