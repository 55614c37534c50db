import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { of } from 'rxjs';
import { button, choose, host, text, type } from '../../../testing/dom';
import { exampleNetwork, exampleStep } from '../../../testing/examples';
import { Api } from '../../api/api';
import { FormulaForm } from './formula-form';
import { MapSession } from '../session/map-session';

// The real one starts a web worker by the address of its module, which only the browser's build knows.
jest.mock('../session/map-session', () => ({ MapSession: class MapSession {} }));

describe('FormulaForm', () => {
  const api = { step: jest.fn(() => of(exampleStep())) };
  async function form() {
    const session = {
      network: signal(
        exampleNetwork({ columns: [{ name: 'inDegree', title: 'in-degree', type: 'number', how: '' }] }),
      ),
      data: signal({
        nodeCount: 3,
        nodes: { handle: ['ann', 'ben', 'cy'], name: ['', '', ''], inDegree: Uint32Array.of(4, 0, 2) },
        edges: {},
      }),
      refresh: jest.fn(),
    };
    TestBed.configureTestingModule({
      providers: [
        { provide: MapSession, useValue: session },
        { provide: Api, useValue: api },
      ],
    });
    const fixture = TestBed.createComponent(FormulaForm);
    await fixture.whenStable();
    const write = async (label: string, value: string) => {
      type(host(fixture).querySelector<HTMLInputElement>(`[aria-label="${label}"]`)!, value);
      await fixture.whenStable();
    };
    return { fixture, session, write };
  }

  it('says what a formula would give while it is written, and computes it', async () => {
    const { fixture, session, write } = await form();
    expect(text(fixture)).toContain('percentile, rank');
    await write('Formula', '1 / ');
    expect(text(fixture)).toContain('cannot be read to its end');
    expect(button(fixture, 'Compute').disabled).toBe(true);
    choose(host(fixture).querySelector<HTMLSelectElement>('[aria-label="Put a column in"]')!, 'in-degree');
    await fixture.whenStable();
    expect(text(fixture)).toContain('Highest: cy 0.500, ann 0.250. 1 have no value.');
    await write('Name of the column', 'inverse');
    button(fixture, 'Compute').click();
    expect(api.step).toHaveBeenCalledWith(exampleNetwork().study, 'compute-column', {
      network: 'n1',
      name: 'inverse',
      formula: '1 / [in-degree]',
    });
    expect(session.refresh).toHaveBeenCalled();
  });

  it('makes an empty column that is filled in by hand', async () => {
    const { fixture, session, write } = await form();
    const empty = (): HTMLButtonElement => button(fixture, 'Make it empty, to be filled in by hand');
    expect(empty().disabled).toBe(true);
    await write('Name of the column', 'Role');
    empty().click();
    expect(api.step).toHaveBeenCalledWith(exampleNetwork().study, 'mark-nodes', {
      network: 'n1',
      nodes: [],
      column: 'Role',
      value: '',
    });
    expect(session.refresh).toHaveBeenCalled();
  });

  it('says why it was not computed', async () => {
    api.step.mockReturnValueOnce(
      of(exampleStep({ state: 'failed', error: 'The nodes have a column “degree” already.' })),
    );
    const { fixture, write } = await form();
    await write('Name of the column', 'degree');
    await write('Formula', '[in-degree] * 2');
    button(fixture, 'Compute').click();
    await fixture.whenStable();
    expect(host(fixture).querySelector('[role="alert"]')!.textContent).toContain('already');
  });
});
