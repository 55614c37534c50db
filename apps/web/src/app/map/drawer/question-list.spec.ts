import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideMockStore } from '@ngrx/store/testing';
import { defaultMap } from '@pebble/contract';
import type { MapNetwork } from '@pebble/core';
import { of } from 'rxjs';
import { button, host, text } from '../../../testing/dom';
import { exampleNetwork, exampleStep } from '../../../testing/examples';
import { Api } from '../../api/api';
import { Notices } from '../../store/notices';
import { MapSession } from '../session/map-session';
import { QuestionList } from './question-list';
import { mapMethods } from '../../../testing/map-methods';

// The real one starts a web worker by the address of its module, which only the browser's build knows.
jest.mock('../session/map-session', () => ({ MapSession: class MapSession {} }));

const nodes = { handle: ['ann', 'ben', 'cy', 'dot'], name: ['', '', '', ''] };
const data = (more: object = {}): MapNetwork => ({ nodeCount: 4, nodes: { ...nodes, ...more }, edges: {} });
const closeness = {
  closeness: Float64Array.of(0.5, 0.9, NaN, 0.9),
  harmonic: Float64Array.of(0.4, 0.8, 0, 0.7),
};

const asked = mapMethods();

describe('QuestionList', () => {
  const api = { step: jest.fn(() => of(exampleStep({ result: { notes: ['It was estimated.'] } }))) };
  const notices = { say: jest.fn() };
  async function list(network: MapNetwork, directed = true) {
    const session = {
      network: signal(exampleNetwork({ directed })),
      data: signal(network),
      prepared: signal({ nodes: Uint32Array.of(0, 1), edges: Uint32Array.of(0), pale: null }),
      description: signal(defaultMap),
      refresh: jest.fn(),
    };
    TestBed.configureTestingModule({
      providers: [
        provideMockStore(),
        { provide: MapSession, useValue: { ...session, ...asked } },
        { provide: Api, useValue: api },
        { provide: Notices, useValue: notices },
      ],
    });
    const fixture = TestBed.createComponent(QuestionList);
    await fixture.whenStable();
    return { fixture, session };
  }
  beforeEach(() => jest.clearAllMocks());

  it('answers a question as a step, says what is to be said of it, and shows the new columns', async () => {
    const { fixture, session } = await list(data());
    expect(text(fixture)).toContain('Who is near to everybody?');
    button(fixture, 'Answer it').click();
    expect(api.step).toHaveBeenCalledWith(session.network().study, 'answer-questions', {
      network: 'n1',
      questions: ['basics'],
      settings: { damping: 0.85, groups: 'community', seed: 1 },
      shown: null,
    });
    expect(notices.say).toHaveBeenCalledWith('It was estimated.');
    expect(session.refresh).toHaveBeenCalled();
  });

  it('names those with the highest values, and how many have none', async () => {
    const { fixture } = await list(data(closeness));
    const [answer] = host(fixture).querySelectorAll('.answer');
    expect(answer.textContent.replace(/\s+/g, ' ')).toContain('ben 0.900 dot 0.900 ann 0.500');
    expect(answer.textContent).toContain('none for 1');
    button(fixture, 'ben').click();
    expect(asked.selectNode).toHaveBeenCalledWith(1);
    button(fixture, 'Size by it').click();
    const size = { ...defaultMap.size, column: 'closeness' };
    expect(asked.describe).toHaveBeenCalledWith({ ...defaultMap, size });
    expect(button(fixture, 'Answer all 9')).toBeDefined();
  });

  it('asks nothing of an undirected network that needs a direction', async () => {
    const { fixture } = await list(data(), false);
    expect(text(fixture)).not.toContain('looked up to');
    expect(button(fixture, 'Answer all 8')).toBeDefined();
  });

  it('asks of what is shown, with groups and damping as chosen', async () => {
    const { fixture, session } = await list(data());
    const selects = host(fixture).querySelectorAll('select');
    selects[0].value = 'shown';
    selects[0].dispatchEvent(new Event('change'));
    const damping = host(fixture).querySelector('input')!;
    damping.value = '0.7';
    damping.dispatchEvent(new Event('input'));
    await fixture.whenStable();
    expect(text(fixture)).toContain('what is shown (2)');
    button(fixture, 'Answer it').click();
    expect(api.step).toHaveBeenCalledWith(session.network().study, 'answer-questions', {
      network: 'n1',
      questions: ['basics'],
      settings: { damping: 0.7, groups: 'community', seed: 1 },
      shown: defaultMap.show,
    });
  });

  it('says that its answers are of another part than is shown now', async () => {
    const { fixture, session } = await list(data({ 'closeness, shown': Float64Array.of(1, NaN, 0.5, 1) }));
    session.network.update((network) => ({
      ...network,
      columns: [
        {
          name: 'closeness, shown',
          title: 'closeness, shown',
          type: 'number',
          how: '',
          shown: { ...defaultMap.show, largestComponent: true },
        },
      ],
    }));
    const [part] = host(fixture).querySelectorAll('select');
    part.value = 'shown';
    part.dispatchEvent(new Event('change'));
    await fixture.whenStable();
    expect(text(fixture)).toContain('of another part than is shown now: of the largest component');
    button(fixture, 'Compute them again').click();
    expect(api.step).toHaveBeenCalledWith(
      session.network().study,
      'answer-questions',
      expect.objectContaining({ questions: ['close'], shown: defaultMap.show }),
    );
  });

  it('says why nothing was computed', async () => {
    api.step.mockReturnValueOnce(
      of(exampleStep({ state: 'failed', error: 'This network is no longer there.' })),
    );
    const { fixture, session } = await list(data());
    button(fixture, 'Answer it').click();
    await fixture.whenStable();
    expect(text(fixture)).toContain('This network is no longer there.');
    expect(session.refresh).not.toHaveBeenCalled();
  });
});
