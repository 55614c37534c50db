import { TestBed, type ComponentFixture } from '@angular/core/testing';
import type { AccountRow, ItemRow, Message, MessageFilter, ImportMapping, Thread } from '@pebble/contract';
import { of } from 'rxjs';
import {
  exampleMessage,
  exampleNetwork,
  exampleOverview,
  examplePreview,
  exampleReading,
} from '../../testing/examples';
import { button, host, text } from '../../testing/dom';
import { Api } from '../api/api';
import { Notices } from '../store/notices';
import { AccountTable } from './account-table';
import { ItemTable } from './item-table';
import { KeptFilters } from './kept-filters';
import { MessageView } from './message-view';
import { PreviewPanel, type Accepted } from './preview-panel';

const withApi = (api: object): void => {
  TestBed.configureTestingModule({
    providers: [
      { provide: Api, useValue: api },
      { provide: Notices, useValue: { say: jest.fn() } },
    ],
  });
};

describe('PreviewPanel for materials beside messages', () => {
  let fixture: ComponentFixture<PreviewPanel>;
  let accepted: Accepted[];
  let asked: Partial<ImportMapping>[];
  const show = async (change: Partial<ImportMapping>, networks = [exampleNetwork()]): Promise<void> => {
    const groups = { material: 'groups' as const, columns: [{ name: 'group', role: 'group' as const }] };
    const preview = examplePreview({ reading: exampleReading({ ...groups, ...change }), rows: [] });
    fixture = TestBed.createComponent(PreviewPanel);
    fixture.componentRef.setInput('preview', preview);
    fixture.componentRef.setInput('networks', networks);
    accepted = [];
    asked = [];
    fixture.componentInstance.accepted.subscribe((one) => accepted.push(one));
    fixture.componentInstance.readingChanged.subscribe((one) => asked.push(one));
    await fixture.whenStable();
  };

  it('gives groups to a network under a name', async () => {
    await show({});
    const name = host(fixture).querySelector<HTMLInputElement>('.wide input')!;
    name.value = 'side';
    name.dispatchEvent(new Event('input'));
    await fixture.whenStable();
    button(fixture, 'Import').click();
    expect(accepted[0]).toMatchObject({ network: 'n1', column: 'side' });
  });

  it('cannot give groups where there is no network', async () => {
    await show({}, []);
    expect(text(fixture)).toContain('this study has none yet');
    expect(button(fixture, 'Import').disabled).toBe(true);
  });

  it('asks who is followed where no column says it', async () => {
    await show({ material: 'follows', followed: 'quay', columns: [{ name: 'handle', role: 'follower' }] });
    expect(host(fixture).querySelector<HTMLInputElement>('.wide input')!.value).toBe('quay');
    const both = [
      { name: 'a', role: 'follower' },
      { name: 'b', role: 'followed' },
    ] as const;
    await show({ material: 'follows', columns: [...both] });
    expect(host(fixture).querySelector('.wide input')).toBeNull();
  });

  it('lets one say what an empty cell of a matrix means', async () => {
    await show({
      material: 'two-mode',
      twoMode: { layout: 'matrix', between: ';', empty: 'zero', repeats: 'sum' },
      columns: [
        { name: 'who', role: 'source' },
        { name: 'March', role: 'thing' },
      ],
    });
    const select = [...host(fixture).querySelectorAll('select')].find((one) =>
      one.textContent.includes('not known'),
    )!;
    select.value = 'missing';
    select.dispatchEvent(new Event('change'));
    expect(asked[0].twoMode).toMatchObject({ layout: 'matrix', empty: 'missing' });
  });
});

describe('MessageView', () => {
  const message = exampleMessage({ id: 4, item: { key: 'v1', title: 'Lamps at dusk' } });
  const thread: Thread = {
    total: 2,
    beginsBefore: false,
    circular: false,
    messages: [
      { depth: 0, message: exampleMessage({ id: 3, text: 'The first one' }) },
      { depth: 1, message },
    ],
  };
  const show = async (api: object): Promise<ComponentFixture<MessageView>> => {
    withApi({ thread: () => of(thread), ...api });
    const fixture = TestBed.createComponent(MessageView);
    fixture.componentRef.setInput('study', 's');
    fixture.componentRef.setInput('message', message);
    await fixture.whenStable();
    return fixture;
  };

  it('shows the thread, and hands on another message of it', async () => {
    const fixture = await show({});
    const chosen: Message[] = [];
    fixture.componentInstance.messageChosen.subscribe((one) => chosen.push(one));
    expect(text(fixture)).toContain('Thread · 2 messages');
    host(fixture).querySelector<HTMLButtonElement>('.answer')!.click();
    expect(chosen[0].id).toBe(3);
  });

  it('keeps a star and a note as steps', async () => {
    const step = jest.fn(() => of({}));
    const fixture = await show({ step });
    const changed: Message[] = [];
    fixture.componentInstance.changed.subscribe((one) => changed.push(one));
    button(fixture, '☆ star').click();
    expect(step).toHaveBeenCalledWith('s', 'mark-message', { message: 4, starred: true, note: '' });
    expect(changed[0].starred).toBe(true);
    const note = host(fixture).querySelector('textarea')!;
    note.value = ' for chapter 3 ';
    note.dispatchEvent(new Event('input'));
    note.dispatchEvent(new Event('blur'));
    expect(step).toHaveBeenLastCalledWith('s', 'mark-message', {
      message: 4,
      starred: false,
      note: 'for chapter 3',
    });
  });

  it('corrects the language by hand, and leads to the item', async () => {
    const step = jest.fn(() => of({}));
    const fixture = await show({ step });
    const code = host(fixture).querySelector<HTMLInputElement>('.code input')!;
    code.value = 'fr';
    code.dispatchEvent(new Event('change'));
    expect(step).toHaveBeenCalledWith('s', 'set-language', { message: 4, language: 'fr' });
    const items: string[] = [];
    fixture.componentInstance.itemChosen.subscribe((key) => items.push(key));
    button(fixture, 'Lamps at dusk').click();
    expect(items).toEqual(['v1']);
  });
});

