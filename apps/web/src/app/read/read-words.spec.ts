import type { Step } from '@pebble/contract';
import { exampleNetwork, exampleStep } from '../../testing/examples';
import { questionWords } from './audiences/audience-words';
import { readyMade } from './compare/ready-made';
import { setWords } from './compare/set-words';
import { portrayalOf } from './portraits/portrayal';
import { standing } from './portraits/standing';

describe('the words of a set of messages', () => {
  const network = exampleNetwork({ titles: { community: { '1': '#moths' } } });
  const names = { networks: [network], sources: [] };

  it('say of which group, network, time and filter they are', () => {
    const group = { what: 'group', network: network.id, column: 'community', group: '1' } as const;
    expect(setWords(group, names)).toBe('#moths in “Replies of March”');
    expect(setWords({ ...group, group: '9' }, names)).toBe('community 9 in “Replies of March”');
    expect(setWords({ what: 'network', network: 'gone' }, names)).toBe(
      'messages behind “a network that is gone”',
    );
    const march = { from: Date.UTC(2026, 2, 1), until: Date.UTC(2026, 3, 1) };
    expect(setWords({ what: 'filter', filter: march }, names)).toBe('messages, 1 March to 31 March 2026');
    expect(setWords({ what: 'filter', filter: { hashtag: 'moths', source: 3, ...march } }, names)).toBe(
      'messages with #moths of a source that is gone, 1 March to 31 March 2026',
    );
  });
});

describe('comparisons that are offered', () => {
  it('are each month beside the next', () => {
    const offers = readyMade([], null, Date.UTC(2026, 10, 20), Date.UTC(2027, 0, 2));
    expect(offers.map(({ title }) => title)).toEqual([
      'November 2026 beside December 2026',
      'December 2026 beside January 2027',
    ]);
    expect(offers[0].a).toEqual({
      what: 'filter',
      filter: { from: Date.UTC(2026, 10, 1), until: Date.UTC(2026, 11, 1) },
    });
  });

  it('are slices where a network has them, and none without dates', () => {
    const whole = exampleNetwork();
    const slice = (place: number, title: string) =>
      exampleNetwork({ id: `s${place}`, slice: { of: whole.id, place, title } });
    const offers = readyMade([whole, slice(1, 'Week 2'), slice(0, 'Week 1')], whole, 0, 1e12);
    expect(offers.map(({ title, b }) => [title, b])).toEqual([
      ['Week 1 beside Week 2', { what: 'network', network: 's1' }],
    ]);
    expect(readyMade([], null, null, null)).toEqual([]);
  });
});

describe('a question about audiences', () => {
  it.each([
    [['in', 'in', 'either'], 'follow “a” and “b”'],
    [['in', 'out', 'out'], 'follow “a”, but not “b” or “c”'],
    [['out', 'out', 'either'], 'follow none of “a” or “b”'],
    [['either', 'either', 'either'], null],
  ] as const)('%j reads %s', (wanted, words) => {
    expect(questionWords('follow', ['a', 'b', 'c'], wanted)).toBe(words);
  });
});

describe('whether portraits are drawn', () => {
  const measured = exampleStep({
    id: 5,
    kind: 'measure-network',
    state: 'done',
    parameters: { network: 'n1' },
    result: { portraitsFollow: true },
  });
  const portray = (state: Step['state']) =>
    exampleStep({ id: 6, kind: 'portray-groups', state, parameters: { network: 'n1', column: 'community' } });

  it.each([
    ['follows', [measured]],
    ['drawn now', [portray('running'), measured]],
    // Cancelled, they do not come again.
    ['asked for', [portray('cancelled'), measured]],
    ['asked for', [exampleStep({ ...measured, result: { portraitsFollow: false } })]],
    ['asked for', []],
  ] as const)('%s', (portrayal, steps) => {
    expect(portrayalOf(steps, 'n1', 'community')).toBe(portrayal);
    expect(portrayalOf(steps, 'n2', 'community')).toBe('asked for');
    expect(portrayalOf(steps, 'n1', 'role')).toBe('asked for');
  });
});

describe('who stands how', () => {
  it('has no direction where ties have none', () => {
    const portrait = { addressed: [], addressing: [], active: [], waysOut: [], outside: [] };
    const headings = (directed: boolean): string[] =>
      standing(portrait as never, directed)
        .filter(({ isFurther }) => !isFurther)
        .map(({ heading }) => heading);
    expect(headings(true)).toEqual(['most addressed', 'most active', 'ways out']);
    expect(headings(false)).toEqual(['most ties', 'most active', 'ways out']);
  });
});
