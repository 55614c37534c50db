import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { provideMockStore } from '@ngrx/store/testing';
import type { Decision, FoundThing, Suggestion, TidyPage } from '@pebble/contract';
import { of } from 'rxjs';
import { button, choose, host, text, type } from '../../testing/dom';
import { exampleMessage, exampleStep, exampleStudy } from '../../testing/examples';
import { Api } from '../api/api';
import { Notices } from '../store/notices';
import { work } from '../store/work.reducer';
import { Tidy } from './tidy';

const thing = (key: string, messages: number, change: Partial<FoundThing> = {}): FoundThing => ({
  key,
  label: `#${key}`,
  messages,
  authors: 2,
  first: Date.UTC(2026, 2, 1),
  last: Date.UTC(2026, 2, 9),
  example: 4,
  kind: null,
  state: 'open',
  into: null,
  merged: [],
  categories: {},
  ...change,
});
const page: TidyPage = {
  total: 3,
  things: [thing('lamps', 90), thing('lights', 20), thing('pie', 3, { state: 'dropped' })],
  review: {
    found: 3,
    reviewed: 1,
    dropped: 1,
    merged: 0,
    mostUsed: 0,
    sentence: '1 of 3 hashtags reviewed.',
  },
};
const decisions: Decision[] = [
  { id: 3, sort: 'hashtag', key: 'pie', verdict: { verdict: 'drop' }, step: 5 },
  { id: 4, sort: 'account', key: 'ann', verdict: { verdict: 'keep' }, step: 6 },
];
const pair: Suggestion = {
  a: page.things[0],
  b: page.things[1],
  reason: 'nearly the same letters',
  label: '#lamps',
};

