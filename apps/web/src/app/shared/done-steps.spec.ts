import type { Step } from '@pebble/contract';
import { changesDone } from '../map/session/changes-elsewhere';
import { doneSteps } from './done-steps';

const step = (id: number, kind: Step['kind'], state: Step['state'], network = 'n'): Step =>
  ({ id, kind, state, parameters: { network }, result: null }) as unknown as Step;

describe('steps that are done', () => {
  it('are another number when one ends that was asked for before others that have ended', () => {
    const before = [step(8, 'answer-questions', 'done'), step(7, 'portray-groups', 'running')];
    const after = [step(8, 'answer-questions', 'done'), step(7, 'portray-groups', 'done')];
    expect([doneSteps(before), doneSteps(after)]).toEqual([1, 2]);
    expect([changesDone(before, 'n'), changesDone(after, 'n')]).toEqual([1, 2]);
  });

  it('count those alone that are meant', () => {
    const steps = [
      step(3, 'keep-plate', 'done'),
      step(2, 'weave', 'failed'),
      step(1, 'portray-groups', 'done', 'o'),
    ];
    expect(doneSteps(steps, ({ kind }) => kind === 'weave')).toBe(0);
    expect([changesDone(steps, 'n'), changesDone(steps, 'o')]).toEqual([0, 1]);
  });
});
