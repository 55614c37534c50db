import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { WholeNetwork } from '@pebble/contract';
import { of } from 'rxjs';
import { button, host, text } from '../../../testing/dom';
import { exampleNetwork, exampleStep } from '../../../testing/examples';
import { Api } from '../../api/api';
import { MapSession } from '../session/map-session';
import { WholePanel } from './whole-panel';

// The real one starts a web worker by the address of its module, which only the browser's build knows.
jest.mock('../session/map-session', () => ({ MapSession: class MapSession {} }));

const whole: WholeNetwork = {
  figures: { density: 0.0123, reciprocity: null, assortativity: -0.21, top10: 0.456, largestWeak: 1132 },
  byChance: { assortativity: { mean: -0.11, deviation: 0.013 } },
  networks: 100,
  seed: 1,
};

describe('WholePanel', () => {
  const api = { step: jest.fn(() => of(exampleStep())) };
  async function panel(given: WholeNetwork | null) {
    const session = { network: signal(exampleNetwork({ whole: given })), refresh: jest.fn() };
    TestBed.configureTestingModule({
      providers: [
        { provide: MapSession, useValue: session },
        { provide: Api, useValue: api },
      ],
    });
    const fixture = TestBed.createComponent(WholePanel);
    await fixture.whenStable();
    return { fixture, session };
  }

  it('measures when it is asked to', async () => {
    const { fixture, session } = await panel(null);
    button(fixture, 'Measure the whole network').click();
    expect(api.step).toHaveBeenCalledWith(session.network().study, 'describe-whole', {
      network: 'n1',
      networks: 100,
      seed: 1,
    });
    expect(session.refresh).toHaveBeenCalled();
  });

  it('tells the figures that are there, beside chance', async () => {
    const { fixture } = await panel(whole);
    expect(text(fixture)).toContain('degree assortativity −0.210 by chance −0.110 ± 0.013');
    expect(text(fixture)).toContain('held by the first 10 % 46 %');
    expect(text(fixture)).toContain('1,132');
    expect(text(fixture)).not.toContain('reciprocity 0');
    expect(host(fixture).querySelectorAll('dl > div')).toHaveLength(4);
  });

  it('says why it could not be measured', async () => {
    api.step.mockReturnValueOnce(of(exampleStep({ state: 'failed', error: 'Gone.' })));
    const { fixture } = await panel(null);
    button(fixture, 'Measure').click();
    await fixture.whenStable();
    expect(text(fixture)).toContain('Gone.');
  });
});
