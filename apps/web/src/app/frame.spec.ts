import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { MatSnackBar } from '@angular/material/snack-bar';
import { provideRouter, Router, withNavigationErrorHandler } from '@angular/router';
import { MockStore, provideMockStore } from '@ngrx/store/testing';
import type { WeaveEstimate } from '@pebble/contract';
import { of, Subject, throwError } from 'rxjs';
import { exampleNetwork, exampleOverview, exampleStep, exampleStudy } from '../testing/examples';
import { notLoaded } from './app.routes';
import { Api } from './api/api';
import { droppedFiles } from './gather/dropped-files';
import { button, host, text } from '../testing/dom';
import { Notices } from './store/notices';
import { StudyFrame } from './shell/study-frame';
import { WorkActions } from './store/work.actions';
import { work } from './store/work.reducer';
import { Weave } from './weave/weave';

const estimate: WeaveEstimate = {
  messages: 60,
  nodes: 5,
  edges: 20,
  selfTies: 0,
  isolates: 0,
  components: 1,
  largest: 5,
  largestShare: 1,
  droppedBelowThreshold: 0,
  notes: [],
  emptiedBy: null,
  tooLarge: false,
  wouldFit: null,
  thinned: null,
  sketch: { labels: [], ties: [] },
};
const api = {
  filters: jest.fn(() => of([])),
  deleted: jest.fn(() => of([])),
  estimate: jest.fn(() => of(estimate)),
  step: jest.fn(() => of(exampleStep({ result: { network: 'n9' } }))),
};

function setUp(): MockStore {
  jest.clearAllMocks();
  TestBed.configureTestingModule({
    providers: [
      provideRouter([]),
      provideMockStore({
        selectors: [
          { selector: work.selectStudy, value: exampleStudy },
          { selector: work.selectOverview, value: exampleOverview },
          { selector: work.selectNetworks, value: [] },
          { selector: work.selectSources, value: [] },
          { selector: work.selectSteps, value: [exampleStep()] },
          { selector: work.selectRunning, value: null },
          { selector: work.selectError, value: null },
        ],
      }),
      { provide: Api, useValue: api },
    ],
  });
  const store = TestBed.inject(MockStore);
  jest.spyOn(store, 'dispatch');
  return store;
}

describe('StudyFrame', () => {
  const show = async (): Promise<ComponentFixture<StudyFrame>> => {
    const fixture = TestBed.createComponent(StudyFrame);
    fixture.componentRef.setInput('study', exampleStudy.id);
    await fixture.whenStable();
    return fixture;
  };

  it('opens the study when it comes, and leaves it when it goes', async () => {
    const store = setUp();
    const fixture = await show();
    expect(store.dispatch).toHaveBeenCalledWith(WorkActions.studyOpened({ id: exampleStudy.id }));
    fixture.destroy();
    expect(store.dispatch).toHaveBeenLastCalledWith(WorkActions.studyLeft());
  });

  it('lists the stops in the order of work, with what is there', async () => {
    setUp();
    const fixture = await show();
    const stops = [...host(fixture).querySelectorAll('a.stop')].map((a) =>
      a.textContent.replace(/\s+/g, ' ').trim(),
    );
    expect(stops).toEqual([
      'Gather1,200 messages',
      'Tidy',
      'Weave1 network',
      'Map',
      'Read',
      'Publish',
      'Logbook1 step',
    ]);
  });

  it('shows what runs with its rest time, and lets it be cancelled', async () => {
    const store = setUp();
    store.overrideSelector(work.selectRunning, {
      step: 7,
      study: exampleStudy.id,
      kind: 'import-source',
      phase: 'Reading posts.csv',
      share: 0.4,
      remainingMs: 5000,
    });
    const fixture = await show();
    expect(text(fixture)).toContain('Reading posts.csv · about 5.0 s left');
    button(fixture, 'Cancel').click();
    expect(store.dispatch).toHaveBeenCalledWith(WorkActions.cancelRequested({ step: 7 }));
  });

  it('says that the study is being opened, until it is there or something failed', async () => {
    const store = setUp();
    store.overrideSelector(work.selectStudy, null);
    const fixture = await show();
    expect(text(fixture)).toContain('Opening the study …');
    store.overrideSelector(work.selectError, 'The study is not there.');
    store.refreshState();
    await fixture.whenStable();
    expect(text(fixture)).not.toContain('Opening');
    store.overrideSelector(work.selectStudy, exampleStudy);
    store.overrideSelector(work.selectError, null);
    store.refreshState();
    await fixture.whenStable();
    expect(text(fixture)).not.toContain('Opening');
  });

  it('shows an error until it is put away', async () => {
    const store = setUp();
    store.overrideSelector(work.selectError, 'The disk is full.');
    const fixture = await show();
    expect(host(fixture).querySelector('[role=alert]')!.textContent).toContain('The disk is full.');
    button(fixture, 'Close').click();
    expect(store.dispatch).toHaveBeenCalledWith(WorkActions.errorDismissed());
  });
});

