import { TestBed } from '@angular/core/testing';
import { provideStore, Store } from '@ngrx/store';
import { defaultMap } from '@pebble/contract';
import { toArrow } from '@pebble/core';
import { NEVER, of } from 'rxjs';
import { exampleNetwork } from '../../../testing/examples';
import { Api } from '../../api/api';
import { WorkActions } from '../../store/work.actions';
import { work } from '../../store/work.reducer';
import { MapSession } from './map-session';
import { NodePictures } from './node-pictures';

jest.mock('../workers/bundle-in-worker', () => ({ bundleInWorker: jest.fn() }));
jest.mock('../workers/layout-run', () => ({
  LayoutRun: class LayoutRun {
    end(): void {}
  },
}));

const nodes = { handle: ['ann', 'ben'], name: ['', ''], community: Uint32Array.of(1, 1) };
const edges = { source: Uint32Array.of(0), target: Uint32Array.of(1), weight: Float64Array.of(1) };
const saved = { description: defaultMap, layout: null, iterations: null, moved: 0, hasPositions: true };

describe('MapSession', () => {
  // Two parts of one store with a member of the same name are only warned of.
  const warn = jest.spyOn(console, 'warn');
  afterEach(() => expect(warn).not.toHaveBeenCalled());

  it('does not carry what is selected into the next network, not for a moment', async () => {
    const api = {
      network: ({ network }: { network: string }) => of(exampleNetwork({ id: network, nodes: 2 })),
      savedMap: ({ network }: { network: string }) => (network === 'first' ? of(saved) : NEVER),
      table: ({ table }: { table: 'nodes' | 'edges' }) => of(toArrow(table === 'nodes' ? nodes : edges)),
      positions: () => of(Float32Array.of(1, 2, 3, 4).buffer),
    };
    TestBed.configureTestingModule({
      providers: [
        provideStore({ [work.name]: work.reducer }),
        { provide: Api, useValue: api },
        { provide: NodePictures, useValue: { list: () => [] } },
      ],
    });
    const session = TestBed.inject(MapSession);
    const store = TestBed.inject(Store);
    store.dispatch(WorkActions.studyOpened({ id: 's' }));
    await session.open('first');
    session.selectCommunity(1);
    expect(session.selection()).toEqual({ what: 'community', community: 1 });
    // The network is known before its tables are.
    void session.open('second');
    await Promise.resolve();
    await Promise.resolve();
    expect(session.network()?.id).toBe('second');
    expect(session.selection()).toBeNull();
  });
});
