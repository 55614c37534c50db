import { host } from '../../testing/dom';
import { signal } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { defaultMap, LayoutSettings, type ColumnInfo } from '@pebble/contract';
import { captionPhrases, prepareMap, type MapNetwork } from '@pebble/core';
import { provideMockStore } from '@ngrx/store/testing';
import { exampleNetwork } from '../../testing/examples';
import { CaptionBar } from './panels/caption-bar';
import { MapSession } from './session/map-session';
import { NodeFinder } from './panels/node-finder';
import { NodePictures } from './session/node-pictures';
import { rankingColumn, tieColumns, tieDetail } from './session/tie-columns';
import { mapMethods } from '../../testing/map-methods';

// The real one starts a web worker by the address of its module, which only the browser's build knows.
jest.mock('./session/map-session', () => ({ MapSession: class MapSession {} }));
jest.mock('./settings/legibility-reader', () => jest.requireActual('../../testing/reader-double'));
jest.mock('./settings/layout-trials', () => jest.requireActual('../../testing/trials-double'));

/** Three accounts, the first two of one community. */
const woven: MapNetwork = {
  nodeCount: 3,
  nodes: {
    handle: ['ann', 'annabel', 'ben'],
    name: ['Ann', 'Annabel', 'Ben Quay'],
    messages: Float64Array.of(1, 1, 1),
    inDegree: Uint32Array.of(1, 5, 2),
    outDegree: Uint32Array.of(0, 0, 0),
    degree: Uint32Array.of(1, 5, 2),
    betweenness: Float64Array.of(0, 0.5, 0.1),
    community: Uint32Array.of(1, 1, 2),
  },
  edges: {
    source: Uint32Array.of(0, 2),
    target: Uint32Array.of(1, 1),
    weight: Float64Array.of(3, 1),
    replies: Float64Array.of(2, 0),
    mentions: Float64Array.of(1, 1),
    first: Float64Array.of(0, 0),
    last: Float64Array.of(0, 0),
  },
};
const finished: MapNetwork = {
  nodeCount: 2,
  nodes: { handle: ['n1', 'n2'], name: ['', 'Second'], degree: Uint32Array.of(1, 1) },
  edges: {
    source: Uint32Array.of(0),
    target: Uint32Array.of(1),
    weight: Float64Array.of(1234),
    mood: ['calm'],
    age: Float64Array.of(3),
  },
};

const asked = mapMethods();

describe('columns of ties', () => {
  it('say in words what stands behind a tie', () => {
    expect(tieDetail(woven, 0)).toBe('2 replies, 1 mention');
    expect(tieDetail(woven, 1)).toBe('1 mention');
    expect(tieDetail(finished, 0)).toBe('weight 1,234');
  });

  it('are told apart from ends, weight and dates', () => {
    expect(tieColumns(woven)).toEqual({ numbers: ['replies', 'mentions'], texts: [] });
    expect(tieColumns(finished)).toEqual({ numbers: ['age'], texts: ['mood'] });
  });

  it('rank by in-degree where ties have a direction, by degree otherwise', () => {
    expect(rankingColumn(woven)).toEqual({ column: 'inDegree', words: 'addressed by' });
    expect(rankingColumn(finished)).toEqual({ column: 'degree', words: 'ties:' });
  });
});

const columns: ColumnInfo[] = [
  { name: 'inDegree', title: 'in-degree', type: 'number', how: 'Accounts that address it.' },
  { name: 'betweenness', title: 'betweenness', type: 'number', how: 'Share of paths.' },
  { name: 'community', title: 'community', type: 'category', how: 'Group.' },
];
const network = exampleNetwork({ columns, measures: { communities: 2 } });
const prepared = prepareMap(woven, defaultMap);
const caption = captionPhrases({
  weave: network.weave,
  directed: true,
  description: defaultMap,
  moved: 0,
  shown: { nodes: 3, edges: 2 },
  hidden: { nodes: 0, edges: 0 },
});
const session = {
  caption: signal(caption),
  description: signal(defaultMap),
  titles: signal({}),
  network: signal(network),
  words: signal({ one: 'account', many: 'accounts', Many: 'Accounts' }),
  hasMessages: signal(true),
  isByAddress: signal(true),
  prepared: signal(prepared),
  data: signal(woven),
  settings: signal(LayoutSettings.parse({})),
  places: signal({ x: Float32Array.of(0, 40, 80), y: Float32Array.of(0, 30, 0) }),
  size: signal({ width: 900, height: 600 }),
  layout: signal({ what: 'rest' }),
  moves: signal(new Map()),
  selection: signal(null),
  chosen: signal<readonly number[]>([]),
  arrange: jest.fn(),
  takePlaces: jest.fn(),
};

