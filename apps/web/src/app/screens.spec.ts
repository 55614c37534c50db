import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { MockStore, provideMockStore } from '@ngrx/store/testing';
import { of, throwError } from 'rxjs';
import { exampleStep, exampleStudy } from '../testing/examples';
import { Api } from './api/api';
import { Logbook } from './logbook/logbook';
import { Notices } from './store/notices';
import { Rail } from './shell/rail';
import { StudiesActions } from './store/studies.actions';
import { studies } from './store/studies.reducer';
import { WorkActions } from './store/work.actions';
import { work } from './store/work.reducer';
import { Studies } from './studies/studies';

const api = { step: jest.fn(() => of(exampleStep())), table: jest.fn(() => of(new ArrayBuffer(0))) };
const notices = { say: jest.fn(), withUndo: jest.fn() };

function setUp(): MockStore {
  TestBed.configureTestingModule({
    providers: [
      provideRouter([]),
      provideMockStore({
        selectors: [
          { selector: studies.selectList, value: [exampleStudy] },
          { selector: studies.selectDeleted, value: [{ ...exampleStudy, id: 'gone', name: 'Old' }] },
          { selector: studies.selectArchived, value: [] },
          { selector: studies.selectLoaded, value: true },
          { selector: studies.selectError, value: null },
          { selector: work.selectSteps, value: [] },
        ],
      }),
      { provide: Api, useValue: api },
      { provide: Notices, useValue: notices },
    ],
  });
  const store = TestBed.inject(MockStore);
  jest.spyOn(store, 'dispatch');
  return store;
}

const text = (fixture: ComponentFixture<unknown>): string =>
  (fixture.nativeElement as HTMLElement).textContent.replace(/\s+/g, ' ');
const button = (fixture: ComponentFixture<unknown>, name: string): HTMLButtonElement =>
  [...(fixture.nativeElement as HTMLElement).querySelectorAll('button')].find((b) =>
    (b.getAttribute('aria-label') ?? b.textContent).trim().startsWith(name),
  )!;

describe('Studies', () => {
  it('shows what there is, in numbers that say what they count', async () => {
    setUp();
    const fixture = TestBed.createComponent(Studies);
    await fixture.whenStable();
    expect(text(fixture)).toContain('1,200 messages · 300 accounts that wrote or are named · 1 network');
    expect(text(fixture)).toContain('2 March 2026');
  });

  it('begins a study only with a name', async () => {
    const store = setUp();
    const fixture = TestBed.createComponent(Studies);
    await fixture.whenStable();
    const box = (fixture.nativeElement as HTMLElement).querySelector<HTMLInputElement>('#new-name')!;
    expect(button(fixture, 'Begin study').disabled).toBe(true);
    box.value = '  Harbour ';
    box.dispatchEvent(new Event('input'));
    await fixture.whenStable();
    button(fixture, 'Begin study').click();
    expect(store.dispatch).toHaveBeenCalledWith(StudiesActions.createRequested({ name: 'Harbour' }));
  });

  it('renames with Enter, and leaves the name with Escape', async () => {
    const store = setUp();
    const fixture = TestBed.createComponent(Studies);
    const rename = async (key: string): Promise<void> => {
      button(fixture, 'Rename Lamps').click();
      await fixture.whenStable();
      const box = (fixture.nativeElement as HTMLElement).querySelector<HTMLInputElement>(
        'input[aria-label="New name"]',
      )!;
      box.value = 'Amber lamps';
      box.dispatchEvent(new KeyboardEvent('keydown', { key }));
      await fixture.whenStable();
    };
    await fixture.whenStable();
    await rename('Escape');
    expect(store.dispatch).toHaveBeenCalledTimes(1);
    await rename('Enter');
    expect(store.dispatch).toHaveBeenCalledWith(
      StudiesActions.renameRequested({ id: exampleStudy.id, name: 'Amber lamps' }),
    );
  });

  it('deletes, and takes back what was deleted', async () => {
    const store = setUp();
    const fixture = TestBed.createComponent(Studies);
    await fixture.whenStable();
    button(fixture, 'Delete Lamps').click();
    button(fixture, 'Take back').click();
    expect(store.dispatch).toHaveBeenCalledWith(StudiesActions.deleteRequested({ study: exampleStudy }));
    expect(store.dispatch).toHaveBeenCalledWith(StudiesActions.restoreRequested({ id: 'gone' }));
  });

  it('says what to do when there is none, and what went wrong', async () => {
    const store = setUp();
    store.overrideSelector(studies.selectList, []);
    store.overrideSelector(studies.selectError, 'The application does not answer.');
    const fixture = TestBed.createComponent(Studies);
    await fixture.whenStable();
    expect(text(fixture)).toContain('No study yet. Give the first one a name above');
    expect(text(fixture)).toContain('The application does not answer.');
  });
});

describe('Logbook', () => {
  const failed = exampleStep({
    id: 8,
    kind: 'import-source',
    state: 'failed',
    sentence: 'Posts were to be imported.',
    error: 'The disk is full.',
    seed: 4,
  });

  it('writes the methods text from the steps that made the result, the oldest first', async () => {
    const store = setUp();
    store.overrideSelector(work.selectSteps, [
      exampleStep({ id: 9, kind: 'measure-network', sentence: 'It was measured.' }),
      failed,
      exampleStep({ id: 7, kind: 'weave', sentence: 'A network was woven.' }),
      exampleStep({ id: 6, kind: 'rename-study', sentence: 'The study was renamed.' }),
    ]);
    const fixture = TestBed.createComponent(Logbook);
    await fixture.whenStable();
    const methods = (fixture.nativeElement as HTMLElement).querySelector('.methods p')!.textContent;
    expect(methods).toBe('A network was woven. It was measured.');
    expect(text(fixture)).toContain('The disk is full.');
    expect(text(fixture)).toContain('step 8 · import-source · failed · took 1.2 s · seed 4');
  });

  it('runs a failed step again, and shows why it fails again', async () => {
    const store = setUp();
    store.overrideSelector(work.selectSteps, [failed]);
    const fixture = TestBed.createComponent(Logbook);
    await fixture.whenStable();
    button(fixture, 'Run again').click();
    expect(api.step).toHaveBeenCalledWith(failed.study, 'import-source', failed.parameters);
    api.step.mockReturnValueOnce(throwError(() => new Error('Still full.')));
    button(fixture, 'Run again').click();
    expect(store.dispatch).toHaveBeenCalledWith(WorkActions.failed({ message: 'Still full.' }));
  });

  it('says what comes first when nothing was done', async () => {
    setUp();
    const fixture = TestBed.createComponent(Logbook);
    await fixture.whenStable();
    expect(text(fixture)).toContain('No step yet.');
  });
});

describe('Rail', () => {
  it('names every stop with its note', async () => {
    setUp();
    const fixture = TestBed.createComponent(Rail);
    fixture.componentRef.setInput('study', 'x');
    fixture.componentRef.setInput('stops', [
      { path: 'gather', name: 'Gather', note: '12 messages' },
      { path: 'weave', name: 'Weave', note: '' },
    ]);
    await fixture.whenStable();
    const links = [...(fixture.nativeElement as HTMLElement).querySelectorAll('a.stop')];
    expect(links.map((a) => a.getAttribute('href'))).toEqual(['/studies/x/gather', '/studies/x/weave']);
    expect(links[0].textContent).toContain('12 messages');
  });
});
