import { signal } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { defaultMap, type MapDescription } from '@pebble/contract';
import type { LegendSpot } from '@pebble/core';
import { provideMockStore } from '@ngrx/store/testing';
import { host } from '../../../testing/dom';
import { LegendSpots } from './legend-spots';
import { cornerAt, withGroupName, withHeading } from '../session/legend-words';
import { MapSession } from '../session/map-session';
import { mapMethods } from '../../../testing/map-methods';

jest.mock('../session/map-session', () => ({ MapSession: class MapSession {} }));

const box = { x: 20, y: 400, width: 190, height: 18 };
const spots: readonly LegendSpot[] = [
  { ...box, part: 'colour', group: null, key: null, label: 'Colour: community' },
  { ...box, part: null, group: 3, key: '3', label: '3 · round ann, 12 nodes' },
  { ...box, part: null, group: null, key: 'press', label: 'press, 4 nodes' },
];

const asked = mapMethods();

describe('words of the legend', () => {
  const legend = { ...defaultMap.legend, names: { '3': 'Traders', '4': 'Bus riders' } };

  it('are one’s own until they are emptied', () => {
    expect(withGroupName(legend, '3', 'Shops').names).toEqual({ '3': 'Shops', '4': 'Bus riders' });
    expect(withGroupName(legend, '3', '').names).toEqual({ '4': 'Bus riders' });
    expect(withHeading(legend, 'size', 'How often named').headings).toEqual({ size: 'How often named' });
    expect(withHeading({ ...legend, headings: { size: 'x' } }, 'size', '').headings).toEqual({});
  });

  it('stand in the corner that is nearest', () => {
    const size = { width: 100, height: 60 };
    expect([
      cornerAt(1, 1, size),
      cornerAt(99, 1, size),
      cornerAt(1, 59, size),
      cornerAt(99, 59, size),
    ]).toEqual(['upper left', 'upper right', 'lower left', 'lower right']);
  });
});

describe('LegendSpots', () => {
  const description = signal<MapDescription>(defaultMap);
  let fixture: ComponentFixture<LegendSpots>;
  beforeEach(() => {
    jest.useFakeTimers();
    description.set(defaultMap);
    const session = { description, data: signal(null), network: signal(null) };
    TestBed.configureTestingModule({
      providers: [provideMockStore(), { provide: MapSession, useValue: { ...session, ...asked } }],
    });
    fixture = TestBed.createComponent(LegendSpots);
    fixture.componentRef.setInput('spots', spots);
    fixture.detectChanges();
  });
  afterEach(() => jest.useRealTimers());

  const line = (name: RegExp): HTMLButtonElement =>
    [...host(fixture).querySelectorAll<HTMLButtonElement>('.spot')].find((one) =>
      name.test(one.getAttribute('aria-label')!),
    )!;
  const field = (): HTMLInputElement | null => host(fixture).querySelector('input');
  const fire = (target: Element, event: Event): void => {
    target.dispatchEvent(event);
    fixture.detectChanges();
  };
  const written = (legend: Partial<MapDescription['legend']>): MapDescription => ({
    ...defaultMap,
    legend: { ...defaultMap.legend, ...legend },
  });

  it('writes a heading anew where it stands', () => {
    fire(line(/^Legend, Colour/), new Event('click'));
    field()!.value = '  Who talks with whom ';
    fire(field()!, new Event('blur'));
    expect(asked.describe).toHaveBeenCalledWith(written({ headings: { colour: 'Who talks with whom' } }));
    expect(field()).toBeNull();
  });

  it('reads a community at one press, and writes its name at two', () => {
    fire(line(/^Community 3/), new Event('click'));
    jest.advanceTimersByTime(500);
    expect(asked.selectCommunity).toHaveBeenCalledWith(3);
    asked.selectCommunity.mockClear();
    // As a browser tells of it.
    fire(line(/^Community 3/), new Event('click'));
    fire(line(/^Community 3/), new Event('click'));
    fire(line(/^Community 3/), new Event('dblclick'));
    jest.advanceTimersByTime(500);
    expect([asked.describe, asked.selectCommunity].flatMap(({ mock }) => mock.calls)).toEqual([]);
    expect(field()!.placeholder).toBe('3 · round ann');
    field()!.value = 'Traders';
    fire(field()!, new Event('blur'));
    expect(asked.describe).toHaveBeenCalledWith(written({ names: { '3': 'Traders' } }));
  });

  it('can be left as it was, and does nothing where nothing was changed', () => {
    fire(line(/^Group press/), new Event('click'));
    field()!.value = 'something';
    fire(field()!, new KeyboardEvent('keydown', { key: 'Escape' }));
    expect(field()).toBeNull();
    fire(line(/^Group press/), new KeyboardEvent('keydown', { key: 'F2' }));
    fire(field()!, new Event('blur'));
    expect([asked.describe, asked.selectCommunity].flatMap(({ mock }) => mock.calls)).toEqual([]);
  });

  it('goes on to all settings with what was written', () => {
    const asked = jest.fn();
    fixture.componentInstance.settingsAsked.subscribe(asked);
    fire(line(/^Group press/), new Event('click'));
    host(fixture).querySelector<HTMLButtonElement>('.edit button')!.click();
    expect(asked).toHaveBeenCalledTimes(1);
  });

  it('is dragged to another corner, and not pressed by that', () => {
    const map = document.createElement('pt-map-canvas');
    map.getBoundingClientRect = () => ({ left: 0, top: 0, width: 1000, height: 600 }) as DOMRect;
    host(fixture).before(map);
    map.append(host(fixture));
    const press = (type: string, clientX: number, clientY: number): void => {
      const event = Object.assign(new Event(type, { bubbles: true }), { clientX, clientY, button: 0 });
      fire(line(/^Legend, Colour/), event);
    };
    press('pointerdown', 30, 400);
    press('pointermove', 800, 100);
    expect(host(fixture).textContent).toContain('The legend goes here');
    press('pointerup', 800, 100);
    fire(line(/^Legend, Colour/), new Event('click'));
    expect(asked.describe.mock.calls).toEqual([[written({ corner: 'upper right' })]]);
    expect(field()).toBeNull();
  });
});
