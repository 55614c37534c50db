import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideMockStore } from '@ngrx/store/testing';
import { defaultMap, type KeptLook } from '@pebble/contract';
import { lookOf, SHIPPED_LOOKS, withLook, type MapNetwork } from '@pebble/core';
import { of } from 'rxjs';
import { button, host, text, type as write } from '../../../testing/dom';
import { exampleNetwork, exampleStep } from '../../../testing/examples';
import { Api } from '../../api/api';
import { LooksPanel } from './looks-panel';
import { MapSession } from '../session/map-session';
import { mapMethods } from '../../../testing/map-methods';

jest.mock('../session/map-session', () => ({ MapSession: class MapSession {} }));

const data: MapNetwork = {
  nodeCount: 2,
  nodes: { handle: ['a', 'b'], community: Uint32Array.of(1, 2) },
  edges: {},
};

const asked = mapMethods();

describe('LooksPanel', () => {
  let kept: KeptLook[];
  const api = {
    looks: jest.fn(() => of(kept)),
    step: jest.fn(() => of(exampleStep({ state: 'done' }))),
  };
  async function panel() {
    TestBed.configureTestingModule({
      providers: [
        provideMockStore(),
        { provide: Api, useValue: api },
        {
          provide: MapSession,
          useValue: {
            ...asked,
            network: signal(exampleNetwork()),
            data: signal(data),
            description: signal(defaultMap),
          },
        },
      ],
    });
    const fixture = TestBed.createComponent(LooksPanel);
    await fixture.whenStable();
    return { fixture };
  }
  beforeEach(() => {
    jest.clearAllMocks();
    kept = [];
  });

  it('puts a look on the map, as one change that can be undone', async () => {
    const { fixture } = await panel();
    button(fixture, 'For print').click();
    const { look } = SHIPPED_LOOKS.find(({ name }) => name === 'For print')!;
    expect(asked.describe).toHaveBeenCalledTimes(1);
    expect(asked.describe).toHaveBeenCalledWith(withLook(defaultMap, look, data));
  });

  it('keeps the look of this map by a name, and reads the list anew', async () => {
    const { fixture } = await panel();
    expect(button(fixture, 'Keep this look').disabled).toBe(true);
    write(host(fixture).querySelector<HTMLInputElement>('[aria-label="Name of the look"]')!, ' Our journal ');
    await fixture.whenStable();
    button(fixture, 'Keep this look').click();
    expect(api.step).toHaveBeenCalledWith(exampleNetwork().study, 'keep-look', {
      name: 'Our journal',
      look: lookOf(defaultMap),
    });
    expect(api.looks).toHaveBeenCalledTimes(2);
  });

  it('offers kept looks beside those that come along, and forgets them', async () => {
    kept = [{ name: 'Our journal', look: lookOf(defaultMap) }];
    const { fixture } = await panel();
    expect(text(fixture)).toContain('Our journal');
    button(fixture, 'forget').click();
    expect(api.step).toHaveBeenCalledWith(exampleNetwork().study, 'forget-look', { name: 'Our journal' });
  });
});
