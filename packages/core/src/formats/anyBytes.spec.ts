import fc from 'fast-check';
import type { Preview, ImportMapping } from '@pebble/contract';
import { utils, write } from '@e965/xlsx';
import { readNetworkText } from './networks/readNetwork';
import { previewFile } from './preview/preview';
import { readWorkbookSource, sourceReader } from './sourceReader';
import type { SourceSink } from './sourceSink';
import { UnreadableFile } from './unreadable';

const bytesOf = (text: string): Uint8Array => new TextEncoder().encode(text);
const mail = (subject: string): string =>
  `From: Ann <ann@quay.example>\r\nTo: bob@quay.example\r\nDate: Tue, 3 Mar 2026 10:00:00 +0000\r\nMessage-ID: <${subject}@quay.example>\r\nSubject: ${subject}\r\nContent-Type: text/html; charset=utf-8\r\n\r\n<p>The <b>lamps</b> &amp; moths</p>\r\n> older\r\n`;
const note = (id: number): object => ({
  type: 'Note',
  id: `https://hub.example/${id}`,
  attributedTo: 'https://hub.example/ann',
  content: '<p>lamps @bob #quay</p>',
  published: '2026-03-03T10:00:00Z',
});

/** A small good file of each format. */
const FILES: Readonly<Record<string, () => Uint8Array>> = {
  'posts.csv': () =>
    bytesOf(
      'id,author,text,created_at\r\n1,ann,"lamps, @bob\nat the quay",2026-03-03\r\n2,bob,moths,2026-03-04\r\n',
    ),
  'posts.tsv': () => bytesOf('id\tauthor\ttext\n1\tann\tlamps\n2\tbob\t#quay\n'),
  'posts.jsonl': () =>
    bytesOf(
      '{"id":1,"author":"ann","text":"lamps \\ud83d\\udca1"}\n{"id":2,"author":"bob","text":"moths"}\n',
    ),
  'posts.json': () =>
    bytesOf('{"posts":[{"id":1,"author":"ann","text":"lamps"},\n{"id":2,"author":"bob","text":"moths"}]}'),
  'activities.json': () =>
    bytesOf(JSON.stringify({ type: 'OrderedCollection', orderedItems: [note(1), note(2)] })),
  'box.mbox': () =>
    bytesOf([1, 2].map((i) => `From ann@quay.example Tue Mar  3 10:00:00 2026\n${mail(`s${i}`)}\n`).join('')),
  'one.eml': () => bytesOf(mail('lamps')),
  'followers of ann.csv': () => bytesOf('handle,followers\nbob,3\ncem,4\n'),
  'ties.csv': () => bytesOf('source,target,weight\nann,bob,2\nbob,cem,1.5\n'),
  'matrix.csv': () => bytesOf(',ann,bob\nann,0,2\nbob,1,0\n'),
  'ties.graphml': () =>
    bytesOf(
      '<?xml version="1.0"?><graphml><key id="d" for="node" attr.name="town" attr.type="string"><default>Quay</default></key><graph edgedefault="directed"><node id="a"><data key="d">Marsh</data></node><node id="b"/><edge source="a" target="b"/></graph></graphml>',
    ),
  'ties.gml': () =>
    bytesOf(
      'graph [\n directed 1\n node [ id 1 label "ann" ]\n node [ id 2 label "bob" ]\n edge [ source 1 target 2 value 2 ]\n]\n',
    ),
  'ties.gv': () => bytesOf('digraph g { ann -> bob [weight=2]; "cem d" -> ann; // end\n}'),
  'graph.json': () =>
    bytesOf(
      '{"graph":{"directed":true,"nodes":{"a":{"label":"ann"},"b":{}},"edges":[{"source":"a","target":"b"}]}}',
    ),
  'links.json': () =>
    bytesOf('{"nodes":[{"id":"a","group":1},{"id":"b"}],"links":[{"source":"a","target":"b","value":2}]}'),
  'cells.xlsx': () => {
    const sheet = utils.aoa_to_sheet([
      ['id', 'author', 'text'],
      ['1', 'ann', 'lamps'],
      ['2', 'bob', 'moths'],
    ]);
    return new Uint8Array(
      write(
        { SheetNames: ['Posts'], Sheets: { Posts: sheet } },
        { type: 'array', bookType: 'xlsx' },
      ) as ArrayBuffer,
    );
  },
};
const NETWORKS = ['graphml', 'gml', 'dot', 'jgf', 'node-link', 'adjacency'];
/** Milliseconds that no file of a few hundred bytes may take; they take some. */
const MUCH = 3000;

