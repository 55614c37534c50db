import { TestBed } from '@angular/core/testing';
import { provideStore, Store } from '@ngrx/store';
import { defaultMap, type Step } from '@pebble/contract';
import { toArrow } from '@pebble/core';
import { NEVER, of, Subject } from 'rxjs';
import { exampleNetwork, exampleStep, exampleStudy } from '../../../testing/examples';
import { Api } from '../../api/api';
import { WorkActions } from '../../store/work.actions';
import { work } from '../../store/work.reducer';
import { MapSession } from './map-session';
import { NodePictures } from './node-pictures';
import type { LayoutRun } from '../workers/layout-run';
import type { LayoutRequest } from '../workers/layout.worker';

type LayoutEars = Parameters<LayoutRun['start']>[1];

jest.mock('../workers/bundle-in-worker', () => ({ bundleInWorker: jest.fn() }));
const begun: LayoutRequest[] = [];
const told: LayoutEars[] = [];
jest.mock('../workers/layout-run', () => ({
  LayoutRun: class LayoutRun {
    isRunning = false;
    start(request: LayoutRequest, ears: LayoutEars): void {
      begun.push(request);
      told.push(ears);
      this.isRunning = true;
    }
    end(): void {
      this.isRunning = false;
    }
  },
}));
const nodes = {
  handle: ['ann', 'ben'],
  name: ['', ''],
  community: Uint32Array.of(1, 1),
  inDegree: Uint32Array.of(0, 1),
  degree: Uint32Array.of(1, 1),
  betweenness: new Float64Array(2),
};
const edges = { source: Uint32Array.of(0), target: Uint32Array.of(1), weight: Float64Array.of(1) };
const saved = { description: defaultMap, layout: null, iterations: null, moved: 0, hasPositions: true };

/** An application in which nothing happens beside. */
const calm = {
  network: ({ network }: { network: string }) => of(exampleNetwork({ id: network, nodes: 2 })),
  savedMap: () => of(saved),
  table: ({ table }: { table: 'nodes' | 'edges' }) => of(toArrow(table === 'nodes' ? nodes : edges)),
  positions: () => of(Float32Array.of(1, 2, 3, 4).buffer),
};
const OUTLINED = { ...defaultMap, colour: { ...defaultMap.colour, column: 'component' } };

