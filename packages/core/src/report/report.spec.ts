import { ImportReport, type Network, type Source } from '@pebble/contract';
import mammoth from 'mammoth';
import fc from 'fast-check';
import { parseDocument } from 'htmlparser2';
import { escapeXml, plainMarkdown, xmlText } from '../formats/markup';
import { limitSentences } from './limits';
import type { Report, ReportPicture } from './report';
import { reportDocx } from './reportDocx';
import { reportBody } from './reportHtml';
import { reportMarkdown } from './reportMarkdown';

/** One pixel. */
const PNG = Uint8Array.from(
  atob('iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mP8z8BQDwAEhQGAhKmMIQAAAABJRU5ErkJggg=='),
  (sign) => sign.charCodeAt(0),
);
const picture: ReportPicture = {
  svg: '<svg xmlns="http://www.w3.org/2000/svg"/>',
  png: PNG,
  width: 1,
  height: 1,
};
const told = { short: 'A map of 3 nodes.', long: 'Two of them are tied.' };
const HARD = '<script>alert(1)</script> & "שלום" *a*_b_ | 1. \u0007';

const report: Report = {
  title: `Two towns ${HARD}`,
  author: 'A. Reader',
  made: '2026-05-04T10:00:00.000Z',
  blocks: [
    { what: 'heading', level: 2, text: 'The maps' },
    { what: 'text', text: `- ${HARD}` },
    { what: 'figure', figure: { title: 'First', caption: 'Three nodes.', told } },
    { what: 'figure', figure: { title: 'Second', caption: 'Two nodes.', told } },
    { what: 'list', items: ['one', HARD] },
    {
      what: 'table',
      title: 'The first',
      columns: [
        { title: 'Name', isNumber: false },
        { title: 'Degree', isNumber: true },
      ],
      rows: [
        ['ann | b', '1,234'],
        ['<b>', '2'],
      ],
    },
  ],
};

describe('a report', () => {
  it('as DOCX is read by another program with its headings, tables and pictures (ISO/IEC 29500, by mammoth)', async () => {
    const bytes = Buffer.from(await reportDocx(report, [picture, picture]));
    const { value, messages } = await mammoth.convertToHtml({ buffer: bytes });
    expect(messages.filter(({ type }) => type === 'error')).toEqual([]);
    expect(value).toContain('<h2>The maps</h2>');
    expect(value).toContain('alt="A map of 3 nodes. Two of them are tied."');
    expect(value.match(/<img /g)).toHaveLength(2);
    expect(value).toContain('<strong>Figure 2. Second. </strong>Two nodes.');
    expect(value).toContain('<thead><tr><th><p><strong>Name</strong></p></th>');
    expect(value).toContain('<td><p>ann | b</p></td><td><p>1,234</p></td>');
    expect(value).toContain('&lt;script&gt;alert(1)&lt;/script&gt; &amp; "שלום" *a*_b_ | 1.');
    expect(value).toContain('<li>one</li>');
  });

  it('as HTML holds texts as texts, pictures with what they show, and tables with heads', () => {
    const html = reportBody(report, ['data:1', 'data:2']);
    expect(html).not.toContain('<script');
    expect(html.match(/<img src="data:[12]" alt="A map of 3 nodes\. Two of them are tied\.">/g)).toHaveLength(
      2,
    );
    expect(html).toContain('<strong>Figure 1. First.</strong> Three nodes.');
    expect(html).toContain('<caption>Table 1. The first</caption>');
    expect(html).toContain('<td dir="auto">&lt;b&gt;</td><td dir="auto" class="n">2</td>');
    expect(html).toContain('2026-05-04 · made with Pebble Thread');
  });

  it('as Markdown keeps signs as signs, in tables too', () => {
    const text = reportMarkdown(report, ['figures/figure-1.png', 'figures/figure-2.png']);
    expect(text).toContain('## The maps\n\n\\- \\<script\\>');
    expect(text).toContain('](figures/figure-2.png)\n\n**Figure 2. Second.** Two nodes.');
    expect(text).toContain('| Name | Degree |\n| --- | ---: |\n| ann \\| b | 1,234 |\n| \\<b\\> | 2 |');
    expect(text).toContain('- one\n- \\<script\\>');
  });
});

