import { signal, type WritableSignal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { provideMockStore } from '@ngrx/store/testing';
import { defaultMap, type Network } from '@pebble/contract';
import { NEVER } from 'rxjs';
import { host } from '../../../testing/dom';
import { exampleNetwork, exampleStudy } from '../../../testing/examples';
import { Api } from '../../api/api';
import { work } from '../../store/work.reducer';
import { MapSession } from '../session/map-session';
import { ReadingPane } from './reading-pane';

jest.mock('../session/map-session', () => ({ MapSession: class MapSession {} }));

const data = {
  nodeCount: 2,
  nodes: { handle: ['ann', 'ben'], name: ['', ''], community: Uint32Array.of(1, 1) },
  edges: { source: Uint32Array.of(0), target: Uint32Array.of(1), weight: Float64Array.of(1) },
};

describe('ReadingPane', () => {
  it('keeps what is read when columns come to the network, and begins anew for another network', async () => {
    const network: WritableSignal<Network> = signal(exampleNetwork({ id: 'first', nodes: 2 }));
    const evidence = jest.fn(() => NEVER);
    const session = {
      network,
      data: signal(data),
      selection: signal({ what: 'node', node: 0 }),
      marked: signal(null),
      description: signal(defaultMap),
      hasMessages: signal(true),
      isByAddress: signal(true),
      words: signal({ one: 'account', many: 'accounts' }),
      titles: signal({}),
      planned: signal([]),
      notes: signal([]),
      moves: signal(new Map()),
    };
    TestBed.configureTestingModule({
      providers: [
        provideRouter([]),
        provideMockStore({
          selectors: [
            { selector: work.selectStudy, value: exampleStudy },
            { selector: work.selectSteps, value: [] },
            { selector: work.selectNetworks, value: [] },
          ],
        }),
        { provide: MapSession, useValue: session },
        { provide: Api, useValue: { evidence, notes: () => NEVER } },
      ],
    });
    const fixture = TestBed.createComponent(ReadingPane);
    await fixture.whenStable();
    expect(evidence).toHaveBeenCalledTimes(1);
    const tabs = (): HTMLElement[] => [...host(fixture).querySelectorAll<HTMLElement>('nav.tabs button')];
    const shown = (): string =>
      tabs().find((tab) => tab.getAttribute('aria-selected') === 'true')!.textContent;
    tabs()
      .find((tab) => tab.textContent.includes('Ties out'))!
      .click();
    await fixture.whenStable();
    expect(shown()).toContain('Ties out');
    network.set(exampleNetwork({ id: 'first', nodes: 2, state: 'measured' }));
    await fixture.whenStable();
    expect(shown()).toContain('Ties out');
    expect(evidence).toHaveBeenCalledTimes(1);
    network.set(exampleNetwork({ id: 'second', nodes: 2 }));
    await fixture.whenStable();
    expect(shown()).not.toContain('Ties out');
    expect(evidence).toHaveBeenCalledTimes(2);
  });
});
