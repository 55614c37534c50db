import { TestBed, type ComponentFixture } from '@angular/core/testing';
import type { CollectRun, KnownService } from '@pebble/contract';
import { provideMockStore, type MockStore } from '@ngrx/store/testing';
import { Store } from '@ngrx/store';
import { of, throwError } from 'rxjs';
import { exampleRun } from '../../testing/examples';
import { button, host, text, type } from '../../testing/dom';
import { Api } from '../api/api';
import { Notices } from '../store/notices';
import { WorkActions } from '../store/work.actions';
import { CollectPanel } from './collect-panel';
import { EMPTY_FORM, namesIn, planOf, runName } from './plan-form';
import { RunCard } from './run-card';

describe('a plan', () => {
  it('is made from what is typed, with whole days in UTC', () => {
    const days = { from: Date.UTC(2026, 4, 1), until: Date.UTC(2026, 4, 3) };
    const form = { ...EMPTY_FORM, query: ' lamps ', ...days, most: 12.7 };
    expect(planOf(form)).toEqual({
      what: 'search',
      query: 'lamps',
      language: '',
      from: Date.UTC(2026, 4, 1),
      until: Date.UTC(2026, 4, 3),
      most: 12,
    });
  });

  it('says what it lacks', () => {
    expect(planOf(EMPTY_FORM)).toEqual({ lacks: 'Say what to search for.' });
    expect(planOf({ ...EMPTY_FORM, query: 'x', most: 0 })).toEqual({ lacks: 'Say how many at most.' });
    expect(planOf({ ...EMPTY_FORM, what: 'comments' })).toHaveProperty('lacks');
    expect(planOf({ ...EMPTY_FORM, what: 'details' })).toHaveProperty('lacks');
  });

  it('takes names however they are pasted, each once', () => {
    expect(namesIn('@ann, ben\n\tcleo;ann @ann\n')).toEqual(['@ann', 'ben', 'cleo', 'ann']);
  });

  it.each([
    [{ ...EMPTY_FORM, query: 'lamps' }, 'Search for lamps'],
    [{ ...EMPTY_FORM, what: 'followers', names: 'ann ben cleo' }, 'Followers of ann and 2 more'],
    [{ ...EMPTY_FORM, what: 'comments', names: 'v1 v2' }, 'Comments under 2 items'],
    [{ ...EMPTY_FORM, what: 'mail' }, 'Emails'],
  ] as const)('names its run', (form, name) => {
    const plan = planOf(form);
    if ('lacks' in plan) throw new Error(plan.lacks);
    expect(runName(plan)).toBe(name);
  });
});

