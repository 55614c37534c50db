import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideMockStore } from '@ngrx/store/testing';
import { defaultMap } from '@pebble/contract';
import { prepareMap, type MapNetwork } from '@pebble/core';
import { host, text } from '../../../testing/dom';
import { MapSession } from '../session/map-session';
import { MatrixPanel } from './matrix-panel';
import { mapMethods } from '../../../testing/map-methods';

jest.mock('../session/map-session', () => ({ MapSession: class MapSession {} }));

const data: MapNetwork = {
  nodeCount: 3,
  nodes: {
    handle: ['ann', 'ben', 'cy'],
    name: ['', '', ''],
    messages: new Float64Array(3),
    inDegree: Uint32Array.of(0, 1, 1),
    betweenness: new Float64Array(3),
    community: Uint32Array.of(1, 1, 1),
  },
  edges: { source: Uint32Array.of(0, 0), target: Uint32Array.of(1, 2), weight: Float64Array.of(4, 1) },
};

// There is no ground to paint on here.
beforeAll(() => jest.spyOn(HTMLCanvasElement.prototype, 'getContext').mockReturnValue(null));

async function panel() {
  TestBed.configureTestingModule({
    providers: [
      provideMockStore(),
      {
        provide: MapSession,
        useValue: {
          ...asked,
          data: signal(data),
          prepared: signal(prepareMap(data, defaultMap)),
          selection: signal(null),
        },
      },
    ],
  });
  const fixture = TestBed.createComponent(MatrixPanel);
  await fixture.whenStable();
  const canvas = host(fixture).querySelector('canvas')!;
  const at = (type: string, row: number, column: number): void => {
    const event = new MouseEvent(type, { bubbles: true });
    // Names take 150 pixels, a cell 16.
    Object.defineProperties(event, {
      offsetX: { value: 150 + 16 * column + 5 },
      offsetY: { value: 16 * row + 5 },
    });
    canvas.dispatchEvent(event);
  };
  return { fixture, at };
}

const asked = mapMethods();

describe('MatrixPanel', () => {
  it('tells what stands in a cell', async () => {
    const { fixture, at } = await panel();
    expect(text(fixture)).toContain('2 cells. A row is where a tie comes from');
    at('pointermove', 0, 1);
    await fixture.whenStable();
    expect(text(fixture)).toContain('ann → ben: weight 4');
    at('pointermove', 1, 0);
    await fixture.whenStable();
    expect(text(fixture)).toContain('ben → ann: no tie');
  });

  it('opens the tie of a cell, and the node of a row where there is none', async () => {
    const { at } = await panel();
    at('click', 0, 1);
    expect(asked.selectTie).toHaveBeenCalledWith({ source: 0, target: 1 });
    at('click', 2, 2);
    expect(asked.selectNode).toHaveBeenCalledWith(2);
  });
});