describe('texts in documents', () => {
  it('of any kind come back from HTML as they were, without what XML forbids', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), (text) => {
        const { children } = parseDocument(`<p title="${escapeXml(text)}"></p>`, { xmlMode: true });
        expect(children).toMatchObject([{ attribs: { title: xmlText(text) } }]);
      }),
    );
  });

  it('never break a line of Markdown', () => {
    fc.assert(fc.property(fc.string(), (text) => !/[\r\n]/.test(plainMarkdown(text))));
  });
});

const BY_DEGREE = { colour: { column: 'degree' } };

describe('what a study cannot tell', () => {
  const source = (over: object, removedAt: string | null = null): Source => ({
    id: 1,
    name: 'posts.csv',
    format: 'csv',
    step: 1,
    removedAt,
    report: ImportReport.parse({
      ...Object.fromEntries(
        [
          'source',
          'read',
          'kept',
          'skipped',
          'duplicates',
          'duplicatesInFile',
          'undated',
          'accountsNew',
          'accountsKnown',
          'authors',
          'mentions',
          'hashtags',
          'links',
          'parentsMissing',
        ].map((name) => [name, 0]),
      ),
      file: 'posts.csv',
      skippedByReason: [],
      from: null,
      until: null,
      notes: [],
      ...over,
    }),
  });
  const map = (over: object, shown: object = {}) => ({
    title: 'T',
    network: {
      name: 'N',
      nodes: 4,
      edges: 3,
      weave: {},
      stale: false,
      forgotten: 0,
      columns: [],
      groupings: {},
      ...over,
    } as unknown as Network,
    map: {
      nodes: { length: 4 },
      edges: { length: 3 },
      colourRange: null,
      description: BY_DEGREE,
      ...shown,
    } as never,
  });

  it('says what was left out and why, what came twice, and what has no date', () => {
    const skippedByReason = [
      { reason: 'There is no author.', rows: 80 },
      { reason: 'The date cannot be read.', rows: 40 },
    ];
    const report = {
      read: 9500,
      skipped: 120,
      skippedByReason,
      duplicates: 1,
      undated: 2,
      parentsMissing: 1,
    };
    expect(limitSentences({ sources: [source(report)], networks: [], maps: [] }).slice(1)).toEqual([
      'Of 9,500 rows of “posts.csv” 120 were left out: There is no author (80); The date cannot be read (40).',
      '1 row of “posts.csv” was there already, and counts once.',
      '2 messages of “posts.csv” have no date, and are in no period.',
      '1 message of “posts.csv” answers or passes on messages that were not gathered.',
    ]);
  });

  it('says of a source that was taken out that alone', () => {
    const [, said, ...more] = limitSentences({
      sources: [source({ read: 5, skipped: 5 }, '2026-05-01')],
      networks: [],
      maps: [],
    });
    expect([said, more]).toEqual(['“posts.csv” was taken out of the study and is in none of this.', []]);
  });

  it('says of networks what they came from, what a map leaves out, and how sure their groups are', () => {
    const limits = (over: object, shown: object = {}): string[] => {
      const one = map(over, shown);
      return limitSentences({ sources: [], networks: [one.network], maps: [one, one] });
    };
    expect(limits({})).toEqual([]);
    expect(limits({ weave: null })).toEqual([
      '“N” came finished from a file; there are no messages behind its ties.',
    ]);
    expect(limits({}, { nodes: { length: 2 } })[0]).toBe('“T” shows 2 of 4 nodes and 3 of 3 ties.');
    const byCommunity = { description: { colour: { column: 'community' } } };
    expect(limits({}, byCommunity)).toEqual([
      'How sure the groups of “N” are was not computed: another run may put some nodes into other groups.',
    ]);
    expect(limits({ columns: [{ name: 'community, sure' }] }, byCommunity)).toEqual([]);
  });
});
