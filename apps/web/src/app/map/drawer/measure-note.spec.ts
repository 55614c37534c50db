import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideMockStore } from '@ngrx/store/testing';
import type { Network, Step } from '@pebble/contract';
import { NEVER, throwError } from 'rxjs';
import { host, text } from '../../../testing/dom';
import { exampleNetwork, exampleStep } from '../../../testing/examples';
import { Api } from '../../api/api';
import { work } from '../../store/work.reducer';
import { MapSession } from '../session/map-session';
import { MeasureNote } from './measure-note';

jest.mock('../session/map-session', () => ({ MapSession: class MapSession {} }));

const quick = { modularity: 0.634, communities: 173, isolates: 165, seed: 4 };

describe('MeasureNote', () => {
  const step = jest.fn();
  async function note(measures: Network['measures'], state: Step['state'] | null = null) {
    const steps =
      state === null
        ? []
        : [exampleStep({ kind: 'measure-betweenness', parameters: { network: 'n1' }, state })];
    TestBed.configureTestingModule({
      providers: [
        provideMockStore({ selectors: [{ selector: work.selectSteps, value: steps }] }),
        { provide: MapSession, useValue: { network: signal(exampleNetwork({ measures })) } },
        { provide: Api, useValue: { step } },
      ],
    });
    const fixture = TestBed.createComponent(MeasureNote);
    await fixture.whenStable();
    return { fixture, button: () => host(fixture).querySelector('button') };
  }

  it('says what was found; single accounts are no communities', async () => {
    const { fixture, button } = await note({ ...quick, exact: true, pivots: 0 });
    expect(text(fixture).trim()).toBe('modularity 0.63 · 8 communities (Louvain) · betweenness exact');
    expect(button()).toBeNull();
  });

  it('says from how many nodes betweenness was sampled, and nothing of a network that is not measured', async () => {
    const { fixture } = await note({ ...quick, exact: false, pivots: 10106 });
    expect(text(fixture)).toContain('betweenness from 10,106 sampled starts');
    TestBed.resetTestingModule();
    expect(text((await note({})).fixture).trim()).toBe('');
  });

  it('says that betweenness follows, and offers it where it was cancelled', async () => {
    const waiting = await note(quick, 'running');
    expect(text(waiting.fixture)).toContain('betweenness follows');
    expect(waiting.button()).toBeNull();
    TestBed.resetTestingModule();
    const { fixture, button } = await note(quick, 'cancelled');
    expect(text(fixture)).toContain('no betweenness');
    step.mockReturnValue(NEVER);
    button()!.click();
    await fixture.whenStable();
    expect(step).toHaveBeenCalledWith(expect.any(String), 'measure-betweenness', { network: 'n1', seed: 4 });
    expect(button()).toBeNull();
    expect(text(fixture)).toContain('betweenness follows');
  });

  it('says why it could not be computed', async () => {
    const { fixture, button } = await note(quick, 'interrupted');
    step.mockReturnValue(throwError(() => new Error('This network is no longer there.')));
    button()!.click();
    await fixture.whenStable();
    expect(text(fixture)).toContain('This network is no longer there.');
  });
});