/** A session that asks such an application. */
function sessionWith(api: object): MapSession {
  TestBed.configureTestingModule({
    providers: [
      provideStore({ [work.name]: work.reducer }),
      { provide: Api, useValue: api },
      { provide: NodePictures, useValue: { list: () => [] } },
    ],
  });
  return TestBed.inject(MapSession);
}

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
    const session = sessionWith(api);
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

  it('knows what other screens and steps that follow do to the network that is open', async () => {
    const table = jest.fn(({ table: name }: { table: 'nodes' | 'edges' }) =>
      of(toArrow(name === 'nodes' ? { ...nodes, 'through time': ['1', '1'] } : edges)),
    );
    const savedMap = jest.fn(() => of(saved));
    const api = {
      network: () => of(exampleNetwork({ id: 'first', nodes: 2 })),
      savedMap,
      table,
      positions: () => of(Float32Array.of(1, 2, 3, 4).buffer),
      step: jest.fn(() => NEVER),
    };
    const session = sessionWith(api);
    const store = TestBed.inject(Store);
    store.dispatch(WorkActions.studyOpened({ id: exampleStudy.id }));
    await session.open('first');
    const ended = async (change: Partial<Step>): Promise<void> => {
      store.dispatch(WorkActions.stepEnded({ step: exampleStep(change) }));
      TestBed.tick();
      await new Promise((later) => setTimeout(later, 400));
    };
    table.mockClear();
    // Of another network, or of what does not change this one, nothing is read.
    await ended({ id: 8, kind: 'share-of-code', result: { network: 'other' } });
    await ended({ id: 9, kind: 'scan-resolutions', parameters: { network: 'first' } });
    expect(table).not.toHaveBeenCalled();
    const ends = session.data()!.edges['source'];
    await ended({ id: 10, kind: 'share-of-code', result: { network: 'first' } });
    expect(table).toHaveBeenCalledTimes(2);
    // The same ties are known as the same, so that nothing is drawn anew for them.
    expect(session.data()!.nodes['through time']).toEqual(['1', '1']);
    expect(session.data()!.edges['source']).toBe(ends);
    // Once is enough.
    await ended({ id: 11, kind: 'describe-map', parameters: { network: 'first' } });
    expect(table).toHaveBeenCalledTimes(2);
    // Groups that are followed colour the maps of slices; that can be undone.
    const followed = { ...defaultMap, colour: { ...defaultMap.colour, column: 'through time' } };
    savedMap.mockReturnValue(of({ ...saved, description: followed }));
    await ended({ id: 12, kind: 'follow-groups', result: { slices: [{ network: 'first' }] } });
    expect(session.description().colour.column).toBe('through time');
    expect(api.step).not.toHaveBeenCalled();
    session.undo();
    expect(session.description().colour.column).toBe('community');
    // What hands changed stays.
    savedMap.mockReturnValue(of({ ...saved, description: followed }));
    await ended({ id: 13, kind: 'follow-groups', result: { slices: [{ network: 'first' }] } });
    expect(session.description().colour.column).toBe('community');
  });

  it('does not take what was read before a change was kept for the newer', async () => {
    const asked = new Subject<typeof saved>();
    const step = jest.fn(() => of(exampleStep({ kind: 'describe-map' })));
    const savedMap = jest.fn();
    const session = sessionWith({ ...calm, savedMap: savedMap.mockReturnValue(of(saved)), step });
    TestBed.inject(Store).dispatch(WorkActions.studyOpened({ id: 's' }));
    await session.open('first');
    session.describe(OUTLINED);
    savedMap.mockReturnValue(asked);
    const refreshed = session.refresh();
    session.keepNow();
    expect(step).toHaveBeenCalledTimes(1);
    asked.next(saved);
    asked.complete();
    await refreshed;
    expect(session.description()).toBe(OUTLINED);
  });

  it('keeps what was changed just now when another map is opened, or the page is left', async () => {
    const step = jest.fn(() => of(exampleStep({ kind: 'describe-map' })));
    const sendBytes = jest.fn(() => of({ id: 'u' }));
    const session = sessionWith({ ...calm, step, sendBytes });
    const described = (): unknown[] =>
      step.mock.calls
        .filter((asked: unknown[]) => asked[1] === 'describe-map')
        .map((asked: unknown[]) => asked[2]);
    TestBed.inject(Store).dispatch(WorkActions.studyOpened({ id: 's' }));
    await session.open('first');
    session.describe(OUTLINED);
    session.moveNodes([1], [[30, 40]]);
    await session.open('second');
    expect(described()).toEqual([{ network: 'first', description: OUTLINED }]);
    expect(sendBytes).toHaveBeenCalledTimes(1);

    session.describe(OUTLINED);
    window.dispatchEvent(new Event('pagehide'));
    window.dispatchEvent(new Event('pagehide'));
    expect(described()).toHaveLength(2);
    // Where nodes are takes two requests: whoever leaves before them is asked to stay.
    const leave = (): boolean => window.dispatchEvent(new Event('beforeunload', { cancelable: true }));
    expect(leave()).toBe(true);
    session.moveNodes([0], [[3, 4]]);
    expect(leave()).toBe(false);
    expect(sendBytes).toHaveBeenCalledTimes(2);
  });

  it('goes on from where the nodes are, also those that were moved just now', async () => {
    const api = {
      network: () => of(exampleNetwork({ id: 'first', nodes: 2 })),
      savedMap: () => of(saved),
      table: ({ table }: { table: 'nodes' | 'edges' }) => of(toArrow(table === 'nodes' ? nodes : edges)),
      positions: () => of(Float32Array.of(1, 2, 3, 4).buffer),
      sendBytes: () => NEVER,
    };
    const session = sessionWith(api);
    TestBed.inject(Store).dispatch(WorkActions.studyOpened({ id: 's' }));
    await session.open('first');
    session.moveNodes([1], [[30, 40]]);
    session.arrange({ ...session.settings(), begin: 'as it is' });
    const { now } = begun.at(-1)!.data;
    expect([Array.from(now!.x), Array.from(now!.y)]).toEqual([
      [1, 30],
      [2, 40],
    ]);
    expect(session.layout()).toEqual({ what: 'running', done: '' });
    // Ended before it has got anywhere, the map is as it was.
    session.cancelLayout();
    expect([session.layout().what, [...session.places()!.x]]).toEqual(['rest', [1, 30]]);
  });

  it('has places also where its first arrangement is stopped before the first picture of it', async () => {
    const api = {
      network: () => of(exampleNetwork({ id: 'first', nodes: 2 })),
      savedMap: () => of({ ...saved, hasPositions: false }),
      table: ({ table }: { table: 'nodes' | 'edges' }) => of(toArrow(table === 'nodes' ? nodes : edges)),
      sendBytes: () => NEVER,
    };
    const session = sessionWith(api);
    TestBed.inject(Store).dispatch(WorkActions.studyOpened({ id: 's' }));
    await session.open('first');
    expect([session.layout().what, session.places()]).toEqual(['running', null]);
    session.stopLayout();
    expect(session.layout()).toEqual({ what: 'running', done: 'ends at its first places' });
    const frame = { iteration: 3, done: false, cameToRest: false, overlaps: 0 };
    told.at(-1)!.frame({ x: Float32Array.of(5, 6), y: Float32Array.of(7, 8), ...frame });
    expect([session.layout().what, [...session.places()!.x]]).toEqual(['rest', [5, 6]]);
  });
});
