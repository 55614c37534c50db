import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { defaultMap, type MapDescription } from '@pebble/contract';
import { countTiesByDay, prepareMap } from '@pebble/core';
import { provideMockStore } from '@ngrx/store/testing';
import { host } from '../../../testing/dom';
import { MapSession } from '../session/map-session';
import { PeriodStrip } from './period-strip';

jest.mock('../session/map-session', () => ({ MapSession: class MapSession {} }));

const day = (n: number): number => Date.UTC(2026, 2, n);
const data = {
  nodeCount: 2,
  nodes: {
    handle: ['ann', 'ben'],
    inDegree: Uint32Array.of(1, 1),
    betweenness: new Float64Array(2),
    community: Uint32Array.of(1, 1),
  },
  edges: { source: Uint32Array.of(0, 1), target: Uint32Array.of(1, 0), weight: Float64Array.of(3, 1) },
};
/** Ten days in March: tie 0 on the 1st, the 2nd and the 10th, tie 1 on the 5th. */
const dailyTieCounts = countTiesByDay([0, 0, 0, 1], [day(1), day(2), day(10), day(5)]);

describe('PeriodStrip', () => {
  const description = signal<MapDescription>(defaultMap);
  const passing = signal<MapDescription['show']['period']>(null);
  const session = {
    description,
    passing,
    passTo: (period: MapDescription['show']['period']) => passing.set(period),
    describe: (now: MapDescription) => description.set(now),
    dailyTieCounts: signal(dailyTieCounts),
    readDailyTieCounts: jest.fn(() => Promise.resolve()),
    prepared: () =>
      prepareMap(
        { ...data, dailyTieCounts },
        {
          ...defaultMap,
          show: { ...defaultMap.show, period: passing() ?? description().show.period },
        },
      ),
  };
  let page: HTMLElement;

  const open = async (): Promise<void> => {
    description.set(defaultMap);
    passing.set(null);
    TestBed.configureTestingModule({
      providers: [provideMockStore(), { provide: MapSession, useValue: session }],
    });
    const fixture = TestBed.createComponent(PeriodStrip);
    await fixture.whenStable();
    page = host(fixture);
  };
  const says = (): string => page.querySelector('[role=status]')!.textContent.replace(/\s+/g, ' ').trim();
  const press = (words: string): void => {
    [...page.querySelectorAll('button')].find((b) => b.textContent.trim() === words)!.click();
    TestBed.tick();
  };
  const slide = (label: string, to: number, event: 'input' | 'change'): void => {
    const field = page.querySelector<HTMLInputElement>(`[aria-label="${label}"]`)!;
    field.value = String(to);
    field.dispatchEvent(new Event(event));
    TestBed.tick();
  };

  it('says the whole time at first, with all messages and ties', async () => {
    await open();
    expect(says()).toBe('the whole time, 1 March to 10 March 2026 · 4 messages on 2 ties');
    expect(page.querySelectorAll('.strip i')).toHaveLength(10);
  });

  it('looks at a window while an end is moved, and keeps it when it is let go', async () => {
    await open();
    slide('Last day', 2, 'input');
    expect(says()).toBe('1 March to 2 March 2026 · 2 messages on 1 tie');
    expect(description().show.period).toBeNull();
    slide('Last day', 2, 'change');
    expect(description().show.period).toEqual({ from: day(1), until: day(3) });
    expect(passing()).toBeNull();
    press('Whole time');
    expect(description().show.period).toBeNull();
  });

  it('keeps its ends apart by a day', async () => {
    await open();
    slide('First day', 10, 'input');
    expect(says()).toContain('on 10 March 2026');
  });

  it('is played to its end, and kept where it stops', async () => {
    await open();
    jest.useFakeTimers();
    try {
      press('Play');
      expect(says()).toContain('on 1 March 2026 · 1 message on 1 tie');
      jest.advanceTimersByTime(4 * 900);
      TestBed.tick();
      expect(says()).toContain('on 5 March 2026');
      expect(description().show.period).toBeNull();
      jest.advanceTimersByTime(10 * 900);
      TestBed.tick();
      expect(description().show.period).toEqual({ from: day(10), until: day(11) });
      expect(page.textContent).toContain('Play');
    } finally {
      jest.useRealTimers();
    }
  });
});
