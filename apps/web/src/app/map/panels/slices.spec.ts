import { TestBed } from '@angular/core/testing';
import type { Network } from '@pebble/contract';
import { button, choose, host, text } from '../../../testing/dom';
import { exampleNetwork } from '../../../testing/examples';
import { SliceStepper } from './slice-stepper';
import { slicesOf, wholeOf, wholesIn } from '../../shared/slices';

const whole = exampleNetwork({ id: 'w' });
const slice = (place: number): Network =>
  exampleNetwork({ id: `s${place}`, slice: { of: 'w', place, title: `Week ${place}` } });
const networks = [slice(1), whole, slice(0), exampleNetwork({ id: 'x' })];

describe('slices', () => {
  it('belong to their whole, in the order of time', () => {
    expect(networks.map(wholeOf)).toEqual(['w', 'w', 'w', 'x']);
    expect(slicesOf(networks, 'w').map(({ id }) => id)).toEqual(['s0', 's1']);
    expect(wholesIn(networks).map(({ id }) => id)).toEqual(['w', 'x']);
  });

  it('stand for themselves when their whole is gone', () => {
    expect(wholesIn([slice(0)]).map(({ id }) => id)).toEqual(['s0']);
  });
});

describe('SliceStepper', () => {
  async function stepper(network: Network) {
    const fixture = TestBed.createComponent(SliceStepper);
    fixture.componentRef.setInput('networks', networks);
    fixture.componentRef.setInput('network', network);
    const opened: string[] = [];
    fixture.componentInstance.opened.subscribe((id) => opened.push(id));
    await fixture.whenStable();
    return { fixture, opened };
  }

  it('goes to the next and the one before, and back to the whole', async () => {
    const { fixture, opened } = await stepper(slice(0));
    button(fixture, '▸').click();
    button(fixture, '◂').click();
    choose(host(fixture).querySelector('select')!, 'Week 1');
    expect(opened).toEqual(['s1', 'w', 's1']);
  });

  it('ends at the last one', async () => {
    const { fixture } = await stepper(slice(1));
    expect(button(fixture, '▸').disabled).toBe(true);
    fixture.componentRef.setInput('network', whole);
    await fixture.whenStable();
    expect(button(fixture, '◂').disabled).toBe(true);
  });

  it('is not there for a network without slices', async () => {
    const { fixture } = await stepper(exampleNetwork({ id: 'x' }));
    expect(text(fixture)).toBe('');
  });

  it('plays them one after the other', async () => {
    const { fixture, opened } = await stepper(whole);
    jest.useFakeTimers({ doNotFake: ['queueMicrotask'] });
    try {
      button(fixture, 'Play').click();
      TestBed.tick();
      jest.advanceTimersByTime(1700);
      expect(opened).toEqual(['s0']);
      fixture.componentRef.setInput('network', slice(1));
      TestBed.tick();
      jest.advanceTimersByTime(5000);
      expect(opened).toEqual(['s0']);
    } finally {
      jest.useRealTimers();
    }
  });
});