function setUp(): void {
  TestBed.configureTestingModule({
    providers: [
      provideRouter([]),
      provideMockStore(),
      { provide: MapSession, useValue: { ...session, ...asked } },
      { provide: NodePictures, useValue: { list: signal([]), open: () => Promise.resolve() } },
    ],
  });
}

describe('CaptionBar', () => {
  const show = async (): Promise<ComponentFixture<CaptionBar>> => {
    const fixture = TestBed.createComponent(CaptionBar);
    fixture.componentRef.setInput('study', 's');
    await fixture.whenStable();
    return fixture;
  };
  const phrase = (fixture: ComponentFixture<CaptionBar>, words: string): HTMLButtonElement =>
    [...host(fixture).querySelectorAll<HTMLButtonElement>('.caption button')].find(
      (b) => b.textContent === words,
    )!;

  it('is one sentence, each phrase of which is a button', async () => {
    setUp();
    const fixture = await show();
    expect(
      host(fixture)
        .querySelector('.caption')!
        .textContent.replace(/\u2060/g, '')
        .trim(),
    ).toBe(
      '3 accounts tied when one replies to another at least once, at any time. Size: in-degree. Colour: community. Ties: bent. ' +
        'Names: the 25 that bridge most. Arranged by attraction.',
    );
  });

  it('opens the settings of a phrase, and closes them with Escape', async () => {
    setUp();
    const fixture = await show();
    phrase(fixture, 'in-degree').click();
    await fixture.whenStable();
    expect(host(fixture).querySelector('[role=dialog]')!.textContent).toContain('Accounts that address it.');
    host(fixture).dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape' }));
    await fixture.whenStable();
    expect(host(fixture).querySelector('[role=dialog]')).toBeNull();
  });

  it('changes the description, and only the part that it speaks of', async () => {
    setUp();
    const fixture = await show();
    phrase(fixture, 'in-degree').click();
    await fixture.whenStable();
    const column = host(fixture).querySelector<HTMLSelectElement>('[role=dialog] select')!;
    column.value = column.options[1].value;
    column.dispatchEvent(new Event('change'));
    expect(asked.describe).toHaveBeenCalledWith({
      ...defaultMap,
      size: { ...defaultMap.size, column: 'betweenness' },
    });
  });

  it('lets the smallest size never pass the largest', async () => {
    setUp();
    const fixture = await show();
    phrase(fixture, 'in-degree').click();
    await fixture.whenStable();
    const smallest = host(fixture).querySelector<HTMLInputElement>('[role=dialog] input[type=number]')!;
    smallest.value = '40';
    smallest.dispatchEvent(new Event('change'));
    expect(asked.describe).toHaveBeenCalledWith({
      ...defaultMap,
      size: { ...defaultMap.size, smallest: defaultMap.size.largest },
    });
  });
});

