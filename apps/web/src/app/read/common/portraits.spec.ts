import { TestBed } from '@angular/core/testing';
import { GroupNotes, PortraitSettings, type FullPortrait, type PortraitList } from '@pebble/contract';
import { of, Subject, throwError } from 'rxjs';
import { exampleNetwork } from '../../../testing/examples';
import { Api } from '../../api/api';
import { Portraits } from './portraits';

const notes = GroupNotes.parse({});
const head = (group: string) => ({
  group,
  nodes: 3,
  messages: 9,
  suggested: `#tag${group}`,
  by: 'hashtags' as const,
  sentence: '',
  notes,
});
const list = (step: number, groups: readonly string[]): PortraitList => ({
  column: 'community',
  step,
  settings: PortraitSettings.parse({}),
  messages: 90,
  nodes: 30,
  further: { groups: 0, nodes: 0 },
  outOfDate: '',
  groups: groups.map(head),
});

describe('the portraits of a grouping', () => {
  const api = { portraits: jest.fn(), groupPortrait: jest.fn(), step: jest.fn() };
  const network = exampleNetwork();

  async function opened(): Promise<Portraits> {
    api.portraits.mockReset().mockReturnValue(of(list(1, ['1', '2', '3', '4', '5', '6'])));
    api.groupPortrait
      .mockReset()
      .mockImplementation((_path: unknown, { group }: { group: string }) =>
        of({ ...head(group) } as unknown as FullPortrait),
      );
    api.step.mockReset().mockReturnValue(of({ state: 'done' }));
    TestBed.configureTestingModule({ providers: [Portraits, { provide: Api, useValue: api }] });
    const portraits = TestBed.inject(Portraits);
    portraits.open(network, 'community');
    TestBed.tick();
    await Promise.resolve();
    return portraits;
  }

  it('are read as they are shown: four at first, others when they are chosen', async () => {
    const portraits = await opened();
    expect(portraits.shown()).toEqual(['1', '2', '3', '4']);
    expect(api.groupPortrait).toHaveBeenCalledTimes(4);
    portraits.show(['6', '1', 'gone']);
    TestBed.tick();
    expect(portraits.shown()).toEqual(['6', '1']);
    expect(api.groupPortrait).toHaveBeenCalledTimes(5);
    expect(portraits.portraits().map(({ portrait }) => portrait?.group)).toEqual(['6', '1']);
  });

  it('are read anew once they were drawn again, and stay where nothing changed', async () => {
    const portraits = await opened();
    portraits.open(network, 'community');
    TestBed.tick();
    expect(api.groupPortrait).toHaveBeenCalledTimes(4);
    api.portraits.mockReturnValue(of(list(2, ['1', '2'])));
    portraits.draw(PortraitSettings.parse({ leastAuthors: 5 }));
    TestBed.tick();
    expect(api.step).toHaveBeenLastCalledWith(network.study, 'portray-groups', {
      network: network.id,
      column: 'community',
      settings: PortraitSettings.parse({ leastAuthors: 5 }),
    });
    expect(api.groupPortrait).toHaveBeenCalledTimes(6);
  });

  it('are called by the title that was given, else by the one that suggests itself', async () => {
    const portraits = await opened();
    expect(portraits.titleOf('2')).toBe('#tag2');
    portraits.note('2', { title: 'Recorders' });
    expect(portraits.titleOf('2')).toBe('Recorders');
    expect(portraits.titles()[1]).toBe('Recorders');
    expect(api.step).toHaveBeenLastCalledWith(network.study, 'note-group', {
      network: network.id,
      column: 'community',
      group: '2',
      notes: { ...notes, title: 'Recorders' },
    });
  });

  it('lose nothing that is written while something else is being kept', async () => {
    const portraits = await opened();
    const answer = new Subject<unknown>();
    api.step.mockReturnValue(answer);
    portraits.note('1', { title: 'Recorders' });
    portraits.note('1', { memo: 'They count.' });
    portraits.quote('1', 44, jest.fn());
    expect(api.step.mock.lastCall[2].notes).toEqual({
      title: 'Recorders',
      memo: 'They count.',
      quotations: [44],
    });
    answer.next({ state: 'done' });
    // The answer to the first one is older than what was written since.
    expect(portraits.quotationsOf('1')).toEqual([44]);
    expect(portraits.titleOf('1')).toBe('Recorders');
  });

  it('keep quotations, and take them away again', async () => {
    const portraits = await opened();
    const told = jest.fn();
    portraits.quote('1', 44, told);
    expect(told).toHaveBeenLastCalledWith(true);
    expect(api.step.mock.lastCall[2].notes.quotations).toEqual([44]);
  });

  it('say why something was not kept', async () => {
    const portraits = await opened();
    api.step.mockReturnValue(throwError(() => new Error('There is no room on the disk.')));
    portraits.note('1', { memo: 'x' });
    expect(portraits.noting.problem()).toBe('There is no room on the disk.');
    // It is not shown as if it were kept.
    expect(portraits.portraits()[0].portrait?.notes.memo).toBe('');
  });
});
