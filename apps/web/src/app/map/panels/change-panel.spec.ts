import { signal } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { Router } from '@angular/router';
import { signalStore } from '@ngrx/signals';
import { type NetworkChange } from '@pebble/contract';
import { of } from 'rxjs';
import { Api } from '../../api/api';
import { host } from '../../../testing/dom';
import { exampleNetwork } from '../../../testing/examples';
import { ChangePanel } from './change-panel';
import { MapSession } from '../session/map-session';
import { withDecisions } from '../session/with-decisions';
import { withoutChange } from '../session/planning';

jest.mock('../session/map-session', () => ({ MapSession: class MapSession {} }));

const Decisions = signalStore(withDecisions());

describe('ChangePanel', () => {
  const data = { nodeCount: 3, nodes: { handle: ['ann', 'ben', 'cem'] }, edges: {} };
  const step = jest.fn((..._asked: unknown[]) => of<object>({ state: 'done', result: { network: 'n2' } }));
  const navigate = jest.fn();
  let fixture: ComponentFixture<ChangePanel>;
  let decisions: InstanceType<typeof Decisions>;

  const open = async (chosen: readonly number[]): Promise<HTMLElement> => {
    decisions = new Decisions();
    const session = {
      data: signal(data),
      network: signal(exampleNetwork()),
      chosen: signal(chosen),
      planned: decisions.planned,
      plan: (changes: readonly NetworkChange[]) => decisions.plan(changes),
    };
    TestBed.configureTestingModule({
      providers: [
        { provide: MapSession, useValue: session },
        { provide: Api, useValue: { step } },
        { provide: Router, useValue: { navigate } },
      ],
    });
    fixture = TestBed.createComponent(ChangePanel);
    await fixture.whenStable();
    return host(fixture);
  };
  const plan = async (...changes: NetworkChange[]): Promise<void> => {
    decisions.plan(changes);
    await fixture.whenStable();
  };
  const listed = (page: HTMLElement): string[] =>
    [...page.querySelectorAll('li .link')].map((one) => one.textContent.trim());

  it('says what to do while nothing is planned', async () => {
    const page = await open([]);
    expect(page.textContent).toContain('nothing changes before you say so');
    expect(page.textContent).not.toContain('Make the changed network');
  });

  it('adds a node with ties to what is chosen', async () => {
    const page = await open([2]);
    const field = page.querySelector<HTMLInputElement>('[aria-label="Name of a new node"]')!;
    field.value = 'Harbour';
    field.dispatchEvent(new Event('input'));
    page.querySelector('form')!.dispatchEvent(new Event('submit'));
    await fixture.whenStable();
    expect(listed(page)).toEqual(['Add Harbour', 'Tie Harbour → cem, weight 1']);
    decisions.undo();
    await fixture.whenStable();
    expect(listed(page)).toEqual([]);
  });

  it('drops a change, weighs a tie, and makes the network with its reason', async () => {
    const page = await open([]);
    await plan({ what: 'without-nodes', nodes: [0] }, { what: 'new-tie', source: 1, target: 2, weight: 1 });
    const weight = page.querySelector<HTMLInputElement>('[aria-label="Weight of change 2"]')!;
    weight.value = '2.5';
    weight.dispatchEvent(new Event('change'));
    await fixture.whenStable();
    page.querySelector<HTMLButtonElement>('[aria-label="Drop change 1"]')!.click();
    await fixture.whenStable();
    expect(listed(page)).toEqual(['Tie ben → cem, weight 2.5']);
    page.querySelector('.make')!.dispatchEvent(new Event('submit'));
    await fixture.whenStable();
    expect(step.mock.lastCall).toEqual([
      'ab12cd34ef',
      'change-network',
      {
        network: 'n1',
        name: 'Replies of March, changed by hand',
        changes: [{ what: 'new-tie', source: 1, target: 2, weight: 2.5 }],
        why: '',
      },
    ]);
    expect(navigate).toHaveBeenCalledWith(['/studies', 'ab12cd34ef', 'map', 'n2']);
    expect(decisions.planned()).toEqual([]);
  });

  it('keeps the plan and says why when it cannot be done', async () => {
    const page = await open([]);
    step.mockReturnValueOnce(of({ state: 'failed', error: '“ann” was taken out before.' }));
    await plan({ what: 'without-nodes', nodes: [0] });
    page.querySelector('.make')!.dispatchEvent(new Event('submit'));
    await fixture.whenStable();
    expect(page.querySelector('[role=alert]')!.textContent).toContain('“ann” was taken out before.');
    expect(listed(page)).toEqual(['Take out ann']);
  });

  it('gives later nodes and their ties the right number when an added one is dropped', () => {
    const changes: NetworkChange[] = [
      { what: 'new-node', name: 'x' },
      { what: 'new-tie', source: 3, target: 0, weight: 1 },
      { what: 'new-node', name: 'y' },
      { what: 'new-tie', source: 4, target: 1, weight: 1 },
    ];
    expect(withoutChange(changes, 0, 3)).toEqual([
      { what: 'new-node', name: 'y' },
      { what: 'new-tie', source: 3, target: 1, weight: 1 },
    ]);
  });
});
