import { TestBed } from '@angular/core/testing';
import type { Codebook, Queue } from '@pebble/contract';
import { Observable, of, throwError } from 'rxjs';
import { button, host, text } from '../../../testing/dom';
import { exampleMessage } from '../../../testing/examples';
import { Api } from '../../api/api';
import { Coding } from './coding';
import { CodingQueue } from './coding-queue';

const BOOK: Codebook = {
  codes: ['ask', 'blame'].map((name, i) => ({
    id: 10 + i,
    name,
    definition: '',
    examples: '',
    colour: '#0072B2',
    set: '',
    messages: 0,
  })),
  coders: [],
  samples: [{ id: 3, name: 'S', step: 1, messages: 2, coded: {} }],
};

describe('coding one by one', () => {
  const kept = new Map<number, readonly number[]>();
  const api = {
    codebook: () => of(BOOK),
    queue: jest.fn((_: object, { offset }: { offset: number }) => {
      const messages = [exampleMessage({ id: 1 }), exampleMessage({ id: 2 })];
      const next = messages.findIndex(({ id }) => !kept.has(id));
      return of<Queue>({
        total: 2,
        coded: kept.size,
        next: next < 0 ? null : next,
        offset,
        entries: [{ place: offset, message: messages[offset], codes: [...(kept.get(offset + 1) ?? [])] }].map(
          (one) => (kept.has(offset + 1) ? one : { ...one, codes: null }),
        ),
      });
    }),
    step: jest.fn(
      (_: string, __: string, { message, codes }: { message: number; codes: number[] | null }) => {
        if (codes === null) kept.delete(message);
        else kept.set(message, codes);
        return of({ state: 'done' });
      },
    ),
  };

  async function queue() {
    kept.clear();
    api.step.mockClear();
    TestBed.configureTestingModule({ providers: [Coding, { provide: Api, useValue: api }] });
    const coding = TestBed.inject(Coding);
    coding.call('Ida');
    coding.open('s1');
    const fixture = TestBed.createComponent(CodingQueue);
    fixture.componentRef.setInput('sample', BOOK.samples[0]);
    await fixture.whenStable();
    const press = async (key: string, target: EventTarget = document): Promise<void> => {
      target.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));
      await fixture.whenStable();
    };
    return { fixture, press };
  }

  it('goes by keys: codes, Enter, and on to the next until all are coded', async () => {
    const { fixture, press } = await queue();
    expect(text(fixture)).toContain('0 of 2 messages coded by Ida');
    await press('2');
    await press('1');
    await press('2');
    await press('Enter');
    expect(api.step).toHaveBeenLastCalledWith('s1', 'code-message', {
      message: 1,
      coder: 'Ida',
      codes: [10],
    });
    expect(text(fixture)).toContain('1 of 2 messages coded by Ida');
    await press('Enter');
    expect(api.step).toHaveBeenLastCalledWith('s1', 'code-message', { message: 2, coder: 'Ida', codes: [] });
    expect(text(fixture)).toContain('All of “S” are coded by Ida.');
  });

  it('leaves keys alone that are typed elsewhere, and a key without a code', async () => {
    const { fixture, press } = await queue();
    const input = document.body.appendChild(document.createElement('input'));
    await press('1', input);
    input.remove();
    await press('9');
    button(fixture, 'None of them, next').click();
    await fixture.whenStable();
    expect(api.step).toHaveBeenLastCalledWith('s1', 'code-message', { message: 1, coder: 'Ida', codes: [] });
  });

  it('loses no key that is pressed before the next message is there', async () => {
    const { fixture, press } = await queue();
    // The step takes its time.
    let done: () => void = () => undefined;
    api.step.mockImplementationOnce((_, __, { message, codes }) => {
      return new Observable<{ state: string }>((told) => {
        done = () => {
          kept.set(message, codes!);
          told.next({ state: 'done' });
          told.complete();
        };
      });
    });
    await press('Enter');
    await press('2');
    await press('Enter');
    done();
    await fixture.whenStable();
    expect(kept.get(1)).toEqual([]);
    expect(kept.get(2)).toEqual([11]);
  });

  it('keeps by Enter where a code was pressed last, which Space gives and takes', async () => {
    const { fixture, press } = await queue();
    const code = button(fixture, '1 ask');
    code.click();
    await press('Enter', code);
    expect(kept.get(1)).toEqual([10]);
  });

  it('goes back without keeping, and takes a coding back', async () => {
    const { fixture, press } = await queue();
    await press('1');
    await press('Enter');
    await press('ArrowLeft');
    expect(text(fixture)).toContain('coded already');
    expect(host(fixture).querySelector('[aria-pressed="true"]')?.textContent).toContain('ask');
    button(fixture, 'Take it back').click();
    await fixture.whenStable();
    expect(kept.size).toBe(0);
  });

  it('keeps what was chosen where it could not be kept', async () => {
    const { fixture, press } = await queue();
    api.step.mockReturnValueOnce(throwError(() => new Error('The disk is full.')));
    await press('1');
    await press('Enter');
    expect(text(fixture)).toContain('The disk is full. What you chose is still here.');
    expect(host(fixture).querySelector('[aria-pressed="true"]')?.textContent).toContain('ask');
  });
});
