import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { SOURCE_MATERIALS, type Preview, type Problem, type Step, type UploadAnswer } from '@pebble/contract';
import { gzipSync } from 'node:zlib';
import { idle, Served } from './served';
import { workbook } from '../../apps/server/src/testing/workbook';

/** What came of files that are odd. */
interface FilesTried {
  readonly files: number;
  readonly taken: number;
  readonly refused: number;
  readonly slowest: { readonly name: string; readonly seconds: number };
  /** Megabytes that the process held at most. */
  readonly memory: number;
  readonly faults: readonly string[];
}

/** Seconds and megabytes that a file of up to 1 MB may cost. */
const LONGEST = 10;
const MOST = 600;

const bytesOf = (text: string): Uint8Array => new TextEncoder().encode(text);
const latin = (text: string): Uint8Array => Uint8Array.from(Buffer.from(text, 'latin1'));
const joined = (...parts: (string | Uint8Array)[]): Uint8Array =>
  Uint8Array.from(Buffer.concat(parts.map((part) => (typeof part === 'string' ? bytesOf(part) : part))));
const times = (count: number, make: (i: number) => string, between = ''): string =>
  Array.from({ length: count }, (_, i) => make(i)).join(between);

const mail = (body: string, headers = ''): string =>
  `From: ann@quay.example\nTo: bob@quay.example\nDate: Tue, 3 Mar 2026 10:00:00 +0000\nMessage-ID: <${body.length}@quay.example>\nSubject: lamps\n${headers}\n${body}\n`;

/** A good text of each format. */
const GOOD: Readonly<Record<string, string>> = {
  csv: 'id,author,text\n1,ann,lamps @bob\n2,bob,moths\n3,cem,quay\n',
  tsv: 'id\tauthor\ttext\n1\tann\tlamps @bob\n2\tbob\tmoths\n3\tcem\tquay\n',
  json: '[{"id":1,"author":"ann","text":"lamps"},\n{"id":2,"author":"bob","text":"moths"}]',
  jsonl: '{"id":1,"author":"ann","text":"lamps"}\n{"id":2,"author":"bob","text":"moths"}\n',
  mbox: times(
    3,
    (i) => `From ann@quay.example Tue Mar  3 10:00:0${i} 2026\n${mail(`text ${'x'.repeat(i)}`)}\n`,
  ),
  eml: mail('lamps'),
  graphml:
    '<?xml version="1.0"?>\n<graphml><graph edgedefault="directed"><node id="a"/><node id="b"/><edge source="a" target="b"/></graph></graphml>',
  gml: 'graph [ directed 1 node [ id 1 label "a" ] node [ id 2 label "b" ] edge [ source 1 target 2 ] ]',
  gv: 'digraph { a -> b; b -> c }',
  txt: 'ann\nbob\ncem\n',
};

/** What is done to a good text, or stands in its place. */
const ODD: Readonly<Record<string, (good: string, format: string) => Uint8Array>> = {
  'as it is': (good) => bytesOf(good),
  empty: () => new Uint8Array(0),
  'one odd byte': () => Uint8Array.of(0xff),
  'a mark of order alone': () => Uint8Array.of(0xef, 0xbb, 0xbf),
  'behind a mark of order': (good) => joined(Uint8Array.of(0xef, 0xbb, 0xbf), good),
  'in UTF-16': (good) => joined(Uint8Array.of(0xff, 0xfe), Uint8Array.from(Buffer.from(good, 'utf16le'))),
  'with lines that end with CR': (good) => bytesOf(good.replaceAll('\n', '\r')),
  'with bytes that are no UTF-8': (good) => latin(good.replace(/ann/g, 'andr\xe9')),
  'cut off in the middle': (good) => bytesOf(good.slice(0, Math.floor(good.length * 0.6))),
  'twice in one file': (good) => bytesOf(good + good),
  'with NUL in a text': (good) => bytesOf(good.replace('lamps', 'la\0mps').replace('"a"', '"a\0"')),
  'half a megabyte of NUL': () => new Uint8Array(500_000),
  'a megabyte of blanks': () => bytesOf(' '.repeat(1_000_000)),
  'a megabyte of empty lines': () => bytesOf('\n'.repeat(1_000_000)),
  'a line of a megabyte': (good) => bytesOf(`${good}${'x'.repeat(1_000_000)}\n`),
  'a megabyte of brackets': (good) => bytesOf(`${good}${'['.repeat(1_000_000)}`),
  'a megabyte of quotation marks': (good) => bytesOf(`${good}${'"'.repeat(1_000_000)}`),
  'a megabyte of commas': () => bytesOf(','.repeat(1_000_000)),
  'a megabyte of less-than signs': (good) => bytesOf(`${good}${'<'.repeat(1_000_000)}`),
  'a picture': () =>
    joined(Uint8Array.of(0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a), new Uint8Array(2000).fill(7)),
  packed: (good) => Uint8Array.from(gzipSync(bytesOf(good))),
  'a page of the web': () =>
    bytesOf('<!doctype html><html><body><table><tr><td>ann</td></tr></table></body></html>'),
};

