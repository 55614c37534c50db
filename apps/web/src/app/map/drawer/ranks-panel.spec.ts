import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideMockStore } from '@ngrx/store/testing';
import { of } from 'rxjs';
import { button, choose, host, text, type } from '../../../testing/dom';
import { exampleNetwork, exampleStep } from '../../../testing/examples';
import { Api } from '../../api/api';
import { Notices } from '../../store/notices';
import { MapSession } from '../session/map-session';
import { RanksPanel } from './ranks-panel';
import { mapMethods } from '../../../testing/map-methods';

// The real one starts a web worker by the address of its module, which only the browser's build knows.
jest.mock('../session/map-session', () => ({ MapSession: class MapSession {} }));

const number = (name: string, title = name) => ({ name, title, type: 'number' as const, how: '' });
const columns = [
  number('inDegree', 'in-degree'),
  number('betweenness'),
  number('closeness'),
  { name: 'community', title: 'community', type: 'category' as const, how: '' },
];
// Two triangles, tied through ann, who is in the first.
const data = (more: object = {}) => ({
  nodeCount: 6,
  nodes: {
    handle: ['ann', 'ben', 'cy', 'dot', 'eve', 'fay'],
    name: ['', '', '', '', '', ''],
    inDegree: Uint32Array.of(5, 12, 12, 1, 0, 0),
    betweenness: Float64Array.of(0.9, 0.1, 0, 0.2, 0, 0),
    closeness: Float64Array.of(1, NaN, NaN, 0.5, 0.4, 0.4),
    strength: Float64Array.of(20, 3, 3, 4, 4, 4),
    community: Uint32Array.of(1, 1, 1, 2, 2, 2),
    ...more,
  },
  edges: {
    source: Uint32Array.of(1, 0, 0, 0, 3, 4),
    target: Uint32Array.of(2, 3, 4, 5, 4, 5),
    weight: new Float64Array(6).fill(1),
  },
});

const asked = mapMethods();

describe('RanksPanel', () => {
  const api = { step: jest.fn(() => of(exampleStep({ sentence: 'Ranks were computed again.' }))) };
  async function panel(network = data()) {
    const session = {
      network: signal(exampleNetwork({ columns })),
      data: signal(network),
      hasMessages: signal(true),
      words: signal({ one: 'account', many: 'accounts', Many: 'Accounts' }),
      refresh: jest.fn(),
    };
    TestBed.configureTestingModule({
      providers: [
        provideMockStore(),
        { provide: MapSession, useValue: { ...session, ...asked } },
        { provide: Api, useValue: api },
        { provide: Notices, useValue: { say: jest.fn() } },
      ],
    });
    const fixture = TestBed.createComponent(RanksPanel);
    await fixture.whenStable();
    const row = (name: string): string[] => {
      const found = [...host(fixture).querySelectorAll('tbody tr')].find((one) =>
        one.textContent.includes(name),
      );
      return [...found!.querySelectorAll('td')].map((cell) => cell.textContent.replace(/\s+/g, ' ').trim());
    };
    return { fixture, session, row };
  }

  it('puts first places by several measures side by side, and says how far these agree', async () => {
    const { fixture, row } = await panel();
    expect(row('ann')).toEqual(['ann', '3', '1']);
    expect(row('cy')).toEqual(['cy', '1', '4']);
    expect(text(fixture)).toContain('in-degree and betweenness');
    button(fixture, 'ann').click();
    expect(asked.selectNode).toHaveBeenCalledWith(0);
  });

  it('takes further measures in, and leaves others out; without a value there is no rank', async () => {
    const { fixture, row } = await panel();
    choose(host(fixture).querySelector<HTMLSelectElement>('[aria-label="Add a measure"]')!, 'closeness');
    await fixture.whenStable();
    expect(row('ben')).toEqual(['ben', '1', '3', '–']);
    button(fixture, 'in-degree ×').click();
    await fixture.whenStable();
    expect(row('ben')).toEqual(['ben', '3', '–']);
  });

  it('asks how sure ranks are, and shows the ranges', async () => {
    const { fixture } = await panel();
    button(fixture, 'how sure?').click();
    expect(api.step).toHaveBeenCalledWith(exampleNetwork().study, 'doubt-ranks', {
      network: 'n1',
      measure: 'inDegree',
      runs: 100,
      seed: 1,
    });
    TestBed.resetTestingModule();
    const sure = await panel(
      data({
        'in-degree, best rank': Float64Array.of(3, 1, 1, 4, 5, 5),
        'in-degree, worst rank': Float64Array.of(3, 2, 2, 4, 6, 6),
      }),
    );
    expect(sure.row('ben')[1]).toBe('1 1 to 2');
  });

  it('lists connectors, and who is loud in one group only', async () => {
    const { fixture } = await panel();
    const lists = [...host(fixture).querySelectorAll('ol')].map((list) =>
      list.textContent.replace(/\s+/g, ' '),
    );
    expect(lists[0]).toContain('ann3 of 3 partners outside, 1 group');
    expect(lists[1]).toContain('ben0 of 1 partners outside');
    type(host(fixture).querySelector<HTMLInputElement>('[aria-label="Least strength of connectors"]')!, '30');
    await fixture.whenStable();
    expect(host(fixture).querySelector('ol')!.textContent).toContain('Nobody.');
  });
});