describe('Tidy', () => {
  const api = {
    tidy: jest.fn(() => of(page)),
    suggestions: jest.fn(() => of([pair])),
    decisions: jest.fn(() => of({ total: decisions.length, offset: 0, decisions })),
    thread: jest.fn(() => of({ messages: [{ depth: 0, message: exampleMessage({ id: 4 }) }], total: 1 })),
    step: jest.fn(() => of(exampleStep({ result: { decisions: [7] } }))),
    upload: jest.fn(),
    previewAgain: jest.fn(),
  };
  let fixture: ComponentFixture<Tidy>;
  beforeEach(async () => {
    jest.clearAllMocks();
    Element.prototype.scrollIntoView = jest.fn();
    TestBed.configureTestingModule({
      providers: [
        provideRouter([]),
        provideMockStore({ selectors: [{ selector: work.selectStudy, value: exampleStudy }] }),
        { provide: Api, useValue: api },
        { provide: Notices, useValue: { say: jest.fn() } },
      ],
    });
    fixture = TestBed.createComponent(Tidy);
    await fixture.whenStable();
  });
  const press = async (key: string, change: KeyboardEventInit = {}): Promise<void> => {
    document.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, ...change }));
    await fixture.whenStable();
  };
  const chosen = (): string => host(fixture).querySelector('tr.at .label')!.textContent.trim();
  const decided = (decision: object) =>
    expect(api.step).toHaveBeenLastCalledWith(exampleStudy.id, 'tidy', {
      sort: 'hashtag',
      decisions: [decision],
    });

  it('shows what was found with an example, and how far the review is', () => {
    expect(chosen()).toBe('#lamps');
    expect(text(fixture)).toContain('1 of 3 hashtags reviewed.');
    expect(text(fixture)).toContain('90 messages by 2 accounts');
    expect(api.thread).toHaveBeenCalledWith({ study: exampleStudy.id, message: 4 });
  });

  it('keeps and leaves out by keys, and goes on to the next', async () => {
    await press('k');
    decided({ key: 'lamps', verdict: { verdict: 'keep' } });
    expect(chosen()).toBe('#lights');
    await press('x');
    decided({ key: 'lights', verdict: { verdict: 'drop' } });
    await press('ArrowUp');
    expect(chosen()).toBe('#lights');
  });

  it('undoes the decisions of this sitting, the last one first', async () => {
    expect(button(fixture, 'U').disabled).toBe(true);
    await press('k');
    await press('u');
    expect(api.step).toHaveBeenLastCalledWith(exampleStudy.id, 'take-back-tidy', { decisions: [7] });
    expect(button(fixture, 'U').disabled).toBe(true);
  });

  it('merges into another one that is searched for', async () => {
    await press('m');
    type(host(fixture).querySelector<HTMLInputElement>('aside label input')!, 'ligh');
    await fixture.whenStable();
    button(fixture, '#lights').click();
    decided({ key: 'lamps', verdict: { verdict: 'merge', into: 'lights' } });
  });

  it('leaves what is being typed alone when the same thing is read anew', async () => {
    await press('m');
    type(host(fixture).querySelector<HTMLInputElement>('aside label input')!, 'ligh');
    api.tidy.mockReturnValueOnce(of({ ...page, things: page.things.map((one) => ({ ...one })) }));
    button(fixture, 'Keep apart').click();
    await fixture.whenStable();
    expect(host(fixture).querySelector<HTMLInputElement>('aside label input')!.value).toBe('ligh');
  });

  it('does nothing by keys while one types, nor with kinds that hashtags do not have', async () => {
    const search = host(fixture).querySelector<HTMLInputElement>('input[type="search"]')!;
    search.dispatchEvent(new KeyboardEvent('keydown', { key: 'k', bubbles: true }));
    await press('1');
    expect(api.step).not.toHaveBeenCalled();
  });

  it('merges a pair that may be the same under a name, or keeps both apart', () => {
    button(fixture, 'Merge').click();
    button(fixture, 'Keep apart').click();
    expect(api.step).toHaveBeenLastCalledWith(exampleStudy.id, 'tidy', {
      sort: 'hashtag',
      decisions: [
        { key: 'lamps', verdict: { verdict: 'keep' } },
        { key: 'lights', verdict: { verdict: 'keep' } },
      ],
    });
  });

  it('lists the decisions of a sort, each to be taken back by itself', () => {
    expect(text(fixture)).toContain('1 decision that holds');
    expect(text(fixture)).toContain('#pie is left out');
    button(fixture, 'Take back').click();
    expect(api.step).toHaveBeenLastCalledWith(exampleStudy.id, 'take-back-tidy', { decisions: [3] });
  });

  describe('categories', () => {
    const field = (name: string): HTMLInputElement =>
      host(fixture).querySelector<HTMLInputElement>(`[aria-label="${name}"]`)!;
    const name = async (): Promise<void> => {
      type(field('Category'), 'theme');
      type(field('Which of the category'), 'animals');
      await fixture.whenStable();
    };

    it('are given to what was marked with the space bar', async () => {
      await press(' ');
      await press(' ');
      expect(text(fixture)).toContain('Categories: 2 marked');
      await press('ArrowUp');
      await press(' ');
      await name();
      button(fixture, 'Give').click();
      decided({ key: 'lamps', verdict: { verdict: 'category', name: 'theme', value: 'animals' } });
      button(fixture, 'Take it away').click();
      decided({ key: 'lamps', verdict: { verdict: 'category', name: 'theme', value: '' } });
    });

    it('are given by a rule, which can be undone', async () => {
      choose(host(fixture).querySelector<HTMLSelectElement>('[aria-label="To which"]')!, 'rule');
      await name();
      expect(button(fixture, 'Give').disabled).toBe(true);
      type(field('Contains'), 'moth | bat');
      await fixture.whenStable();
      button(fixture, 'Give').click();
      expect(api.step).toHaveBeenLastCalledWith(exampleStudy.id, 'categorise-by-rule', {
        sort: 'hashtag',
        field: 'label',
        contains: 'moth | bat',
        category: 'theme',
        value: 'animals',
      });
      await press('u');
      expect(api.step).toHaveBeenLastCalledWith(exampleStudy.id, 'take-back-tidy', { decisions: [7] });
    });

    it('are taken from a table, whose first column says which thing', async () => {
      const columns = [
        { name: 'tag', role: 'attribute' },
        { name: 'theme', role: 'attribute' },
      ];
      api.upload.mockReturnValueOnce(of({ uploads: [{ id: 'u1' }], refused: [] }));
      api.previewAgain.mockReturnValueOnce(of({ reading: { format: 'csv', columns } }));
      const input = host(fixture).querySelector<HTMLInputElement>('input[type="file"]')!;
      const file = new File(['tag,theme'], 'themes.csv');
      Object.defineProperty(input, 'files', { value: [file], configurable: true });
      Object.defineProperty(input, 'value', { value: '', writable: true });
      input.dispatchEvent(new Event('change'));
      expect(api.step).toHaveBeenLastCalledWith(exampleStudy.id, 'categorise-by-table', {
        sort: 'hashtag',
        upload: 'u1',
        file: 'themes.csv',
        reading: { format: 'csv', columns: [{ name: 'tag', role: 'node' }, columns[1]] },
      });
    });

    it('say why a table could not be used', async () => {
      api.upload.mockReturnValueOnce(of({ uploads: [], refused: [{ reason: 'It is a picture.' }] }));
      const input = host(fixture).querySelector<HTMLInputElement>('input[type="file"]')!;
      Object.defineProperty(input, 'files', { value: [new File(['x'], 'x.png')], configurable: true });
      Object.defineProperty(input, 'value', { value: '', writable: true });
      input.dispatchEvent(new Event('change'));
      await fixture.whenStable();
      expect(text(fixture)).toContain('It is a picture.');
    });
  });

  it('shows an example of both of a pair, when asked to', async () => {
    api.thread.mockClear();
    button(fixture, 'examples').click();
    await fixture.whenStable();
    expect(host(fixture).querySelectorAll('pt-suggestion-list blockquote')).toHaveLength(2);
    expect(api.thread).toHaveBeenCalledWith({ study: exampleStudy.id, message: 4 });
    button(fixture, 'examples').click();
    await fixture.whenStable();
    expect(host(fixture).querySelectorAll('pt-suggestion-list blockquote')).toHaveLength(0);
  });

  it('says what could not be done', async () => {
    api.step.mockReturnValueOnce(of(exampleStep({ state: 'failed', error: 'That would lead in a circle.' })));
    await press('k');
    expect(text(fixture)).toContain('That would lead in a circle.');
  });

  it('finds names by the library or a list', async () => {
    button(fixture, 'names').click();
    await fixture.whenStable();
    button(fixture, 'Find names of a list').click();
    await fixture.whenStable();
    type(host(fixture).querySelector('textarea')!, 'Lighting Board\n\n SLB ');
    await fixture.whenStable();
    button(fixture, 'Find them').click();
    expect(api.step).toHaveBeenLastCalledWith(exampleStudy.id, 'find-names', {
      by: 'list',
      names: ['Lighting Board', 'SLB'],
      match: 'words',
      kind: 'unknown',
    });
  });
});