const deep = (open: string, close: string, count = 100_000): string =>
  open.repeat(count) + close.repeat(count);

/** Files that are odd in a way of their format. */
const OWN: Readonly<Record<string, () => string | Uint8Array>> = {
  '10,000 columns.csv': () => `${times(10_000, (i) => `c${i}`, ',')}\n${times(10_000, () => '1', ',')}\n`,
  'the same column twice.csv': () => 'id,author,text,text\n1,ann,a,b\n',
  'columns without names.csv': () => ',,\nann,bob,1\n',
  'formulas.csv': () => 'id,author,text\n1,=cmd|x,+1+1\n2,@SUM(A1),-2\n',
  'a mark that is never closed.csv': () => `id,author,text\n1,ann,"${'lamps '.repeat(100_000)}`,
  'a mark in each cell.csv': () => `id,author,text\n${times(50_000, (i) => `${i},"a""b","c"`, '\n')}`,
  'names of everything.csv': () =>
    'id,author,text\n1,__proto__,constructor\n2,constructor,toString\n3,hasOwnProperty,valueOf\n',
  'numbers beyond numbers.csv': () =>
    'source,target,weight\na,b,1e400\nb,c,9007199254740993\nc,a,-1\na,c,NaN\n',
  'dates of no time.csv': () =>
    'id,author,text,created_at\n1,ann,a,31 February 2026\n2,bob,b,room 12\n3,cem,c,99999-01-01\n4,dee,d,0001-01-01\n',
  'deep.json': () => `[{"id":1,"author":"ann","text":"a","more":${deep('[', ']')}}]`,
  'deep objects.jsonl': () =>
    `{"id":1,"author":"ann","text":"a"}\n${deep('{"a":', '}').replace('{"a":}', '{"a":1}')}\n`,
  'keys of prototypes.jsonl': () =>
    '{"id":1,"author":"ann","text":"a","__proto__":{"x":1},"constructor":"y"}\n',
  'a key of a megabyte.jsonl': () => `{"${'k'.repeat(1_000_000)}":1}\n`,
  '100,000 keys.json': () => `[{${times(100_000, (i) => `"k${i}":1`, ',')}}]`,
  'a number of a megabyte.json': () => `[{"id":${'9'.repeat(1_000_000)},"author":"ann","text":"a"}]`,
  'lone halves of pairs.jsonl': () =>
    '{"id":1,"author":"ann","text":"\\ud83d"}\n{"id":2,"author":"\\udca1","text":"b"}\n',
  'comments that never end.eml': () => mail('<!--'.repeat(50_000), 'Content-Type: text/html\n'),
  'links that never end.eml': () => mail('<a'.repeat(100_000), 'Content-Type: text/html\n'),
  'scripts.eml': () =>
    mail('<script>alert(1)</script><img src=x onerror=alert(1)>', 'Content-Type: text/html\n'),
  'parts within parts.eml': () =>
    times(2000, (i) => `Content-Type: multipart/mixed; boundary=b${i}\n\n--b${i}\n`) + mail('deep'),
  'a header of a megabyte.eml': () => mail('a', `X-Long: ${'x'.repeat(1_000_000)}\n`),
  '100,000 headers.eml': () =>
    mail(
      'a',
      times(60_000, (i) => `X-${i}: a\n`),
    ),
  '50,000 receivers.eml': () => mail('a', `Cc: ${times(50_000, (i) => `p${i}@quay.example`, ', ')}\n`),
  'encoded words that never end.eml': () => mail('a', `Comments: ${'=?utf-8?b?'.repeat(100_000)}\n`),
  'base64 of nothing.eml': () => mail('=!!!!'.repeat(100_000), 'Content-Transfer-Encoding: base64\n'),
  'colons.mbox': () => `${GOOD['mbox']}From x ${'11:11 '.repeat(150_000)}\nmore\n`,
  'froms.mbox': () => 'From \n'.repeat(150_000),
  'entities within entities.graphml': () =>
    `<!DOCTYPE g [<!ENTITY a "aaaaaaaaaa">${times(12, (i) => `<!ENTITY a${i} "${'&a;'.repeat(10)}">`)}]><graphml><graph><node id="&a11;"/></graph></graphml>`,
  'a file from elsewhere.graphml': () =>
    '<!DOCTYPE g [<!ENTITY x SYSTEM "file:///etc/passwd">]><graphml><graph><node id="&x;"/></graph></graphml>',
  'deep.graphml': () => deep('<graph>', '</graph>', 50_000),
  '4,000 keys with defaults.graphml': () =>
    `<graphml>${times(4000, (i) => `<key id="k${i}" for="node" attr.name="k${i}"><default>1</default></key>`)}<graph>${times(4000, (i) => `<node id="${i}"/>`)}<edge source="1" target="2"/></graph></graphml>`,
  'attributes.graphml': () =>
    `<graphml><graph ${times(50_000, (i) => `a${i}="1"`, ' ')}><node id="a"/></graph></graphml>`,
  'ties to nobody.graphml': () =>
    '<graphml><graph><node id="a"/><edge source="a" target="zz"/></graph></graphml>',
  'deep.gml': () => deep('graph [ ', ' ]', 50_000),
  'a name of a megabyte.gml': () => `graph [ node [ id 1 label "${'x'.repeat(1_000_000)}" ] ]`,
  'deep.gv': () => `graph { ${deep('subgraph { ', ' }', 50_000)} }`,
  'a name of a megabyte.gv': () => `graph { "${'x'.repeat(1_000_000)}" -- b }`,
  'every node with every one.gv': () =>
    `graph { {${times(3000, (i) => `a${i}`, ' ')}} -- {${times(3000, (i) => `b${i}`, ' ')}} }`,
  'a cell far down.xlsx': () => workbook({ S: '<row r="99999999"><c r="A99999999"><v>1</v></c></row>' }),
  'cells far out.xlsx': () =>
    workbook({ S: times(20_000, (i) => `<row r="${i + 1}"><c r="XFD${i + 1}"><v>1</v></c></row>`) }),
  'a long cell.xlsx': () => workbook({ S: [['id'], ['x'.repeat(1_200_000)]] }),
  'blanks.xlsx': () => workbook({ S: ' '.repeat(70_000_000) }),
  'no sheets.xlsx': () => workbook({}),
  'formulas.xlsx': () =>
    workbook({
      S: [
        ['id', 'author', 'text'],
        ['1', '=1+1', '@SUM(A1)'],
      ],
    }),
  'half a workbook.xlsx': () =>
    workbook({
      S: [
        ['id', 'author', 'text'],
        ['1', 'ann', 'a'],
      ],
    }).slice(0, 600),
  'not a workbook.xlsx': () => 'id,author,text\n1,ann,a\n2,bob,b\n',
};

