import { TestBed } from '@angular/core/testing';
import { Condition } from '@pebble/contract';
import { Notices } from '../store/notices';
import { SaidErrors } from './said-errors';

describe('what nobody expected to fail', () => {
  const say = jest.fn();
  let errors: SaidErrors;
  let written: jest.SpyInstance;
  beforeEach(() => {
    written = jest.spyOn(console, 'error').mockImplementation(() => undefined);
    say.mockClear();
    TestBed.configureTestingModule({ providers: [SaidErrors, { provide: Notices, useValue: { say } }] });
    errors = TestBed.inject(SaidErrors);
  });

  it('is said in one sentence, once, and written to the console each time', () => {
    errors.handleError(new Error('The worker is gone'));
    errors.handleError(new Error('The worker is gone'));
    expect(say.mock.calls).toEqual([
      ['This could not be done: The worker is gone. What was there before is kept.'],
    ]);
    expect(written).toHaveBeenCalledTimes(2);
    errors.handleError(new TypeError('Failed to fetch dynamically imported module: /chunk-A.js'));
    expect(say).toHaveBeenCalledTimes(1);
    errors.handleError('Another one.');
    expect(say).toHaveBeenLastCalledWith(
      'This could not be done: Another one. What was there before is kept.',
    );
  });

  it('names the field of a value that does not fit', () => {
    const nodes = Array.from({ length: 100_001 }, (_, i) => i);
    try {
      Condition.parse({ what: 'chosen', nodes });
    } catch (error) {
      errors.handleError(error);
    }
    expect(say.mock.calls[0]).toEqual([expect.stringContaining('nodes: Too big')]);
  });
});