describe('Weave', () => {
  const show = async (): Promise<ComponentFixture<Weave>> => {
    const fixture = TestBed.createComponent(Weave);
    await fixture.whenStable();
    await new Promise((resolve) => setTimeout(resolve, 200));
    await fixture.whenStable();
    return fixture;
  };

  it('offers the ways of addressing that occur, and says at once how large the network would be', async () => {
    setUp();
    const fixture = await show();
    const ways = [...host(fixture).querySelectorAll('.choices button')].map((b) => b.textContent.trim());
    expect(ways).toEqual(['replies to', 'mentions']);
    expect(text(fixture)).toContain('ties20');
    expect(api.estimate).toHaveBeenCalledWith(
      { study: exampleStudy.id },
      expect.objectContaining({ kinds: ['reply', 'mention'], atLeast: 1 }),
    );
  });

  it('asks for one way at least, and asks the server for nothing without', async () => {
    setUp();
    const fixture = await show();
    button(fixture, 'replies to').click();
    button(fixture, 'mentions').click();
    await fixture.whenStable();
    expect(text(fixture)).toContain('Choose at least one of: replies to, mentions.');
    expect(api.estimate).toHaveBeenCalledTimes(1);
  });

  it('weaves under the name of its sentence, and opens the map', async () => {
    setUp();
    const navigate = jest.spyOn(TestBed.inject(Router), 'navigate').mockResolvedValue(true);
    const fixture = await show();
    button(fixture, 'Weave and open the map').click();
    expect(api.step).toHaveBeenCalledWith(
      exampleStudy.id,
      'weave',
      expect.objectContaining({ name: 'Who replies to, mentions whom' }),
    );
    expect(navigate).toHaveBeenCalledWith(['/studies', exampleStudy.id, 'map', 'n9']);
  });

  it('says why it could not', async () => {
    setUp();
    api.step.mockReturnValueOnce(throwError(() => new Error('Too many ties.')));
    const fixture = await show();
    button(fixture, 'Weave and open the map').click();
    await fixture.whenStable();
    expect(text(fixture)).toContain('Too many ties.');
  });

  it('tells networks of messages from those of files', async () => {
    const store = setUp();
    store.overrideSelector(work.selectNetworks, [
      exampleNetwork({ id: 'a' }),
      exampleNetwork({ id: 'b', weave: null, name: 'ties.csv' }),
    ]);
    const fixture = await show();
    expect(text(fixture)).toContain('12 accounts · 20 ties · woven');
    expect(text(fixture)).toContain('12 nodes · 20 ties · taken in');
    expect(
      [...host(fixture).querySelectorAll('button')].filter((b) => b.textContent.includes('Use this')),
    ).toHaveLength(1);
  });
});

describe('Notices', () => {
  it('dispatch what takes a change back when Undo is pressed', () => {
    const pressed = new Subject<void>();
    const bar = { open: jest.fn(() => ({ onAction: () => pressed })) };
    TestBed.configureTestingModule({
      providers: [provideMockStore(), { provide: MatSnackBar, useValue: bar }],
    });
    const store = TestBed.inject(MockStore);
    const dispatch = jest.spyOn(store, 'dispatch');
    const undo = WorkActions.networkRestoreRequested({ id: 'n' });
    TestBed.inject(Notices).withUndo('It was deleted.', undo);
    expect(dispatch).not.toHaveBeenCalled();
    pressed.next();
    expect(dispatch).toHaveBeenCalledWith(undo);
  });
});

it('a page that does not come is said, with a way out', async () => {
  const bar = { open: jest.fn(() => ({ onAction: () => new Subject<void>() })) };
  const late = { path: 'late', loadComponent: () => Promise.reject(new Error('Failed to fetch')) };
  TestBed.configureTestingModule({
    providers: [
      provideRouter([late], withNavigationErrorHandler(notLoaded)),
      provideMockStore(),
      { provide: MatSnackBar, useValue: bar },
    ],
  });
  await TestBed.inject(Router)
    .navigateByUrl('/late')
    .catch(() => undefined);
  expect(bar.open).toHaveBeenCalledWith(expect.stringContaining('could not be loaded'), 'Reload');
});

describe('droppedFiles', () => {
  const file = (name: string) => ({
    name,
    isFile: true,
    isDirectory: false,
    file: (done: (file: File) => void) => done(new File(['x'], name)),
  });
  const folder = (name: string, portions: object[][]) => ({
    name,
    isFile: false,
    isDirectory: true,
    createReader: () => ({
      readEntries: (done: (entries: object[]) => void) => done(portions.shift() ?? []),
    }),
  });
  const drop = (entries: (object | null)[], files: File[] = []): DataTransfer =>
    ({
      items: entries.map((entry) => ({ webkitGetAsEntry: () => entry })),
      files,
    }) as unknown as DataTransfer;

  it('takes files out of folders, in all their portions, and passes hidden ones by', async () => {
    const inner = folder('inner', [[file('c.csv')]]);
    const outer = folder('outer', [[file('a.csv'), file('.hidden')], [inner]]);
    const files = await droppedFiles(drop([outer, file('d.csv')]));
    expect(files.map(({ name }) => name)).toEqual(['a.csv', 'c.csv', 'd.csv']);
  });

  it('takes plain files where the browser gives no entries', async () => {
    const plain = [new File(['x'], 'a.csv')];
    expect(await droppedFiles(drop([null], plain))).toEqual(plain);
  });
});
