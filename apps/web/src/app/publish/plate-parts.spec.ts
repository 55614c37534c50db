import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { Store } from '@ngrx/store';
import { defaultMap, type Network, type Plate } from '@pebble/contract';
import { toArrow } from '@pebble/core';
import { of } from 'rxjs';
import { exampleNetwork } from '../../testing/examples';
import { Api } from '../api/api';
import { Plates } from '../map/plates/plates';
import { PlateParts } from './plate-parts';

jest.mock('../map/workers/bundle-in-worker', () => ({ bundleInWorker: jest.fn() }));
jest.mock('../map/plates/plates', () => ({ Plates: class Plates {} }));

const tables = {
  nodes: {
    handle: ['ann', 'ben'],
    name: ['', ''],
    inDegree: Uint32Array.of(0, 1),
    degree: Uint32Array.of(1, 1),
    betweenness: Float64Array.of(0, 0),
    community: Uint32Array.of(1, 1),
  },
  edges: { source: Uint32Array.of(0), target: Uint32Array.of(1), weight: Float64Array.of(1) },
};
const plate: Plate = {
  id: 1,
  title: 'First',
  note: '',
  network: 'n1',
  networkName: 'A',
  isCover: false,
  step: 4,
  keptAt: '2026-03-01T00:00:00.000Z',
  caption: '2 accounts.',
  shown: { nodes: 2, edges: 1 },
  picture: { nodes: [], width: 1, height: 1 } as never,
  today: { what: 'same' },
};

it('plates on a page have what is known of their network by now: titles that came later too', async () => {
  const networks = signal<readonly Network[]>([exampleNetwork({ nodes: 2, titles: {} })]);
  const api = {
    plateMap: () =>
      of({ description: defaultMap, layout: null, iterations: null, moved: 0, view: null, selection: null }),
    platePositions: () => of(Float32Array.of(1, 2, 3, 4).buffer),
    network: () => of(networks()[0]),
    table: ({ table }: { table: 'nodes' | 'edges' }) => of(toArrow(tables[table])),
  };
  TestBed.configureTestingModule({
    providers: [
      PlateParts,
      { provide: Plates, useValue: { all: signal([plate]), study: () => 's1' } },
      { provide: Api, useValue: api },
      { provide: Store, useValue: { selectSignal: () => networks } },
    ],
  });
  const parts = TestBed.inject(PlateParts);
  const titles = async (): Promise<unknown> => {
    for (let i = 0; i < 50 && !parts.parts(); i++) {
      TestBed.tick();
      await new Promise((done) => setTimeout(done));
    }
    return parts.parts()?.[0].map.network.titles;
  };
  expect(await titles()).toEqual({});
  networks.set([exampleNetwork({ nodes: 2, titles: { community: { '1': '#lamps' } } })]);
  expect(await titles()).toEqual({ community: { '1': '#lamps' } });
});
