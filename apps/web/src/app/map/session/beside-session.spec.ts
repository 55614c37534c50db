import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { defaultMap, LayoutSettings } from '@pebble/contract';
import { graphOf, neighbourRows, toArrow, type MapNetwork } from '@pebble/core';
import { of, throwError } from 'rxjs';
import { Api } from '../../api/api';
import { exampleNetwork } from '../../../testing/examples';
import { BesideSession } from './beside-session';
import { MapSession } from './map-session';

jest.mock('../workers/bundle-in-worker', () => ({ bundleInWorker: jest.fn() }));
jest.mock('./map-session', () => ({ MapSession: class MapSession {} }));

const table = (handles: string[], ties: [number, number][]): MapNetwork => ({
  nodeCount: handles.length,
  nodes: {
    handle: handles,
    name: handles.map(() => ''),
    inDegree: new Uint32Array(handles.length),
    degree: new Uint32Array(handles.length),
    betweenness: new Float64Array(handles.length),
    community: new Uint32Array(handles.length).fill(1),
  },
  edges: {
    source: Uint32Array.from(ties, ([a]) => a),
    target: Uint32Array.from(ties, ([, b]) => b),
    weight: new Float64Array(ties.length).fill(1),
  },
});
const first = table(['ann', 'ben', 'cem'], [[0, 1]]);
const second = table(['ben', 'dora', 'ann'], [[0, 1]]);

describe('BesideSession', () => {
  const chosen = signal<readonly number[]>([]);
  const open = signal(exampleNetwork({ id: 'a', nodes: 3 }));
  const api = {
    network: jest.fn(({ network }: { network: string }) => of(exampleNetwork({ id: network, nodes: 3 }))),
    savedMap: jest.fn(() =>
      of({ description: defaultMap, layout: null, iterations: null, moved: 0, hasPositions: true }),
    ),
    table: jest.fn(({ table: name }: { table: 'nodes' | 'edges' }) => of(toArrow(second[name]))),
    positions: jest.fn(() => of(Float32Array.of(1, 2, 3, 4, 5, 6).buffer)),
    sendBytes: jest.fn(() => of({ id: 'upload' })),
    step: jest.fn(() => of({ state: 'done' })),
  };
  let beside: BesideSession;

  beforeEach(() => {
    const session = {
      network: open,
      data: signal(first),
      rows: signal(neighbourRows(graphOf(3, first.edges))),
      places: signal({ x: Float32Array.of(10, 20, 30), y: Float32Array.of(0, 0, 0) }),
      settings: signal(LayoutSettings.parse({})),
      layout: signal({ what: 'rest' }),
      chosen,
    };
    TestBed.configureTestingModule({
      providers: [BesideSession, { provide: MapSession, useValue: session }, { provide: Api, useValue: api }],
    });
    beside = TestBed.inject(BesideSession);
    chosen.set([]);
  });

  it('puts the nodes that both have where they stand in the open map, or leaves its own places', async () => {
    await beside.open('b');
    expect(beside.common()).toBe(2);
    expect([beside.places()!.x[0], beside.places()!.x[2]]).toEqual([20, 10]);
    expect(beside.samePlaces()).toBe(true);
    beside.borrows.set(false);
    expect([...beside.places()!.x]).toEqual([1, 3, 5]);
    expect(beside.samePlaces()).toBe(false);
  });

  it('shows what is chosen on the open map, by name', async () => {
    await beside.open('b');
    chosen.set([0, 2]);
    expect(beside.chosen()).toEqual([2]);
  });

  it('keeps the borrowed places as its own by a step', async () => {
    await beside.open('b');
    await beside.keepBorrowed();
    expect(api.step).toHaveBeenCalledWith(
      expect.anything(),
      'arrange-map',
      expect.objectContaining({ network: 'b', upload: 'upload' }),
    );
  });

  it('says what went wrong', async () => {
    api.network.mockReturnValueOnce(throwError(() => new Error('This network is no longer there.')));
    await beside.open('b');
    expect(beside.error()).toBe('This network is no longer there.');
    expect(beside.busy()).toBe(false);
  });
});
