import { defaultMap } from '@pebble/contract';
import type { MapNetwork } from '../../network/mapNetwork';
import { PAPER } from '../../style/palette';
import { prepareMap } from '../../scene/prepare';
import { roomForNames } from './roomForNames';

const n = 12;
const network: MapNetwork = {
  nodeCount: n,
  nodes: {
    handle: Array.from({ length: n }, (_, v) => `somebody ${v}`),
    community: new Uint32Array(n).fill(1),
    inDegree: new Uint32Array(n),
    betweenness: new Float64Array(n),
  },
  edges: { source: new Uint32Array(0), target: new Uint32Array(0), weight: new Float64Array(0) },
};
const room = (count: number, apart: number) =>
  roomForNames({
    map: prepareMap(network, { ...defaultMap, names: { ...defaultMap.names, count } }),
    x: Float32Array.from({ length: n }, (_, v) => 60 + apart * (v % 4)),
    y: Float32Array.from({ length: n }, (_, v) => 40 + apart * Math.floor(v / 4)),
    view: { scale: 1, x: 0, y: 0 },
    size: { width: 800, height: 600 },
    theme: PAPER,
    focus: null,
  });

describe('room for names', () => {
  it('is there for all where nodes stand apart, and not where they stand close', () => {
    expect(room(20, 150)).toEqual({ wanted: n, without: 0 });
    const close = room(20, 12);
    expect(close.wanted).toBe(n);
    expect(close.without).toBeGreaterThan(3);
    expect(room(2, 12).wanted).toBe(2);
    expect(room(0, 12)).toEqual({ wanted: 0, without: 0 });
  });
});