/** Every odd file by its name; each is up to about a megabyte. */
function library(): [name: string, bytes: Uint8Array][] {
  const crossed = Object.entries(GOOD).flatMap(([format, good]) =>
    Object.entries(ODD).map(([odd, make]): [string, Uint8Array] => [`${odd}.${format}`, make(good, format)]),
  );
  const own = Object.entries(OWN).map(([name, make]): [string, Uint8Array] => {
    const made = make();
    return [name, typeof made === 'string' ? bytesOf(made) : made];
  });
  return [...crossed, ...own];
}

/** What was answered when the library was last looked through: to be read by people, and compared by the program. */
const EXPECTED = 'e2e/safety/expectedAnswers.json';

/**
 * Sends every odd file, takes in what can be read, and compares the answers with those that are expected.
 * @param every one of so many files is tried
 * @param match a regular expression for the names of those that are tried
 * @param keeps whether the answers become those that are expected
 */
export async function oddFiles(
  port: number,
  { every = 1, keeps = false, match = '' } = {},
): Promise<FilesTried> {
  const folder = mkdtempSync(join(tmpdir(), 'pebble-odd-'));
  const app = await Served.start(folder, port);
  const faults: string[] = [];
  const answers: Record<string, string> = {};
  const expected = existsSync(EXPECTED)
    ? (JSON.parse(readFileSync(EXPECTED, 'utf8')) as Record<string, string>)
    : {};
  let [taken, refused, memory] = [0, 0, 0];
  let slowest = { name: '', seconds: 0 };
  try {
    const files = library().filter(([name], i) => i % every === 0 && new RegExp(match).test(name));
    for (const [name, bytes] of files) {
      const { id: study } = await app.succeed<{ id: string }>('POST', '/studies', { name: 'Odd' });
      const begun = performance.now();
      const said = await tried(app, study, name, bytes).catch((error: unknown) => `fault: ${String(error)}`);
      const seconds = (performance.now() - begun) / 1000;
      answers[name] = said;
      if (!app.isAlive) throw new Error(`The application ended at ${name}. ${app.output}`);
      if (seconds > slowest.seconds) slowest = { name, seconds };
      if (seconds > LONGEST) faults.push(`${name} took ${seconds.toFixed(1)} s`);
      memory = Math.max(memory, app.memory);
      // What follows from one file is not held against the next.
      await idle(app, study);
      if (said.startsWith('fault')) faults.push(`${name}: ${said}`);
      else if (said.startsWith('refused')) refused++;
      else taken++;
      if (!keeps && said !== expected[name]) faults.push(`${name}: “${said}”, expected “${expected[name]}”`);
    }
    if (memory > MOST + 300) faults.push(`the process held ${memory.toFixed(0)} MB`);
    if (app.output) faults.push(`the application said: ${app.output}`);
    if (keeps) writeFileSync(EXPECTED, `${JSON.stringify(answers, null, 2)}\n`);
    return { files: files.length, taken, refused, slowest, memory, faults };
  } finally {
    await app.stop();
    rmSync(folder, { recursive: true, force: true });
  }
}