/** One thing that happens to a file on its way. */
type Harm = (bytes: Uint8Array) => Uint8Array;
const joined = (...parts: Uint8Array[]): Uint8Array => Uint8Array.from(parts.flatMap((part) => [...part]));
const place = fc.double({ min: 0, max: 1, noNaN: true });
const SIGNS = [
  '"',
  "'",
  '<',
  '>',
  '&',
  '{',
  '}',
  '[',
  ']',
  '\\',
  '\0',
  '\r',
  '\n',
  ',',
  '\t',
  '<!--',
  '<![CDATA[',
  '&#xfffffff;',
  '"__proto__":',
  '1e999',
  '\u2028',
  '\ufeff',
  'From ',
  '\n\n',
  '--',
  '=?utf-8?b?',
  '/*',
  '<!DOCTYPE x [<!ENTITY a "&a;">]>',
];
const harm: fc.Arbitrary<Harm> = fc.oneof(
  fc.tuple(place, place).map(([a, b]) => (bytes: Uint8Array) => {
    const [from, until] = [a, b].map((at) => Math.floor(at * bytes.length)).sort((x, y) => x - y);
    return joined(bytes.slice(0, from), bytes.slice(until));
  }),
  fc.tuple(place, fc.uint8Array({ maxLength: 8 })).map(([at, more]) => (bytes: Uint8Array) => {
    const i = Math.floor(at * bytes.length);
    return joined(bytes.slice(0, i), more, bytes.slice(i));
  }),
  fc
    .tuple(place, fc.constantFrom(...SIGNS), fc.integer({ min: 1, max: 40 }))
    .map(([at, sign, times]) => (bytes: Uint8Array) => {
      const i = Math.floor(at * bytes.length);
      return joined(bytes.slice(0, i), bytesOf(sign.repeat(times)), bytes.slice(i));
    }),
  fc.tuple(place, place, place).map(([a, b, at]) => (bytes: Uint8Array) => {
    const [from, until] = [a, b].map((x) => Math.floor(x * bytes.length)).sort((x, y) => x - y);
    const i = Math.floor(at * bytes.length);
    return joined(bytes.slice(0, i), bytes.slice(from, until), bytes.slice(i));
  }),
);

/** What a reader gave, in its order. */
function kept(): { all: unknown[]; sink: SourceSink } {
  const all: unknown[] = [];
  const keep = (kind: string) => (what: unknown) => void all.push([kind, JSON.stringify(what)]);
  const sink = {
    message: keep('message'),
    item: keep('item'),
    follow: keep('follow'),
    profile: keep('profile'),
    skip: keep('skip'),
  };
  return { all, sink };
}

async function readInPieces(
  text: string,
  cuts: readonly number[],
  reading: ImportMapping,
  file: string,
): Promise<unknown[]> {
  const { all, sink } = kept();
  const reader = sourceReader(reading, file, sink);
  const at = [0, ...cuts.map((cut) => Math.floor(cut * text.length)).sort((a, b) => a - b), text.length];
  for (let i = 1; i < at.length; i++) await reader.write(text.slice(at[i - 1], at[i]));
  await reader.end();
  return all;
}

async function look(name: string, bytes: Uint8Array): Promise<Preview | null> {
  const begun = performance.now();
  try {
    return await previewFile({ name, head: bytes, size: bytes.length, whole: () => bytes });
  } catch (error) {
    // Its own error, with a reason, is the only one.
    if (!(error instanceof UnreadableFile)) throw error;
    expect(error.message).toMatch(/\S/);
    return null;
  } finally {
    expect(performance.now() - begun).toBeLessThan(MUCH);
  }
}

async function tryAll(name: string, bytes: Uint8Array, cuts: readonly number[]): Promise<void> {
  const preview = await look(name, bytes);
  if (!preview) return;
  const { reading } = preview;
  if (NETWORKS.includes(reading.format)) {
    const text = new TextDecoder(reading.encoding).decode(bytes);
    try {
      readNetworkText(text, reading);
    } catch (error) {
      if (!(error instanceof UnreadableFile)) throw error;
    }
  } else if (reading.format === 'xlsx') {
    const { sink } = kept();
    readWorkbookSource(bytes, reading, name, sink);
  } else if (reading.format !== 'matrix') {
    const isMail = reading.format === 'mbox' || reading.format === 'eml';
    const text = isMail
      ? Buffer.from(bytes).toString('latin1')
      : new TextDecoder(reading.encoding).decode(bytes);
    const whole = await readInPieces(text, [], reading, name);
    expect(await readInPieces(text, cuts, reading, name)).toEqual(whole);
  }
}

describe('whatever bytes a file has', () => {
  it.each(Object.keys(FILES))('%s is good as it stands', async (name) => {
    expect(await look(name, FILES[name]())).not.toBeNull();
  });

  it.each(Object.keys(FILES))(
    '%s, harmed, is read or refused with a reason, the same however it is cut',
    async (name) => {
      const good = FILES[name]();
      await fc.assert(
        fc.asyncProperty(
          fc.array(harm, { minLength: 1, maxLength: 5 }),
          fc.array(place, { maxLength: 6 }),
          (harms, cuts) =>
            tryAll(
              name,
              harms.reduce((bytes, one) => one(bytes), good),
              cuts,
            ),
        ),
        { numRuns: 120, seed: 18 },
      );
    },
  );

  it('bytes by chance are, too, under every ending', async () => {
    const names = Object.keys(FILES);
    await fc.assert(
      fc.asyncProperty(
        fc.constantFrom(...names),
        fc.uint8Array({ maxLength: 400 }),
        fc.array(place, { maxLength: 4 }),
        tryAll,
      ),
      { numRuns: 400, seed: 18 },
    );
  });
});
