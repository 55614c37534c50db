import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideMockStore } from '@ngrx/store/testing';
import { defaultMap } from '@pebble/contract';
import { prepareMap, type Legibility, type MapNetwork } from '@pebble/core';
import { text } from '../../../testing/dom';
import { exampleNetwork } from '../../../testing/examples';
import { MapSession } from '../session/map-session';
import { LegibilityFigures } from './legibility-figures';

jest.mock('../session/map-session', () => ({ MapSession: class MapSession {} }));
const read = jest.fn();
jest.mock('./legibility-reader', () => ({
  LegibilityReader: class {
    read = (request: unknown) => read(request) as Promise<Legibility | null>;
    stop = jest.fn();
  },
}));

const network: MapNetwork = {
  nodeCount: 3,
  nodes: {
    handle: ['ann', 'ben', 'cy'],
    community: Uint32Array.of(1, 1, 1),
    inDegree: Uint32Array.of(0, 1, 1),
    betweenness: new Float64Array(3),
  },
  edges: { source: Uint32Array.of(0, 0), target: Uint32Array.of(1, 2), weight: Float64Array.of(1, 4) },
};
const found: Legibility = {
  crossings: 1200,
  crossingsAreEstimated: true,
  crossingShare: 0.1,
  overlaps: 2,
  neighboursKept: 0.004,
  stress: 0.25,
};

describe('LegibilityFigures', () => {
  async function shown(x: Float32Array, running = false) {
    TestBed.configureTestingModule({
      providers: [
        provideMockStore(),
        {
          provide: MapSession,
          useValue: {
            network: signal(exampleNetwork({ nodes: 3 })),
            data: signal(network),
            description: signal(defaultMap),
            prepared: signal(prepareMap(network, defaultMap)),
            places: signal({ x, y: new Float32Array(3) }),
            size: signal({ width: 900, height: 600 }),
            layout: signal({ what: running ? 'running' : 'done' }),
          },
        },
      ],
    });
    const fixture = TestBed.createComponent(LegibilityFigures);
    await fixture.whenStable();
    return text(fixture);
  }

  it('say how well the map reads, and what would help', async () => {
    read.mockResolvedValue(found);
    const said = await shown(Float32Array.of(0, 300, 600));
    expect(said).toContain('1,200 (estimated)');
    expect(said).toContain('fewer with ties of more weight only');
    expect(said).toContain('make nodes smaller');
    expect(said).toContain('0.4 %');
    expect(said).toContain('arrange by distances');
    expect(said).toContain('0 of 3');
  });

  it('count the names that have no room', async () => {
    read.mockResolvedValue({ ...found, overlaps: 0 });
    // All three in one place.
    const said = await shown(new Float32Array(3));
    expect(said).toMatch(/names without room\s*[0-3] of 3/);
    expect(said).not.toContain('make nodes smaller');
  });

  it('are being read as long as the map is being arranged', async () => {
    read.mockClear();
    expect(await shown(new Float32Array(3), true)).toContain('Being read');
    expect(read).not.toHaveBeenCalled();
  });
});
