import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { Subject, throwError, type Observable } from 'rxjs';
import { latest } from './latest';

describe('latest', () => {
  it('lets answers to older questions go', () => {
    const asked = signal('a');
    const answers: Record<string, Subject<number>> = { a: new Subject(), b: new Subject() };
    const shown = TestBed.runInInjectionContext(() => latest(asked, (question) => answers[question]));
    TestBed.tick();
    expect(shown()).toBeNull();
    asked.set('b');
    TestBed.tick();
    answers['a'].next(1);
    expect(shown()).toBeNull();
    answers['b'].next(2);
    expect(shown()).toBe(2);
  });

  it('is null where the answer failed, and asks again all the same', () => {
    const asked = signal(0);
    const good = new Subject<string>();
    const read = (n: number): Observable<string> => (n === 0 ? throwError(() => new Error('No.')) : good);
    const shown = TestBed.runInInjectionContext(() => latest(asked, read));
    TestBed.tick();
    expect(shown()).toBeNull();
    asked.set(1);
    TestBed.tick();
    good.next('fine');
    expect(shown()).toBe('fine');
  });
});
