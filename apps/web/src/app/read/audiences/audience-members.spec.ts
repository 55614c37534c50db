import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideMockStore } from '@ngrx/store/testing';
import { Router } from '@angular/router';
import { defaultMap, type AudienceMembers } from '@pebble/contract';
import { of, throwError } from 'rxjs';
import { button, host, text, type } from '../../../testing/dom';
import { Api } from '../../api/api';
import { AudienceMembersView } from './audience-members';
import { MapSession } from '../../map/session/map-session';
import type { Wanted } from './audience-words';

jest.mock('../../map/session/map-session', () => ({ MapSession: class MapSession {} }));

const answer = (total: number): AudienceMembers => ({
  total,
  members: [{ handle: 'ann', name: 'Ann', description: 'Open late.', sets: [0] }],
  typical: [],
  described: { here: 1, elsewhere: 3 },
});

describe('who is in some audiences', () => {
  const api = { audienceMembers: jest.fn(), step: jest.fn(), savedMap: jest.fn() };

  const session = {
    network: signal<object | null>(null),
    description: () => defaultMap,
    refresh: jest.fn(),
    describe: jest.fn(),
  };

  async function asked(wanted: readonly Wanted[], total = 1) {
    api.audienceMembers.mockReset().mockReturnValue(of(answer(total)));
    api.step.mockReset().mockReturnValue(of({ state: 'done' }));
    TestBed.configureTestingModule({
      providers: [
        provideMockStore(),
        { provide: Api, useValue: api },
        { provide: MapSession, useValue: session },
      ],
    });
    const fixture = TestBed.createComponent(AudienceMembersView);
    fixture.componentRef.setInput('study', 's1');
    fixture.componentRef.setInput('asked', { sort: 'followers' });
    fixture.componentRef.setInput('network', null);
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

  it('is marked in the network that is read, and colours its map', async () => {
    const fixture = await asked(['in', 'out']);
    expect(text(fixture)).not.toContain('Mark them on the map');
    fixture.componentRef.setInput('network', { id: 'n1', study: 's1', name: 'Follows' });
    await fixture.whenStable();
    type(host(fixture).querySelector('[aria-label="What they are"]')!, 'of the post');
    await fixture.whenStable();
    api.step.mockReturnValue(of({ state: 'done', sentence: 'Marked 1 node.' }));
    button(fixture, 'Mark them on the map').click();
    await fixture.whenStable();
    expect(api.step.mock.lastCall.slice(1)).toEqual([
      'mark-audience',
      {
        network: 'n1',
        audience: { sort: 'followers', names: ['post', 'quay'], inside: [0], outside: [1] },
        column: 'audience',
        value: 'of the post',
      },
    ]);
    expect(text(fixture)).toContain('Marked 1 node.');
    const goes = jest.spyOn(TestBed.inject(Router), 'navigate').mockResolvedValue(true);
    api.savedMap.mockReturnValue(of({ description: defaultMap }));
    button(fixture, 'Colour the map by').click();
    await fixture.whenStable();
    expect(api.step.mock.lastCall.slice(1)).toEqual([
      'describe-map',
      { network: 'n1', description: { ...defaultMap, colour: { ...defaultMap.colour, column: 'audience' } } },
    ]);
    expect(goes).toHaveBeenCalledWith(['/studies', 's1', 'map', 'n1']);
    // The map that is open already is coloured as by hand.
    session.network.set({ id: 'n1' });
    api.step.mockClear();
    button(fixture, 'Colour the map by').click();
    await fixture.whenStable();
    expect(session.refresh).toHaveBeenCalled();
    expect(session.describe).toHaveBeenCalledWith(
      expect.objectContaining({ colour: { ...defaultMap.colour, column: 'audience' } }),
    );
    expect(api.step).not.toHaveBeenCalled();
    session.network.set(null);
  });

  it('is not asked while nothing is said of any', async () => {
    const fixture = await asked(['either', 'either']);
    expect(api.audienceMembers).not.toHaveBeenCalled();
    expect(text(fixture)).toContain('Say of each what is asked');
  });

  it('becomes a category by a decision for each', async () => {
    const fixture = await asked(['in', 'either']);
    type(host(fixture).querySelector('[aria-label="What they are"]')!, 'of the quay');
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
    type(host(fixture).querySelector('[aria-label="What they are"]')!, 'many');
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