describe('CollectPanel', () => {
  const hub: KnownService = {
    kind: 'hub',
    name: 'Tidepost',
    address: 'http://127.0.0.1:4621/hub',
    clientId: 'researcher',
    hasSecret: true,
    simulated: true,
  };
  const limits = { pageSize: 40, requests: 45, windowSeconds: 20, mostFound: 400, daysBack: 7 };
  const usual = {
    services: () => of([hub]),
    describeService: jest.fn(() => of({ name: 'Tidepost', limits, mailboxes: [] })),
    estimatePlan: jest.fn(() =>
      of({ requests: 10, waitSeconds: 20, notes: ['A search reaches about 7 days back.'] }),
    ),
    beginRun: jest.fn(() => of(exampleRun())),
  };
  const show = async (api: object = {}): Promise<ComponentFixture<CollectPanel>> => {
    TestBed.configureTestingModule({ providers: [{ provide: Api, useValue: { ...usual, ...api } }] });
    const fixture = TestBed.createComponent(CollectPanel);
    fixture.componentRef.setInput('study', 's');
    await fixture.whenStable();
    return fixture;
  };
  const settle = async (fixture: ComponentFixture<unknown>): Promise<void> => {
    await new Promise((done) => setTimeout(done, 800));
    await fixture.whenStable();
  };

  it('tells the cost before anything begins, and begins', async () => {
    const fixture = await show();
    expect(button(fixture, 'Begin').disabled).toBe(true);
    type(host(fixture).querySelector('.wide input')!, 'lamps');
    await settle(fixture);
    expect(text(fixture)).toContain(
      '10 requests at most, about 20 seconds of waiting for the budget. A search reaches about 7 days back.',
    );
    const begun: CollectRun[] = [];
    fixture.componentInstance.begun.subscribe((run) => begun.push(run));
    button(fixture, 'Begin').click();
    expect(usual.beginRun).toHaveBeenCalledWith(
      { study: 's' },
      {
        name: 'Search for lamps',
        access: {
          service: { kind: 'hub', name: 'Tidepost', address: hub.address },
          clientId: 'researcher',
          secret: '',
        },
        plan: expect.objectContaining({ what: 'search', query: 'lamps', most: 400 }),
      },
    );
    expect(begun).toHaveLength(1);
  });

  it('asks for address and secret of another service, and shows what is wrong with it', async () => {
    const describeService = jest.fn(() => throwError(() => new Error('The service does not answer.')));
    const fixture = await show({ services: () => of([]), describeService });
    expect(text(fixture)).toContain('Give the address of the service, its client id and secret.');
    type(host(fixture).querySelector('input[type=url]')!, 'https://hub.example/');
    type(host(fixture).querySelector('input[type=password]')!, 'secret');
    await settle(fixture);
    expect(describeService).toHaveBeenCalled();
    expect(host(fixture).querySelector('[role=alert]')!.textContent).toContain('does not answer');
    expect(button(fixture, 'Begin').disabled).toBe(true);
  });
});

describe('RunCard', () => {
  const show = async (change: Partial<CollectRun>, api: object = {}) => {
    TestBed.configureTestingModule({
      providers: [
        provideMockStore(),
        { provide: Api, useValue: api },
        { provide: Notices, useValue: { say: jest.fn() } },
      ],
    });
    const fixture = TestBed.createComponent(RunCard);
    fixture.componentRef.setInput('run', exampleRun(change));
    await fixture.whenStable();
    return { fixture, dispatch: jest.spyOn(TestBed.inject(Store) as MockStore, 'dispatch') };
  };

  it('says what came, what it cost, and until when it waits', async () => {
    const { fixture } = await show({ state: 'waiting', waitUntil: Date.now() + 9000, share: 0.5 });
    expect(text(fixture)).toContain('312 messages, 1 item, 4 posts deleted since.');
    expect(text(fixture)).toContain('28 requests, 1 wait for the budget, 2 faults of the service.');
    expect(text(fixture)).toMatch(/asks to wait until \d\d:\d\d:\d\d \(\d+ s\)/);
    expect(host(fixture).querySelector('[role=progressbar]')!.getAttribute('aria-valuenow')).toBe('50');
    fixture.destroy();
  });

  it('is paused and resumed', async () => {
    const run = exampleRun({ state: 'paused' });
    const commandRun = jest.fn(() => of(run));
    const { fixture, dispatch } = await show({ state: 'running' }, { commandRun });
    button(fixture, 'Pause').click();
    expect(commandRun).toHaveBeenCalledWith({ study: run.study, run: run.id, command: 'pause' });
    expect(dispatch).toHaveBeenCalledWith(WorkActions.runReported({ run }));
    fixture.componentRef.setInput('run', run);
    await fixture.whenStable();
    button(fixture, 'Resume').click();
    expect(commandRun).toHaveBeenLastCalledWith({ study: run.study, run: run.id, command: 'resume' });
    fixture.destroy();
  });

  it('tells why less came, and is forgotten', async () => {
    const run = exampleRun({
      state: 'done',
      notes: ['3 posts had been deleted.'],
    });
    const { fixture, dispatch } = await show(run, { commandRun: () => of(run) });
    expect(text(fixture)).toContain('3 posts had been deleted.');
    button(fixture, 'Forget').click();
    expect(dispatch).toHaveBeenCalledWith(WorkActions.runForgotten({ id: run.id }));
    fixture.destroy();
  });
});