/** "taken: 3 messages …" or "refused: why"; "fault: …" for anything that is no clear answer. */
async function tried(app: Served, study: string, name: string, bytes: Uint8Array): Promise<string> {
  const { status, body } = await app.send<UploadAnswer & Problem>(study, name, bytes);
  if (status === 422) return refusal(body, name);
  if (status !== 201) return `fault: ${status} ${JSON.stringify(body).slice(0, 200)}`;
  const [upload] = body.uploads;
  if (!upload) return body.refused.map(({ reason }) => `refused: ${reason}`).join(' ') || 'fault: no answer';
  return takenIn(app, study, name, upload);
}

async function takenIn(
  app: Served,
  study: string,
  file: string,
  { id, preview }: { id: string; preview: Preview },
): Promise<string> {
  const { reading } = preview;
  // Groups go to a network that is there.
  if (reading.material === 'groups' || reading.material === 'nodes') return `looked at: ${reading.material}`;
  const kind = SOURCE_MATERIALS.includes(reading.material) ? 'import-source' : 'import-network';
  const { status, body } = await app.ask<Step & Problem>('POST', `/studies/${study}/steps`, {
    kind,
    parameters: { upload: id, file, name: file, reading },
  });
  if (status === 422) return refusal(body, file);
  if (status === 400) return `refused: ${body.detail}`;
  if (status !== 200) return `fault: ${status} ${JSON.stringify(body).slice(0, 200)}`;
  if (body.state !== 'done') return `fault: ${body.state}, ${body.error}`;
  return `taken: ${body.sentence}`.slice(0, 300);
}

function refusal({ detail, file }: Problem, name: string): string {
  if (file !== name) return `fault: the refusal names “${file}”: ${detail}`;
  if (!detail || /\/(?:work|tmp|home|root|usr)\/|node_modules|\bat \w+ \(/.test(detail))
    return `fault: ${detail}`;
  return `refused: ${detail}`.slice(0, 300);
}
