import { signal, type Type } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { defaultMap, type MapDescription } from '@pebble/contract';
import { prepareMap } from '@pebble/core';
import { provideMockStore } from '@ngrx/store/testing';
import { host } from '../../testing/dom';
import { exampleNetwork } from '../../testing/examples';
import { LegendPanel } from './panels/legend-panel';
import { MapSession } from './session/map-session';
import { NoteList } from './panels/note-list';

jest.mock('./session/map-session', () => ({ MapSession: class MapSession {} }));

const data = {
  nodeCount: 3,
  nodes: {
    handle: ['ann', 'ben', 'cem'],
    name: ['', '', ''],
    inDegree: Uint32Array.of(1, 2, 3),
    degree: Uint32Array.of(2, 2, 2),
    betweenness: new Float64Array(3),
    community: Uint32Array.of(1, 1, 2),
  },
  edges: { source: Uint32Array.of(0), target: Uint32Array.of(1), weight: Float64Array.of(1) },
};
const description = signal<MapDescription>(defaultMap);
const session = {
  description,
  titles: signal({}),
  network: signal(exampleNetwork({ columns: [] })),
  data: signal(data),
  prepared: () => prepareMap(data, description()),
  view: signal({ scale: 2, x: 0, y: 0 }),
  describe: (now: MapDescription) => description.set(now),
};
let page: HTMLElement;

/** Shows a part of the map screen; what it changes is the description from then on. */
async function show<T>(part: Type<T>, inputs: Record<string, unknown> = {}): Promise<void> {
  description.set(defaultMap);
  TestBed.configureTestingModule({
    providers: [provideMockStore(), { provide: MapSession, useValue: session }],
  });
  const fixture = TestBed.createComponent(part);
  for (const [name, value] of Object.entries(inputs)) fixture.componentRef.setInput(name, value);
  await fixture.whenStable();
  page = host(fixture);
}

function write(label: string, text: string, event: 'input' | 'change'): void {
  const field = page.querySelector<HTMLInputElement>(`[aria-label="${label}"]`)!;
  field.value = text;
  field.dispatchEvent(new Event(event));
  TestBed.tick();
}

function press(words: string): void {
  [...page.querySelectorAll('button')].find((b) => b.textContent.trim() === words)!.click();
  TestBed.tick();
}

describe('NoteList', () => {
  const at = { what: 'node' as const, node: 1 };

  it('puts a note beside its node, at the same distance on the screen at any scale', async () => {
    await show(NoteList, { at });
    press('Write a note on the map');
    // Fields of a form are known to it a turn later.
    await new Promise((resolve) => setTimeout(resolve));
    write('New note', '  Began it all ', 'input');
    press('Put it on the map');
    expect(description().notes).toEqual([{ text: 'Began it all', at, dx: 60, dy: -35 }]);
  });

  it('changes a note, and takes it away with its last word', async () => {
    await show(NoteList, { at });
    description.set({ ...defaultMap, notes: [{ text: 'Old', at, dx: 0, dy: 0 }] });
    TestBed.tick();
    write('Note on the map', 'New', 'change');
    expect(description().notes[0].text).toBe('New');
    write('Note on the map', ' ', 'change');
    expect(description().notes).toEqual([]);
  });

  it('leaves notes about others alone', async () => {
    const other = { text: 'Other', at: { what: 'tie' as const, source: 1, target: 2 }, dx: 0, dy: 0 };
    await show(NoteList, { at });
    description.set({ ...defaultMap, notes: [other, { text: 'Own', at, dx: 0, dy: 0 }] });
    TestBed.tick();
    expect(page.querySelectorAll('textarea')).toHaveLength(1);
    press('Take away');
    expect(description().notes).toEqual([other]);
  });
});

describe('LegendPanel', () => {
  it('takes parts away and puts them back', async () => {
    await show(LegendPanel);
    const [colours] = page.querySelectorAll<HTMLInputElement>('[type=checkbox]');
    colours.click();
    TestBed.tick();
    expect(description().legend.without).toEqual(['colour']);
    colours.click();
    expect(description().legend.without).toEqual([]);
  });

  it('has headings and names in words of one’s own, and the usual ones when these are emptied', async () => {
    await show(LegendPanel);
    expect(page.querySelector<HTMLInputElement>('[aria-label="Heading of colours"]')!.placeholder).toBe(
      'Colour: community',
    );
    write('Heading of colours', 'Who talks with whom', 'change');
    write('Name of 1 · round ben', 'Night owls', 'change');
    expect(description().legend).toMatchObject({
      headings: { colour: 'Who talks with whom' },
      names: { '1': 'Night owls' },
    });
    write('Heading of colours', '', 'change');
    expect(description().legend.headings).toEqual({});
  });
});
