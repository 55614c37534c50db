import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { MockStore, provideMockStore } from '@ngrx/store/testing';
import type { NodeNames, Step } from '@pebble/contract';
import { of, Subject } from 'rxjs';
import { exampleNetwork, exampleStep, exampleStudy } from '../../../testing/examples';
import { Api } from '../../api/api';
import { MapSession } from '../../map/session/map-session';
import { work } from '../../store/work.reducer';
import { PublishedNames } from './published-names';

// The real one starts a web worker by the address of its module, which only the browser's build knows.
jest.mock('../../map/session/map-session', () => ({ MapSession: class MapSession {} }));

describe('how people are called in what is published', () => {
  const answers: Subject<NodeNames>[] = [];
  const people = { naming: { form: 'as they are' } };
  const started = () => {
    answers.length = 0;
    const nodeNames = () => {
      const answer = new Subject<NodeNames>();
      answers.push(answer);
      return answer;
    };
    TestBed.configureTestingModule({
      providers: [
        PublishedNames,
        provideMockStore({
          selectors: [
            { selector: work.selectId, value: exampleStudy.id },
            { selector: work.selectSteps, value: [] },
          ],
        }),
        { provide: MapSession, useValue: { network: signal(exampleNetwork()) } },
        { provide: Api, useValue: { people: () => of(people), nodeNames } },
      ],
    });
    const names = TestBed.inject(PublishedNames);
    const store = TestBed.inject(MockStore);
    const show = (): void => {
      store.refreshState();
      TestBed.tick();
    };
    TestBed.tick();
    const done = (...steps: Step[]): void => {
      store.overrideSelector(work.selectSteps, steps);
      show();
    };
    const toAnother = (study: string): void => {
      store.overrideSelector(work.selectId, study);
      show();
    };
    return { names, done, toAnother };
  };
  const answer = (at: number, ...names: string[]): void => {
    answers[at].next(called(...names));
    answers[at].complete();
  };
  const called = (...names: string[]) => ({ names }) as unknown as NodeNames;

  it('stands while it is read anew, and is not taken for that of now', () => {
    const { names, done } = started();
    expect([names.of('n1'), names.isCurrent()]).toEqual([null, false]);
    answer(0, 'ann');
    expect([names.of('n1'), names.isCurrent()]).toEqual([called('ann'), true]);

    done(exampleStep({ kind: 'detect-languages', state: 'done' }));
    expect(answers).toHaveLength(2);
    expect([names.of('n1'), names.isCurrent()]).toEqual([called('ann'), false]);
    answer(1, 'P001');
    expect([names.of('n1'), names.isCurrent()]).toEqual([called('P001'), true]);
  });

  it('is never that of another study', () => {
    const { names, toAnother } = started();
    answer(0, 'ann');
    toAnother('another');
    expect([names.of('n1'), names.isCurrent()]).toEqual([null, false]);
  });
});
