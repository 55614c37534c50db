import { makeGraph } from '../../graph/graph';
import { activityOf } from './activity';
import { MessageGroups } from './messageGroups';
import { nearestMessages } from './nearestMessages';
import { portraitSentence } from './portraitSentence';
import { standingIn } from './standing';
import { suggestTitles } from './suggestTitles';

const DAY = 86_400_000;

describe('activityOf', () => {
  it('finds the day on which a group wrote more than its share', () => {
    const groups = new MessageGroups(2, 400);
    const times: [number, number][] = [];
    const add = (group: number, day: number, count: number): void => {
      for (let i = 0; i < count; i++) {
        groups.add(times.length, group);
        times.push([times.length, Number.isNaN(day) ? NaN : day * DAY + i]);
      }
    };
    for (let day = 0; day < 10; day++) {
      add(0, day, day === 4 ? 40 : 5);
      add(1, day, 10);
    }
    add(0, NaN, 3);
    const [first, second] = activityOf(groups, times);
    expect(first.unusual).toEqual([4 * DAY]);
    expect(second.unusual).toEqual([]);
    expect(first.days[4]).toEqual({ day: 4 * DAY, messages: 40, all: 50 });
    expect([first.first, first.last, first.undated]).toEqual([0, 9 * DAY + 4, 3]);
    expect(first.days.reduce((sum, { messages }) => sum + messages, 0)).toBe(85);
  });
});

describe('standingIn', () => {
  //  0 -> 1, 2 -> 1 (twice), 1 -> 3, 3 -> 4, 5 -> 1, 6 is alone, 4 -> 4
  const graph = makeGraph(7, [0, 2, 1, 3, 5, 4], [1, 1, 3, 4, 1, 4], [1, 2, 1, 1, 3, 9]);
  const group = [0, 0, 0, 1, 1, 2, 2];

  it('says who is addressed, who leads out, and what stays within', () => {
    const [first, second] = standingIn(graph, group, 2, true);
    expect(first.addressed).toEqual([{ node: 1, value: 6 }]);
    expect(first.addressing.map(({ node }) => node)).toEqual([2, 0, 1]);
    expect(first.waysOut).toEqual([{ node: 1, value: 4 }]);
    expect([first.within, first.out, first.into]).toEqual([3, 1, 3]);
    // Node 5 is in no group that is told of, and node 3 in another one.
    expect(first.outside).toEqual([
      { node: 3, value: 1 },
      { node: 5, value: 1 },
    ]);
    expect(first.ties).toEqual([
      { group: null, out: 0, into: 3, ties: 1, by: [1] },
      { group: 1, out: 1, into: 0, ties: 1, by: [1] },
    ]);
    // The tie of node 4 to itself does not count.
    expect([second.nodes, second.within, second.into]).toEqual([2, 1, 1]);
  });

  it('knows no direction where ties have none', () => {
    const [first] = standingIn(graph, group, 2, false);
    expect(first.addressed.map(({ node, value }) => [node, value])).toEqual([
      [1, 7],
      [2, 2],
      [0, 1],
    ]);
    expect([first.addressing, first.within, first.out, first.into]).toEqual([[], 3, 4, 0]);
    expect(first.ties.map(({ out, into }) => [out, into])).toEqual([
      [3, 0],
      [1, 0],
    ]);
  });
});

describe('suggestTitles', () => {
  const term = (label: string, score: number, times: number | null = 5) => ({
    label,
    score,
    times,
    messages: 9,
    elsewhere: 1,
    authors: 5,
  });

  it('are short enough for a legend', () => {
    const hashtags = [term('#OpenLateSallowmere', 90), term('#ShopTheQuay', 80)];
    expect(suggestTitles([{ name: null, hashtags, words: [], leader: 'ann' }])[0].suggested).toBe(
      '#OpenLateSallowmere',
    );
  });

  it('takes hashtags before words before nodes, and no title twice', () => {
    const titles = suggestTitles([
      {
        name: null,
        hashtags: [term('#moths', 90), term('#all', 80, 1.2), term('#bats', 40)],
        words: [],
        leader: 'ann',
      },
      {
        name: null,
        hashtags: [term('#moths', 50)],
        words: [term('stars', 30), term('sky', 20)],
        leader: 'ben',
      },
      { name: null, hashtags: [], words: [], leader: 'cat' },
      { name: null, hashtags: [], words: [], leader: 'cat' },
      { name: 'press', hashtags: [term('#moths', 99)], words: [], leader: 'dan' },
    ]);
    expect(titles).toEqual([
      { suggested: '#moths, #bats', by: 'hashtags' },
      { suggested: 'stars, sky', by: 'words' },
      { suggested: 'round cat', by: 'node' },
      { suggested: 'round cat (2)', by: 'node' },
      { suggested: 'press', by: 'name' },
    ]);
  });
});

describe('nearestMessages', () => {
  it('gives each author one message, and counts a term once', () => {
    const groups = new MessageGroups(1, 4);
    for (const message of [0, 1, 2, 3]) groups.add(message, 0);
    const occurrences = {
      count: 7,
      message: [0, 0, 1, 1, 2, 3, 3],
      author: [1, 1, 1, 1, 2, 3, 3],
      thing: [5, 5, 5, 6, 6, 9, 9],
      time: [],
    };
    const scores = new Map([
      [5, 10],
      [6, 4],
    ]);
    expect(nearestMessages(occurrences, groups, [scores], 5)).toEqual([
      [
        { message: 1, terms: 2 },
        { message: 2, terms: 1 },
      ],
    ]);
  });
});

describe('portraitSentence', () => {
  const told = {
    nodes: 24,
    messages: 310,
    authors: 20,
    first: Date.UTC(2026, 2, 1),
    last: Date.UTC(2026, 4, 31),
    unusual: [Date.UTC(2026, 4, 9), Date.UTC(2026, 2, 24)],
    within: 80,
    out: 15,
    into: 5,
    addressed: [{ node: 3, value: 1200 }],
    sure: 0.914,
  };
  const whole = {
    nodeWord: 'account',
    nodes: 240,
    messages: 3100,
    nameOf: (node: number) => `node ${node}`,
    directed: true,
  };

  it('is made of counts', () => {
    expect(portraitSentence(told, whole)).toBe(
      '24 accounts, 10 % of all; 310 messages, 10 % of all, from 1 March 2026 to 31 May 2026, unusually many on 24 March and 9 May. ' +
        '80 % of the weight of their ties stays within the group; most addressed is node 3 (1,200); in further runs a node stayed with its group in 91 %.',
    );
  });

  it('says nothing of messages where there are none, nor of ties', () => {
    const alone = { ...told, within: 0, out: 0, into: 0, addressed: [], sure: null, nodes: 1 };
    expect(portraitSentence(alone, { ...whole, messages: 0, nodeWord: 'node' })).toBe(
      '1 node, 0 % of all. No tie touches them.',
    );
  });
});
