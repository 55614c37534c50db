import { PortraitThing, type FullPortrait, type Message, type PortraitList } from '@pebble/contract';
import { writePortraits, type WrittenPortraits } from './writePortraits';

const message = {
  id: 7,
  text: 'They said "<script>alert(1)</script>" & left',
  time: Date.UTC(2026, 2, 4),
  author: { id: 1, handle: 'ann', name: null },
} as Message;
const term = { label: '=SUM(1)', messages: 12, elsewhere: 3, authors: 5, score: 31.25, times: 8 };
const nothing = { typical: [], used: [], missing: [], ofFewAuthors: 0 };
const portrait: FullPortrait = {
  group: '1',
  suggested: '#moths',
  by: 'hashtags',
  nodes: 4,
  messages: 40,
  authors: 4,
  sentence: '4 accounts, 10 % of all.',
  sure: null,
  addressed: [{ node: 0, value: 9 }],
  addressing: [],
  active: [],
  waysOut: [],
  outside: [],
  within: 9,
  out: 2,
  into: 1,
  ties: [{ group: 1, out: 2, into: 1, ties: 2, by: [0] }],
  things: {
    ...(Object.fromEntries(
      PortraitThing.options.map((thing) => [thing, nothing]),
    ) as unknown as FullPortrait['things']),
    word: { ...nothing, typical: [term] },
  },
  kinds: [{ kind: 'post', messages: 40, elsewhere: 60 }],
  answers: { all: 10, within: 4 },
  scores: [],
  days: [{ day: Date.UTC(2026, 2, 4), messages: 2, all: 5 }],
  unusual: [Date.UTC(2026, 2, 4)],
  first: null,
  last: null,
  undated: 0,
  reposted: [],
  answered: [],
  nearest: [],
  sample: [],
  notes: { title: '*Moths* | <b>', memo: 'One.\n\nTwo.', quotations: [7, 8] },
  quoted: [message],
  names: { '0': 'ann_b' },
};
const written: WrittenPortraits = {
  name: 'Who answers whom',
  list: {
    column: 'community',
    step: 3,
    settings: { leastAuthors: 3, most: 40, seed: 1 },
    messages: 100,
    nodes: 40,
    further: { groups: 0, nodes: 0 },
    outOfDate: '',
    groups: [],
  } satisfies PortraitList,
  portraits: [portrait],
  titles: ['*Moths* | <b>', '#stars'],
  directed: true,
};

describe('portraits that are saved', () => {
  it('as Markdown keep signs as signs, and say how they were made', () => {
    const text = writePortraits('md', written);
    expect(text).toContain('## \\*Moths\\* \\| \\<b\\>');
    expect(text).toContain('Dunning 1993');
    expect(text).toContain('- ann\\_b (9)');
    expect(text).toContain('12 of 40 messages here, 3 of 60 elsewhere, 5 authors, log-likelihood 31.3');
    expect(text).toContain('- \\#stars: 2 out, 1 in');
    expect(text).toContain('### Memo\n\n- One.\n- Two.');
  });

  it('as HTML hold texts as text, and load and run nothing', () => {
    const text = writePortraits('html', written);
    expect(text).not.toContain('<script');
    expect(text).toContain('&lt;script&gt;');
    expect(text).toContain("default-src 'none'");
    expect(text).toContain('<h2>*Moths* | &lt;b&gt;</h2>');
  });

  it('as CSV have a row for each number, and nothing that a spreadsheet would run', () => {
    const lines = writePortraits('csv', written).trimEnd().split('\r\n');
    expect(lines[0]).toBe(
      '\ufeffgroup,title,what,label,here,elsewhere,authors,log_likelihood,times_as_often',
    );
    expect(lines).toContain(`1,*Moths* | <b>,typical word,"'=SUM(1)",12,3,5,31.25,8`);
    expect(lines).toContain('1,*Moths* | <b>,day,2026-03-04,2,3,,,');
    expect(lines).toContain('1,*Moths* | <b>,ties to,#stars,2,1,,,');
    expect(lines).toContain('1,*Moths* | <b>,answers,within the group,4,6,,,');
  });

  it('say that they are out of date', () => {
    const outOfDate = 'Since these portraits were drawn, the groups are others.';
    const text = writePortraits('md', { ...written, list: { ...written.list, outOfDate } });
    expect(text).toContain(outOfDate);
  });
});
