import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { Subject } from 'rxjs';
import { asking } from './asking';

describe('the answer to what is asked now', () => {
  const start = () => {
    const asked = signal<string | null>(null);
    const answers = new Map<string, Subject<number>>();
    const read = (question: string): Subject<number> => {
      const answer = new Subject<number>();
      answers.set(question, answer);
      return answer;
    };
    const made = TestBed.runInInjectionContext(() => asking(asked, read));
    const ask = (question: string | null): void => {
      asked.set(question);
      TestBed.tick();
    };
    TestBed.tick();
    return { made, answers, ask };
  };

  it('is there when it comes, and not before', () => {
    const { made, answers, ask } = start();
    expect([made.found(), made.isBusy()]).toEqual([null, false]);
    ask('a');
    expect([made.found(), made.isBusy()]).toEqual([null, true]);
    answers.get('a')!.next(1);
    expect([made.found(), made.isBusy()]).toEqual([1, false]);
  });

  it('is never that of an older question', () => {
    const { made, answers, ask } = start();
    ask('a');
    answers.get('a')!.next(1);
    ask('b');
    expect(made.found()).toBeNull();
    expect(answers.get('a')!.observed).toBe(false);
    answers.get('b')!.next(2);
    expect(made.found()).toBe(2);
    ask(null);
    expect([made.found(), made.isBusy()]).toEqual([null, false]);
  });

  it('is not asked for again by the same question in other words of the program', () => {
    const asked = signal({ of: 'a' });
    const read = jest.fn(() => new Subject<number>());
    TestBed.runInInjectionContext(() => asking(asked, read));
    TestBed.tick();
    asked.set({ of: 'a' });
    TestBed.tick();
    expect(read).toHaveBeenCalledTimes(1);
    asked.set({ of: 'b' });
    TestBed.tick();
    expect(read).toHaveBeenCalledTimes(2);
  });

  it('says what went wrong, until something else is asked', () => {
    const { made, answers, ask } = start();
    ask('a');
    answers.get('a')!.error(new Error('No answer.'));
    expect([made.error(), made.isBusy()]).toEqual(['No answer.', false]);
    ask('b');
    expect(made.error()).toBeNull();
  });
});
