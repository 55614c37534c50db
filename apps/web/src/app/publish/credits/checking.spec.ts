import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { MockStore, provideMockStore } from '@ngrx/store/testing';
import { Subject } from 'rxjs';
import { exampleStep } from '../../../testing/examples';
import { work } from '../../store/work.reducer';
import { checking } from './checking';

interface Check {
  readonly problem: string | null;
  readonly words: number;
}

describe('what would go out by what is chosen', () => {
  beforeEach(() => jest.useFakeTimers());
  afterEach(() => jest.useRealTimers());

  const started = () => {
    TestBed.configureTestingModule({
      providers: [provideMockStore({ selectors: [{ selector: work.selectSteps, value: [] }] })],
    });
    const answers: Subject<Check>[] = [];
    const query = signal<object | null>({ title: 'a' });
    const check = TestBed.runInInjectionContext(() =>
      checking(query, () => {
        const answer = new Subject<Check>();
        answers.push(answer);
        return answer;
      }),
    );
    const rest = (): void => {
      TestBed.tick();
      jest.advanceTimersByTime(600);
      TestBed.tick();
    };
    const done = (kind: 'portray-groups' | 'export-report'): void => {
      const store = TestBed.inject(MockStore);
      store.overrideSelector(work.selectSteps, [exampleStep({ kind, state: 'done' })]);
      store.refreshState();
      rest();
    };
    rest();
    return { answers, query, check, rest, done };
  };

  it('is looked at again when a step has changed that, and stands until then', () => {
    const { answers, check, done } = started();
    answers[0].next({ problem: null, words: 100 });
    expect([check.found()?.words, check.canSave()]).toEqual([100, true]);
    done('portray-groups');
    expect(answers).toHaveLength(2);
    expect([check.found()?.words, check.canSave()]).toEqual([100, false]);
    answers[1].next({ problem: null, words: 900 });
    expect([check.found()?.words, check.canSave()]).toEqual([900, true]);
  });

  it('is not looked at again when something was saved', () => {
    const { answers, done } = started();
    done('export-report');
    expect(answers).toHaveLength(1);
  });

  it('is never shown under another choice', () => {
    const { answers, query, check, rest } = started();
    answers[0].next({ problem: null, words: 100 });
    query.set({ title: 'b' });
    rest();
    expect([check.found(), check.canSave()]).toEqual([null, false]);
  });
});
