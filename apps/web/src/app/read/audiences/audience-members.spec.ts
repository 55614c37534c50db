import { TestBed } from '@angular/core/testing';
import { provideMockStore } from '@ngrx/store/testing';
import type { AudienceMembers } from '@pebble/contract';
import { of, throwError } from 'rxjs';
import { button, host, text } from '../../../testing/dom';
import { Api } from '../../api/api';
import { AudienceMembersView } from './audience-members';
import type { Wanted } from './audience-words';

const answer = (total: number): AudienceMembers => ({
  total,
  members: [{ handle: 'ann', name: 'Ann', description: 'Open late.', sets: [0] }],
  typical: [],
  described: { here: 1, elsewhere: 3 },
});

describe('who is in some audiences', () => {
  const api = { audienceMembers: jest.fn(), step: jest.fn() };

  async function asked(wanted: readonly Wanted[], total = 1) {
    api.audienceMembers.mockReset().mockReturnValue(of(answer(total)));
    api.step.mockReset().mockReturnValue(of({ state: 'done' }));
    TestBed.configureTestingModule({ providers: [provideMockStore(), { provide: Api, useValue: api }] });
    const fixture = TestBed.createComponent(AudienceMembersView);
    fixture.componentRef.setInput('study', 's1');
    fixture.componentRef.setInput('asked', { sort: 'followers' });
    fixture.componentRef.setInput('names', ['post', 'quay']);
    fixture.componentRef.setInput('wanted', wanted);
    await fixture.whenStable();
    return fixture;
  }

  it('is asked once, also where it is one alone, and reads as a sentence', async () => {
    const fixture = await asked(['in', 'out']);
    expect(api.audienceMembers).toHaveBeenCalledTimes(1);
    expect(api.audienceMembers.mock.lastCall[1]).toMatchObject({
      names: ['post', 'quay'],
      inside: [0],
      outside: [1],
    });
    expect(text(fixture)).toContain('1 follower follows “post”, but not “quay”');
    expect(text(fixture)).toContain('Open late.');
  });

  it('is not asked while nothing is said of any', async () => {
    const fixture = await asked(['either', 'either']);
    expect(api.audienceMembers).not.toHaveBeenCalled();
    expect(text(fixture)).toContain('Say of each what is asked');
  });

  it('becomes a category by a decision for each', async () => {
    const fixture = await asked(['in', 'either']);
    const field = host(fixture).querySelector<HTMLInputElement>('[aria-label="What they are"]')!;
    field.value = 'of the quay';
    field.dispatchEvent(new Event('input'));
    await fixture.whenStable();
    button(fixture, 'Make a category').click();
    await fixture.whenStable();
    expect(api.step).toHaveBeenLastCalledWith('s1', 'tidy', {
      sort: 'account',
      decisions: [{ key: 'ann', verdict: { verdict: 'category', name: 'audience', value: 'of the quay' } }],
    });
  });

  it('is refused as a category where these are very many', async () => {
    const fixture = await asked(['in', 'either'], 5001);
    const field = host(fixture).querySelector<HTMLInputElement>('[aria-label="What they are"]')!;
    field.value = 'many';
    field.dispatchEvent(new Event('input'));
    await fixture.whenStable();
    button(fixture, 'Make a category').click();
    await fixture.whenStable();
    expect(api.step).not.toHaveBeenCalled();
    expect(text(fixture)).toContain('at most 5,000 accounts at once; these are 5,001');
  });

  it('says why nobody could be found', async () => {
    const fixture = await asked(['in', 'either']);
    api.audienceMembers.mockReturnValue(throwError(() => new Error('The application does not answer.')));
    fixture.componentRef.setInput('wanted', ['out', 'either']);
    await fixture.whenStable();
    expect(text(fixture)).toContain('The application does not answer.');
    api.audienceMembers.mockReturnValue(of(answer(2)));
    fixture.componentRef.setInput('wanted', ['in', 'in']);
    await fixture.whenStable();
    expect(text(fixture)).not.toContain('The application does not answer.');
    expect(text(fixture)).toContain('2 followers follow “post” and “quay”');
  });
});
