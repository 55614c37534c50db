import { Component, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { Weave, type AccountWeave, type SavedFilter, type Source } from '@pebble/contract';
import { button, choose, host, text, type } from '../../testing/dom';
import { exampleNetwork, exampleOverview } from '../../testing/examples';
import { AccountSentence } from './account-sentence';
import { AfterFields } from './after-fields';
import { AlikeSentence } from './alike-sentence';
import { ProjectionSentence } from './projection-sentence';
import { GroupSentence } from './group-sentence';
import { commonTag, firstQuestion, firstWeave, QUESTIONS, thingsIn, whyNot } from './questions';
import { SliceFields } from './slice-fields';
import { StepSentence } from './step-sentence';
import { TakenFields } from './taken-fields';
import { ThingSentence, type ThingWeave } from './thing-sentence';
import { WeaveSize } from './weave-size';

const overview = {
  ...exampleOverview,
  items: 3,
  hashtags: [
    { tag: 'LateLampPlan', messages: 900 },
    { tag: 'DimTheWall', messages: 40 },
  ],
};
const grouped = exampleNetwork({
  columns: [
    { name: 'follows', title: 'follows', type: 'category', how: '' },
    { name: 'community', title: 'community', type: 'category', how: '' },
    { name: 'degree', title: 'degree', type: 'number', how: '' },
  ],
});

describe('the questions', () => {
  it('each begin with a sentence that can be woven', () => {
    for (const { what } of QUESTIONS)
      expect(Weave.parse(firstWeave(what, overview, [grouped])).what).toBe(what);
  });

  it('begin with a sentence also where they cannot be asked yet', () => {
    const nothing = { ...exampleOverview, messages: 0, addressKinds: [], hashtags: [], items: 0, follows: 0 };
    for (const { what } of QUESTIONS) {
      expect(Weave.parse(firstWeave(what, nothing, [])).what).toBe(what);
      expect(whyNot(what, nothing, [])).toMatch(/\.$/);
    }
  });

  it('begin with one that the study can answer', () => {
    expect(firstQuestion(overview, [])).toBe('accounts');
    // Posts that address nobody.
    const alone = { ...overview, addressKinds: [] };
    expect(whyNot('accounts', alone, [])).toContain('addresses an account');
    expect(firstQuestion(alone, [])).toBe('together');
    expect(firstQuestion({ ...exampleOverview, messages: 0, follows: 20 }, [])).toBe('follows');
  });

  it('draw the groups of a network together that is not one of groups itself', () => {
    const weave = firstWeave('groups', overview, [grouped]);
    const ofGroups = { ...grouped, id: 'n2', weave };
    expect(firstWeave('groups', overview, [ofGroups, grouped])).toMatchObject({ network: grouped.id });
  });

  it('know what a study holds', () => {
    expect(thingsIn(overview)).toEqual(['hashtag', 'item', 'channel', 'mention', 'domain', 'link', 'word']);
    expect(thingsIn(exampleOverview)[0]).toBe('mention');
  });

  it('leave a hashtag out that stands on more than a third of all messages', () => {
    expect(commonTag(overview)).toBe('LateLampPlan');
    expect(commonTag({ ...overview, messages: 9000 })).toBeNull();
    expect(firstWeave('together', overview, [])).toMatchObject({ without: ['LateLampPlan'] });
  });

  it('say why they cannot be asked yet', () => {
    expect(whyNot('follows', overview, [])).toContain('no follower lists');
    expect(whyNot('groups', overview, [exampleNetwork()])).toContain('weave one first');
    expect(whyNot('groups', overview, [grouped])).toBeNull();
    expect(whyNot('accounts', { ...overview, messages: 0 }, [])).toContain('no messages');
  });
});

@Component({
  imports: [ThingSentence],
  template: `<pt-thing-sentence
    [(weave)]="weave"
    [offered]="['hashtag', 'item']"
    commonTag="LateLampPlan"
  />`,
})
class ThingHost {
  readonly weave = signal<ThingWeave>(Weave.parse({ what: 'together', things: 'hashtag' }) as ThingWeave);
}

describe('ThingSentence', () => {
  const show = async () => {
    const fixture = TestBed.createComponent(ThingHost);
    await fixture.whenStable();
    const select = (name: string) =>
      host(fixture).querySelector<HTMLSelectElement>(`select[aria-label="${name}"]`)!;
    return { fixture, select, weave: () => fixture.componentInstance.weave() };
  };

  it('proposes to leave out what ties everything to everything', async () => {
    const { fixture, weave } = await show();
    button(fixture, 'without #LateLampPlan').click();
    await fixture.whenStable();
    expect(weave().without).toEqual(['LateLampPlan']);
    expect(button(fixture, 'without #LateLampPlan')).toBeUndefined();
  });

  it('lets items meet in accounts, since a comment stands under one item', async () => {
    const { fixture, select, weave } = await show();
    choose(select('What is tied'), 'item');
    await fixture.whenStable();
    expect(weave()).toMatchObject({ things: 'item', unit: 'author' });
    expect([...select('Where they meet').options].map(({ value }) => value)).toEqual([
      'author',
      'author-day',
    ]);
  });

  it('takes names that are left out apart by commas', async () => {
    const { fixture, weave } = await show();
    const input = host(fixture).querySelector<HTMLInputElement>('input[aria-label="Left out"]')!;
    input.value = ' PieFriday , ,dark';
    input.dispatchEvent(new Event('change'));
    expect(weave().without).toEqual(['PieFriday', 'dark']);
  });
});

describe('the other sentences', () => {
  it('keep numbers whole and above 0', async () => {
    const fixture = TestBed.createComponent(StepSentence);
    fixture.componentRef.setInput('weave', Weave.parse({ what: 'in-step' }));
    await fixture.whenStable();
    type(host(fixture).querySelector<HTMLInputElement>('input[aria-label="Seconds"]')!, '-4');
    expect(fixture.componentInstance.weave().seconds).toBe(1);
  });

  it('offer the columns by which nodes fall into groups, communities first', async () => {
    const fixture = TestBed.createComponent(GroupSentence);
    fixture.componentRef.setInput('weave', firstWeave('groups', overview, [grouped]));
    fixture.componentRef.setInput('networks', [grouped]);
    await fixture.whenStable();
    const columns = host(fixture).querySelectorAll('select[aria-label="Column"] option');
    expect([...columns].map((option) => option.textContent)).toEqual(['community', 'follows']);
  });

  it('offer the sorts of a two-mode network, and those that a file may name', async () => {
    const mode = { name: 'mode', title: 'mode', type: 'category', how: '' } as const;
    const woven = {
      ...grouped,
      id: 'w',
      columns: [mode],
      weave: Weave.parse({ what: 'two-mode', things: 'hashtag' }),
    };
    const file = { ...woven, id: 'f', name: 'Meetings', weave: null };
    expect(whyNot('projection', overview, [grouped])).toContain('no two-mode network');
    expect(whyNot('projection', overview, [woven])).toBeNull();
    const fixture = TestBed.createComponent(ProjectionSentence);
    fixture.componentRef.setInput('weave', firstWeave('projection', overview, [woven, file]));
    fixture.componentRef.setInput('networks', [grouped, woven, file]);
    await fixture.whenStable();
    const sorts = host(fixture).querySelectorAll('select[aria-label="Sort of nodes"] option');
    expect([...sorts].map((option) => option.textContent)).toEqual(['account', 'hashtag']);
    choose(host(fixture).querySelector<HTMLSelectElement>('select[aria-label="Network"]')!, 'Meetings');
    await fixture.whenStable();
    expect(fixture.componentInstance.weave()).toMatchObject({ network: 'f', sort: 'person' });
    const typed = host(fixture).querySelector<HTMLInputElement>('input[aria-label="Sort of nodes"]')!;
    typed.value = 'woman';
    typed.dispatchEvent(new Event('change'));
    expect(fixture.componentInstance.weave().sort).toBe('woman');
  });

  it('divide messages, and leave out those to very many', async () => {
    const fixture = TestBed.createComponent(AccountSentence);
    fixture.componentRef.setInput('weave', Weave.parse({ what: 'accounts', kinds: ['to'] }));
    fixture.componentRef.setInput('kinds', ['to', 'cc']);
    await fixture.whenStable();
    const boxes = host(fixture).querySelectorAll<HTMLInputElement>('input[type="checkbox"]');
    boxes[2].click();
    boxes[3].click();
    await fixture.whenStable();
    const weave: AccountWeave = fixture.componentInstance.weave();
    expect([weave.share, weave.mostReceivers]).toEqual(['divided', 20]);
    expect(text(fixture)).toContain('more than');
  });
});

describe('AfterFields', () => {
  it('thins the network by direction, backbone and largest component', async () => {
    const fixture = TestBed.createComponent(AfterFields);
    fixture.componentRef.setInput('weave', Weave.parse({ what: 'follows' }));
    const changes: object[] = [];
    fixture.componentInstance.changed.subscribe((part) => changes.push(part));
    await fixture.whenStable();
    choose(host(fixture).querySelector<HTMLSelectElement>('select')!, 'mutual');
    for (const box of host(fixture).querySelectorAll<HTMLInputElement>('input[type="checkbox"]')) box.click();
    expect(changes).toEqual([
      { direction: 'mutual' },
      { backbone: 0.05 },
      { neighboursAtLeast: 2 },
      { largestOnly: true },
    ]);
    fixture.componentRef.setInput('weave', Weave.parse({ what: 'in-step', backbone: 0.1 }));
    await fixture.whenStable();
    expect(host(fixture).querySelector('select')).toBeNull();
    type(host(fixture).querySelector<HTMLInputElement>('input[type="number"]')!, '7');
    expect(changes.at(-1)).toEqual({ backbone: 1 });
  });
});

describe('AlikeSentence', () => {
  it('takes a share in per cent, and asks less of whole accounts', async () => {
    const fixture = TestBed.createComponent(AlikeSentence);
    fixture.componentRef.setInput('weave', Weave.parse({ what: 'alike' }));
    const changes: Weave[] = [];
    fixture.componentInstance.weave.subscribe((weave) => changes.push(weave));
    await fixture.whenStable();
    type(host(fixture).querySelector<HTMLInputElement>('[aria-label^="Per cent"]')!, '85');
    expect(changes.at(-1)).toMatchObject({ likeness: 0.85 });
    choose(host(fixture).querySelector<HTMLSelectElement>('select')!, 'account');
    expect(changes.at(-1)).toMatchObject({ nodes: 'account', likeness: 0.2, atLeast: 10 });
  });
});

describe('TakenFields', () => {
  const source = (id: number, name: string) => ({ id, name }) as unknown as Source;
  async function fields(taken: object, filters: SavedFilter[] = []) {
    const fixture = TestBed.createComponent(TakenFields);
    fixture.componentRef.setInput('taken', { only: null, except: null, withoutSources: [], ...taken });
    fixture.componentRef.setInput('filters', filters);
    fixture.componentRef.setInput('sources', [source(1, 'posts.jsonl'), source(2, 'mail.mbox')]);
    const changes: object[] = [];
    fixture.componentInstance.changed.subscribe((change) => changes.push(change));
    await fixture.whenStable();
    return { fixture, changes };
  }

  it('offers the filters that were kept, in words', async () => {
    const { fixture, changes } = await fields({}, [{ id: 1, name: 'Replies', filter: { kind: 'reply' } }]);
    const [only] = host(fixture).querySelectorAll<HTMLSelectElement>('select');
    choose(only, 'Replies: replies');
    expect(changes).toEqual([{ only: { name: 'Replies', filter: { kind: 'reply' } } }]);
    host(fixture).querySelectorAll<HTMLInputElement>('input[type="checkbox"]')[1].click();
    expect(changes.at(-1)).toEqual({ withoutSources: [{ id: 2, name: 'mail.mbox' }] });
  });

  it('says where filters are kept, and stands open with what was chosen', async () => {
    const { fixture } = await fields({ except: { name: 'Gone', filter: { author: 'ann' } } });
    expect(text(fixture)).toContain('Filters are kept on the reading list');
    expect(text(fixture)).toContain('Which messages are taken: a choice');
    expect(text(fixture)).toContain('Gone: messages by ann');
    expect(host(fixture).querySelector('details')!.open).toBe(true);
  });
});

describe('SliceFields', () => {
  it('cuts the time into days, or at a moment in UTC', async () => {
    const fixture = TestBed.createComponent(SliceFields);
    fixture.componentRef.setInput('slicing', null);
    await fixture.whenStable();
    choose(host(fixture).querySelector('select')!, 'day');
    expect(fixture.componentInstance.slicing()).toEqual({ by: 'day', event: null });
    choose(host(fixture).querySelector('select')!, 'event');
    await fixture.whenStable();
    type(host(fixture).querySelector<HTMLInputElement>('[aria-label="Moment (UTC)"]')!, '2031-09-04T14:30');
    expect(fixture.componentInstance.slicing()).toEqual({ by: 'event', event: Date.UTC(2031, 8, 4, 14, 30) });
    choose(host(fixture).querySelector('select')!, '');
    expect(fixture.componentInstance.slicing()).toBeNull();
  });
});

describe('WeaveSize', () => {
  it('tells the parts of the network, and what would be left out', async () => {
    const fixture = TestBed.createComponent(WeaveSize);
    fixture.componentRef.setInput('words', ['hashtag', 'hashtags']);
    fixture.componentRef.setInput('size', {
      messages: 60,
      nodes: 12,
      edges: 20,
      selfTies: 0,
      isolates: 2,
      components: 4,
      largest: 7,
      largestShare: 7 / 12,
      droppedBelowThreshold: 1,
      notes: ['3 messages with more than 30 were left out.'],
      emptiedBy: null,
      tooLarge: false,
      wouldFit: null,
      sketch: {
        labels: ['#lamps', '#moths', '#bats'],
        ties: [
          { source: 0, target: 1, weight: 4 },
          { source: 1, target: 2, weight: 1 },
        ],
      },
    });
    await fixture.whenStable();
    expect(text(fixture)).toContain('hashtags12');
    expect(text(fixture)).toContain('7 in one piece, 3 in smaller pieces, 2 alone');
    expect(text(fixture)).toContain('1 weaker tie would be left out.');
    expect(text(fixture)).toContain('3 messages with more than 30');
    expect(text(fixture)).toContain('Its 2 strongest ties');
    expect(host(fixture).querySelectorAll('svg circle')).toHaveLength(3);
    expect(text(fixture)).toContain('#moths');
  });

  it('offers what would fit where there would be too many ties', async () => {
    const fixture = TestBed.createComponent(WeaveSize);
    const asked: number[] = [];
    fixture.componentInstance.fitted.subscribe((least) => asked.push(least));
    fixture.componentRef.setInput('words', ['account', 'accounts']);
    const nothing = { messages: 0, nodes: 0, edges: 0, selfTies: 0, isolates: 0, components: 0, largest: 0 };
    fixture.componentRef.setInput('size', {
      ...nothing,
      largestShare: 0,
      droppedBelowThreshold: 0,
      notes: [],
      emptiedBy: 'This would give 13,117,542 ties; at most 5,000,000 can be held.',
      tooLarge: true,
      wouldFit: 4,
      sketch: { labels: [], ties: [] },
    });
    await fixture.whenStable();
    expect(text(fixture)).not.toContain('no ties');
    button(fixture, 'Ask for at least 4').click();
    expect(asked).toEqual([4]);
  });
});
