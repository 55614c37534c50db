import { defaultMap, type TieForm } from '@pebble/contract';
import { prepareMap, type BundledPaths, type MapNetwork, type PreparedMap } from '@pebble/core';
import { bundleInWorker } from '../workers/bundle-in-worker';
import { TieBundling } from './tie-bundling';

jest.mock('../workers/bundle-in-worker', () => ({ bundleInWorker: jest.fn() }));

interface Told {
  onmessage: (message: { data: unknown }) => void;
  onerror: () => void;
  terminate: jest.Mock;
}

const network = (): MapNetwork => ({
  nodeCount: 3,
  nodes: {
    handle: ['ann', 'ben', 'cem'],
    inDegree: Uint32Array.of(1, 1, 1),
    betweenness: new Float64Array(3),
    community: Uint32Array.of(1, 1, 1),
  },
  edges: {
    source: Uint32Array.of(0, 1),
    target: Uint32Array.of(1, 2),
    weight: Float64Array.of(1, 5),
  },
});
const described = (of: MapNetwork, form: TieForm = 'bundled freely', atLeast = 1): PreparedMap =>
  prepareMap(of, {
    ...defaultMap,
    ties: { ...defaultMap.ties, form },
    show: { ...defaultMap.show, atLeast },
  });
const places = () => ({ x: new Float32Array(3), y: new Float32Array(3) });
const courses = { ties: 2, left: 0 } as BundledPaths;

describe('TieBundling', () => {
  let workers: Told[] = [];
  const begin = (): void => void jest.advanceTimersByTime(500);

  beforeEach(() => {
    jest.useFakeTimers();
    workers = [];
    jest.mocked(bundleInWorker).mockReset();
    jest.mocked(bundleInWorker).mockImplementation(() => {
      const worker = { terminate: jest.fn() } as unknown as Told;
      workers.push(worker);
      return worker as unknown as Worker;
    });
  });
  afterEach(() => jest.useRealTimers());

  it('draws together when nothing moves any more, tells how far it is, and gives the map its courses', () => {
    const bundling = new TieBundling();
    const map = described(network());
    bundling.follow(map, places(), true);
    begin();
    expect(workers).toHaveLength(0);
    bundling.follow(map, places(), false);
    expect(bundling.state()).toEqual({ what: 'running', share: null });
    begin();
    workers[0].onmessage({ data: { share: 0.4 } });
    expect(bundling.state()).toEqual({ what: 'running', share: 0.4 });
    expect(bundling.drawn(map)!.courses).toBeNull();
    workers[0].onmessage({ data: { courses } });
    expect(bundling.state()).toEqual({ what: 'none' });
    expect(bundling.drawn(map)!.courses).toBe(courses);
    expect(workers[0].terminate).toHaveBeenCalled();
  });

  it('does nothing for other forms of ties, and forgets what it had', () => {
    const bundling = new TieBundling();
    const [of, at] = [network(), places()];
    bundling.follow(described(of), at, false);
    begin();
    workers[0].onmessage({ data: { courses } });
    bundling.follow(described(of, 'bent'), at, false);
    expect(bundling.drawn(described(of))!.courses).toBeNull();
    bundling.follow(null, null, false);
    begin();
    expect(workers).toHaveLength(1);
  });

  it('begins anew when nodes moved or other ties are shown, and not for another colour', () => {
    const bundling = new TieBundling();
    const [of, at] = [network(), places()];
    bundling.follow(described(of), at, false);
    begin();
    workers[0].onmessage({ data: { courses } });
    bundling.follow(described(of), at, false);
    begin();
    expect(workers).toHaveLength(1);
    bundling.follow(described(of, 'bundled freely', 2), at, false);
    begin();
    expect(workers).toHaveLength(2);
    // What is there is drawn until the new is done.
    expect(bundling.drawn(described(of))!.courses).toBe(courses);
    bundling.follow(described(of, 'bundled freely', 2), places(), false);
    begin();
    expect(workers).toHaveLength(3);
    expect(workers[1].terminate).toHaveBeenCalled();
  });

  it('does not lay the courses of one network under another', () => {
    const bundling = new TieBundling();
    bundling.follow(described(network()), places(), false);
    begin();
    workers[0].onmessage({ data: { courses } });
    expect(bundling.drawn(described(network()))!.courses).toBeNull();
  });

  it('begins anew for a network that was read again, though its nodes stand where they stood', () => {
    const bundling = new TieBundling();
    const at = places();
    bundling.follow(described(network()), at, false);
    begin();
    workers[0].onmessage({ data: { courses } });
    const again = described(network());
    bundling.follow(again, at, false);
    begin();
    expect(workers).toHaveLength(2);
    workers[1].onmessage({ data: { courses } });
    expect(bundling.drawn(again)!.courses).toBe(courses);
  });

  it('can be stopped, and begun again', () => {
    const bundling = new TieBundling();
    const [map, at] = [described(network()), places()];
    bundling.follow(map, at, false);
    begin();
    bundling.stop();
    expect(bundling.state()).toEqual({ what: 'stopped' });
    workers[0].onmessage({ data: { courses } });
    expect(bundling.drawn(map)!.courses).toBeNull();
    bundling.follow(map, at, false);
    begin();
    expect(workers).toHaveLength(1);
    bundling.again();
    begin();
    workers[1].onmessage({ data: { courses } });
    expect(bundling.drawn(map)!.courses).toBe(courses);
  });

  it('begins again after a layout that came in between', () => {
    const bundling = new TieBundling();
    const [map, at] = [described(network()), places()];
    bundling.follow(map, at, false);
    bundling.follow(map, at, true);
    begin();
    expect(workers).toHaveLength(0);
    bundling.follow(map, at, false);
    begin();
    expect(workers).toHaveLength(1);
  });
});
