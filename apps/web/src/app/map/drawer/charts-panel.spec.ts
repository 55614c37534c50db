import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideMockStore } from '@ngrx/store/testing';
import { defaultMap, type ColumnInfo } from '@pebble/contract';
import { prepareMap, type MapNetwork } from '@pebble/core';
import { By } from '@angular/platform-browser';
import { Chart } from '../../../testing/chart-double';
import { button, host, text } from '../../../testing/dom';
import { exampleNetwork } from '../../../testing/examples';
import { ChartsPanel } from './charts-panel';
import { MapSession } from '../session/map-session';
import { mapMethods } from '../../../testing/map-methods';

jest.mock('../session/map-session', () => ({ MapSession: class MapSession {} }));
jest.mock('../../shared/chart', () => jest.requireActual('../../../testing/chart-double'));

const column = (name: string, title: string): ColumnInfo => ({ name, title, type: 'number', how: '' });
const data: MapNetwork = {
  nodeCount: 4,
  nodes: {
    handle: ['ann', 'ben', 'cy', 'dot'],
    name: ['', '', '', ''],
    messages: Float64Array.of(1, 1, 1, 1),
    inDegree: Uint32Array.of(0, 2, 2, 1),
    outDegree: Uint32Array.of(3, 0, 1, 1),
    degree: Uint32Array.of(3, 2, 3, 2),
    betweenness: Float64Array.of(0, 0.5, NaN, 0.1),
    community: Uint32Array.of(1, 1, 1, 1),
  },
  edges: { source: Uint32Array.of(0), target: Uint32Array.of(1), weight: Float64Array.of(1) },
};

async function panel() {
  TestBed.configureTestingModule({
    providers: [
      provideMockStore(),
      {
        provide: MapSession,
        useValue: {
          ...asked,
          network: signal(
            exampleNetwork({
              columns: [
                column('inDegree', 'in-degree'),
                column('outDegree', 'out-degree'),
                column('betweenness', 'betweenness'),
              ],
            }),
          ),
          data: signal(data),
          prepared: signal(prepareMap(data, defaultMap)),
          selection: signal(null),
          words: signal({ one: 'account', many: 'accounts', Many: 'Accounts' }),
        },
      },
    ],
  });
  const fixture = TestBed.createComponent(ChartsPanel);
  await fixture.whenStable();
  const chart = (): Chart => fixture.debugElement.query(By.directive(Chart)).componentInstance as Chart;
  return { fixture, chart };
}

const asked = mapMethods();

describe('ChartsPanel', () => {
  it('shows how two measures are spread, and gives the rows to save', async () => {
    const { chart } = await panel();
    expect(chart().label).toBe('How in-degree is spread');
    expect(chart().rows).toEqual([
      ['measure', 'value', 'nodes'],
      ['in-degree', 0, 1],
      ['in-degree', 1, 1],
      ['in-degree', 2, 2],
      ['out-degree', 0, 1],
      ['out-degree', 1, 2],
      ['out-degree', 3, 1],
    ]);
  });

  it('cumulates from all down', async () => {
    const { fixture, chart } = await panel();
    button(fixture, 'cumulative').click();
    await fixture.whenStable();
    expect(chart().rows!.slice(1, 4)).toEqual([
      ['in-degree', 0, 1],
      ['in-degree', 1, 0.75],
      ['in-degree', 2, 0.5],
    ]);
  });

  it('puts two measures against each other, says how far they agree, and selects what is clicked', async () => {
    const { fixture, chart } = await panel();
    button(fixture, 'Two measures').click();
    await fixture.whenStable();
    expect(chart().label).toBe('in-degree against betweenness');
    expect(text(fixture)).toContain('rank correlation 1.00');
    expect(text(fixture)).toContain('1 node without a value not shown');
    expect(host(fixture).querySelectorAll('select')).toHaveLength(2);
    chart().picked.emit({ dataIndex: 0, data: { node: 3 } } as never);
    expect(asked.selectNode).toHaveBeenCalledWith(3);
  });
});