describe('KeptFilters', () => {
  it('keeps what is asked now, and asks again for what was kept', async () => {
    const step = jest.fn(() => of({}));
    const kept = [{ id: 2, name: 'Night', filter: { text: 'night' } }];
    withApi({ filters: () => of(kept), step });
    const fixture = TestBed.createComponent(KeptFilters);
    fixture.componentRef.setInput('study', 's');
    fixture.componentRef.setInput('filter', {} satisfies MessageFilter);
    await fixture.whenStable();
    expect(button(fixture, 'Keep this filter')).toBeUndefined();
    button(fixture, 'Night').click();
    expect(fixture.componentInstance.filter()).toEqual({ text: 'night' });
    await fixture.whenStable();
    button(fixture, 'Keep this filter').click();
    await fixture.whenStable();
    host(fixture).querySelector('input')!.value = 'Late';
    host(fixture).querySelector('form')!.dispatchEvent(new Event('submit'));
    expect(step).toHaveBeenCalledWith('s', 'save-filter', { name: 'Late', filter: { text: 'night' } });
    host(fixture).querySelector<HTMLButtonElement>('[aria-label^="Forget"]')!.click();
    expect(step).toHaveBeenLastCalledWith('s', 'forget-filter', { id: 2, name: 'Night' });
  });
});

describe('the tables', () => {
  const account: AccountRow = {
    id: 1,
    handle: 'ann',
    name: 'Ann H.',
    messages: 12,
    addressed: 3,
    followersHere: 40,
    followingHere: 2,
    first: Date.UTC(2026, 2, 1),
    last: Date.UTC(2026, 2, 3),
    profile: {
      joined: Date.UTC(2020, 0, 5),
      location: 'Sallowmere',
      description: 'I count moths',
      numbers: { followers: 412 },
      attributes: { side: 'amber' },
    },
  };

  it('of accounts say what they did and what is told of them', async () => {
    const accounts = jest.fn(() => of({ total: 300, accounts: [account] }));
    withApi({ accounts });
    const fixture = TestBed.createComponent(AccountTable);
    fixture.componentRef.setInput('study', 's');
    fixture.componentRef.setInput('overview', exampleOverview);
    await fixture.whenStable();
    expect(text(fixture)).toContain('1 March 2026 to 3 March 2026');
    expect(text(fixture)).toContain(
      '412 followers · Sallowmere · joined 5 January 2020 · I count moths · side: amber',
    );
    button(fixture, 'followers here').click();
    await fixture.whenStable();
    expect(accounts).toHaveBeenLastCalledWith(
      { study: 's' },
      { search: '', by: 'followersHere', limit: 100 },
    );
    button(fixture, 'Show more').click();
    await fixture.whenStable();
    expect(accounts).toHaveBeenLastCalledWith(
      { study: 's' },
      { search: '', by: 'followersHere', limit: 200 },
    );
  });

  it('of items lead to the comments under them', async () => {
    const item: ItemRow = {
      key: 'v1',
      title: 'Lamps at dusk',
      channel: 'quay',
      time: null,
      link: null,
      messages: 5,
      authors: 4,
      numbers: { views: 1200 },
    };
    withApi({ items: () => of({ total: 1, items: [item] }) });
    const fixture = TestBed.createComponent(ItemTable);
    fixture.componentRef.setInput('study', 's');
    fixture.componentRef.setInput('overview', exampleOverview);
    const chosen: string[] = [];
    fixture.componentInstance.chosen.subscribe((key) => chosen.push(key));
    await fixture.whenStable();
    expect(text(fixture)).toContain('1,200 views');
    button(fixture, 'Lamps at dusk').click();
    expect(chosen).toEqual(['v1']);
  });
});