describe('settings of a map', () => {
  const open = async (words: string): Promise<ComponentFixture<CaptionBar>> => {
    const fixture = TestBed.createComponent(CaptionBar);
    fixture.componentRef.setInput('study', 's');
    await fixture.whenStable();
    [...host(fixture).querySelectorAll<HTMLButtonElement>('.caption button')]
      .find((b) => b.textContent === words)!
      .click();
    await fixture.whenStable();
    return fixture;
  };
  const changed = (part: object): void =>
    expect(asked.describe).toHaveBeenCalledWith({ ...defaultMap, ...part });
  const select = (fixture: ComponentFixture<CaptionBar>, label: string, value: string): void => {
    const box = host(fixture).querySelector<HTMLSelectElement>(`[aria-label="${label}"]`)!;
    box.value = [...box.options].find(
      (one) => one.value === value || one.textContent.trim() === value,
    )!.value;
    box.dispatchEvent(new Event('change'));
  };

  it('add a condition for nodes, which reads as a phrase, and say how many are left', async () => {
    setUp();
    const fixture = await open('3 accounts');
    expect(host(fixture).textContent).toContain('3 of 3 accounts and 2 of 2 ties are shown.');
    select(fixture, 'New condition', 'named');
    const condition = { what: 'named', text: '', not: false } as const;
    changed({ show: { ...defaultMap.show, where: { joined: 'and', conditions: [condition] } } });
  });

  it('give a category a colour by hand', async () => {
    setUp();
    const fixture = await open('community');
    const colour = host(fixture).querySelector<HTMLInputElement>('input[type=color]')!;
    colour.value = '#123456';
    colour.dispatchEvent(new Event('change'));
    changed({ colour: { ...defaultMap.colour, chosen: { '1': '#123456' } } });
  });

  it('move a category in the legend by one place', async () => {
    const three = { ...woven, nodes: { ...woven.nodes, community: Uint32Array.of(1, 2, 3) } };
    session.prepared.set(prepareMap(three, defaultMap));
    setUp();
    const fixture = await open('community');
    const step = (name: RegExp): HTMLButtonElement =>
      [...host(fixture).querySelectorAll<HTMLButtonElement>('.step')].find((one) =>
        name.test(one.getAttribute('aria-label')!),
      )!;
    expect(step(/^Move 1 .* up$/).disabled).toBe(true);
    expect(step(/^Move 3 .* down$/).disabled).toBe(true);
    step(/^Move 2 .* down$/).click();
    changed({ colour: { ...defaultMap.colour, order: ['1', '3', '2'] } });
    session.prepared.set(prepared);
  });

  it('outline groups', async () => {
    setUp();
    const fixture = await open('community');
    select(fixture, 'Outlines round', 'community');
    changed({ regions: { ...defaultMap.regions, column: 'community' } });
  });

  it('draw ties in another form and colour', async () => {
    setUp();
    const fixture = await open('bent');
    [...host(fixture).querySelectorAll('button')].find((b) => b.textContent.trim() === 'bundled')!.click();
    changed({ ties: { ...defaultMap.ties, form: 'bundled' } });
    select(fixture, 'Colour of the ties', 'mixed');
    changed({ ties: { ...defaultMap.ties, colour: 'mixed' } });
  });

  it('write names in two lines', async () => {
    setUp();
    const fixture = await open('the 25 that bridge most');
    [...host(fixture).querySelectorAll('button')].find((b) => b.textContent.trim() === 'two lines')!.click();
    changed({ names: { ...defaultMap.names, length: 'two lines' } });
  });

  it('arrange in another way, by a number, and say how well the picture reads', async () => {
    setUp();
    const fixture = await open('by attraction');
    await fixture.whenStable();
    expect(host(fixture).textContent).toContain('ties that cross');
    select(fixture, 'Arrangement', 'rings');
    await fixture.whenStable();
    [...host(fixture).querySelectorAll('button')].find((b) => b.textContent.trim() === 'Arrange')!.click();
    expect(session.arrange).toHaveBeenCalledWith(
      LayoutSettings.parse({ method: 'rings', column: 'inDegree' }),
    );
  });
});

describe('NodeFinder', () => {
  const type = async (fixture: ComponentFixture<NodeFinder>, words: string): Promise<string[]> => {
    const box = host(fixture).querySelector('input')!;
    box.value = words;
    box.dispatchEvent(new Event('input'));
    await fixture.whenStable();
    return [...host(fixture).querySelectorAll('li b')].map((b) => b.textContent);
  };

  it('finds by handle and name, names that begin so first, then the most addressed', async () => {
    setUp();
    const fixture = TestBed.createComponent(NodeFinder);
    await fixture.whenStable();
    expect(await type(fixture, 'ann')).toEqual(['annabel', 'ann']);
    expect(await type(fixture, '@quay')).toEqual(['ben']);
    expect(await type(fixture, 'zoe')).toEqual([]);
    expect(host(fixture).textContent).toContain('Nothing in this network has “zoe”');
  });
});
