import type { FileFormat, Material } from '@pebble/contract';
import { isActivity } from './activities';
import { UnreadableFile } from './unreadable';

/** What a file seems to be, and why. */
export interface FormatGuess {
  readonly format: FileFormat;
  readonly material: Material;
  readonly delimiter: string;
  readonly reason: string;
}

/** Whether bytes begin like a workbook of Office Open XML (ECMA-376) rather than any other zip archive. */
export function isWorkbook(head: Uint8Array): boolean {
  if (!isZip(head)) return false;
  const names = String.fromCharCode(...head.subarray(0, 4096));
  return (
    names.includes('[Content_Types].xml') || /xl\/(?:workbook|worksheets|_rels|styles|theme)/.test(names)
  );
}

export function isZip(head: Uint8Array): boolean {
  return head[0] === 0x50 && head[1] === 0x4b && head[2] === 3 && head[3] === 4;
}

/** Throws UnreadableFile when the first bytes are those of a file that holds no text. */
export function refuseForeign(head: Uint8Array): void {
  const magic = String.fromCharCode(...head.slice(0, 8));
  if (isZip(head)) throw new UnreadableFile('This is a zip archive inside of another file; unpack it first.');
  if (magic.startsWith('%PDF')) throw new UnreadableFile('This is a PDF document, not a table of posts.');
  if (magic.startsWith('\x89PNG') || magic.startsWith('\xff\xd8\xff'))
    throw new UnreadableFile('This is a picture, not a table of posts.');
  if (magic.startsWith('\x1f\x8b'))
    throw new UnreadableFile('This is a gzip archive. Unpack it and try again.');
  if (magic.startsWith('\xd0\xcf\x11\xe0'))
    throw new UnreadableFile(
      'This is a workbook or document of an old format. Save it as XLSX or CSV and try again.',
    );
  const hasOrder = (head[0] === 0xff && head[1] === 0xfe) || (head[0] === 0xfe && head[1] === 0xff);
  let strange = 0;
  const length = Math.min(head.length, 4096);
  for (let i = 0; i < length; i++) if (head[i] < 9 && head[i] !== 0) strange++;
  if (!hasOrder && strange > length / 20)
    throw new UnreadableFile('These bytes are not text; nothing was taken from the file.');
}

/** The format of a text by its beginning, whatever the file is called. Throws UnreadableFile when there is none. */
export function guessFormat(text: string, file: string): FormatGuess {
  return (
    guessMail(text) ?? guessMarkup(text) ?? guessJson(text) ?? guessGraphText(text) ?? guessTable(text, file)
  );
}

function guessMail(text: string): FormatGuess | null {
  const guess = { material: 'messages', delimiter: '' } as const;
  if (/^From \S+.*\d{4}/.test(text.slice(0, 1000)))
    return { ...guess, format: 'mbox', reason: 'A mailbox (mbox), since it begins with a “From ” line.' };
  const headers = text.slice(0, 20_000).split(/\r?\n\r?\n/)[0];
  const known =
    headers.match(/^(?:From|To|Subject|Date|Message-ID|Received|MIME-Version|Return-Path):/gim) ?? [];
  if (known.length >= 2 && /^[!-9;-~]+:/.test(headers))
    return { ...guess, format: 'eml', reason: 'A single email, by its header lines.' };
  return null;
}

function guessMarkup(text: string): FormatGuess | null {
  if (!text.trimStart().startsWith('<')) return null;
  if (/<(?:\w+:)?graphml[\s>]/.test(text.slice(0, 20_000)))
    return { format: 'graphml', material: 'network', delimiter: '', reason: 'A network in GraphML.' };
  throw new UnreadableFile('This is XML or HTML, and no GraphML. Of XML only GraphML is read.', 1);
}

function guessJson(text: string): FormatGuess | null {
  if (!/^\s*[{[]/.test(text)) return null;
  const start = text.trimStart().replace(/\r\n?/g, '\n');
  const guess = { material: 'messages', delimiter: '' } as const;
  if (isNodeLink(start))
    return {
      format: 'node-link',
      material: 'network',
      delimiter: '',
      reason: 'A network in JSON: a list of nodes, and one of links.',
    };
  const firstLine = tryParse(start.split('\n', 1)[0]);
  if (
    firstLine &&
    !Array.isArray(firstLine) &&
    isLines(start) &&
    !isWhole(start, firstLine) &&
    !isDocument(firstLine)
  ) {
    return isActivity(firstLine)
      ? { ...guess, format: 'activities', reason: 'ActivityStreams 2.0 objects, one a line.' }
      : { ...guess, format: 'jsonl', reason: 'JSON Lines, since the first line is a JSON object.' };
  }
  const head = start.slice(0, 4000);
  if (start.startsWith('{') && /^\{\s*"graphs?"\s*:/.test(head))
    return {
      format: 'jgf',
      material: 'network',
      delimiter: '',
      reason: 'A network in the JSON Graph Format.',
    };
  if (
    /"https?:\/\/www\.w3\.org\/ns\/activitystreams"/.test(head) ||
    /"(?:Ordered)?Collection(?:Page)?"/.test(head)
  )
    return { ...guess, format: 'activities', reason: 'A collection of ActivityStreams 2.0.' };
  if (start.startsWith('{') && !/^\{\s*"/.test(head) && !/^\{\s*\}/.test(head))
    throw new UnreadableFile('No line is a JSON object, and the whole is no JSON either.', 1);
  return { ...guess, format: 'json', reason: 'A JSON document; its list of objects is read.' };
}

/** Whether an object holds a list of nodes and one of links whose ends are named; of a large file the links may come too late to be seen. */
function isNodeLink(start: string): boolean {
  // What is said of the graph as a whole may stand before.
  if (!/^\{(?:[^{]|"graph"\s*:\s*\{[^{}]*\})*?"(?:nodes|links|edges)"\s*:\s*\[/.test(start)) return false;
  return (
    /"(?:links|edges)"\s*:\s*\[\s*\{[^{}]*"(?:source|target)"\s*:/.test(start) ||
    (/"nodes"\s*:\s*\[\s*\{[^{}]*"(?:id|key)"\s*:/.test(start) &&
      /^\{[^{]*"(?:directed|multigraph)"\s*:/.test(start))
  );
}

/** Whether an object is a document with a well-known list of objects, and no line of JSON Lines. */
function isDocument(value: object): boolean {
  const members = Object.entries(value);
  return (
    members.length <= 3 &&
    members.some(
      ([name, member]) =>
        /^(?:posts|messages|items|data|results|records|rows)$/.test(name) &&
        Array.isArray(member) &&
        typeof (member as unknown[])[0] === 'object',
    )
  );
}

/** Whether a document on one line holds everything: a network, or a list of objects. */
function isWhole(start: string, value: object): boolean {
  if (start.trimEnd().includes('\n')) return false;
  const holds = Object.entries(value).some(
    ([, member]) => Array.isArray(member) && typeof (member as unknown[])[0] === 'object',
  );
  return 'graph' in value || 'graphs' in value || holds;
}

/** Whether a text that begins with an object goes on with objects on further lines, or is one line only. */
function isLines(start: string): boolean {
  const rest = start.indexOf('\n') < 0 ? '' : start.slice(start.indexOf('\n') + 1).trimStart();
  return rest === '' || rest.startsWith('{') || !rest.startsWith(',');
}

function guessGraphText(text: string): FormatGuess | null {
  const bare = text.replace(/^(?:\s*(?:#|\/\/)[^\n]*\n)+/, '').trimStart();
  const guess = { material: 'network', delimiter: '' } as const;
  if (/^(?:strict\s+)?(?:di)?graph\b[^[\n]*\{/i.test(bare))
    return { ...guess, format: 'dot', reason: 'A network in the DOT language.' };
  if (/^(?:Creator\s+"[^"]*"\s*|Version\s+\S+\s*|comment\s+"[^"]*"\s*)*graph\s*\[/i.test(bare))
    return { ...guess, format: 'gml', reason: 'A network in GML.' };
  return null;
}

function guessTable(text: string, file: string): FormatGuess {
  const lines = text
    .split(/\r?\n/)
    .slice(0, 30)
    .filter((line) => line.trim() !== '');
  const delimiter = [',', ';', '\t', '|'].reduce((a, b) => (evenness(lines, b) > evenness(lines, a) ? b : a));
  if (evenness(lines, delimiter) === 0) {
    const words = lines.map((line) => line.trim().split(/\s+/).length);
    if (
      lines.length > 1 &&
      words.every((count) => count <= 60) &&
      words.some((count) => count > 1) &&
      !lines.some((line) => /[.!?]\s/.test(line))
    )
      return {
        format: 'adjacency',
        material: 'network',
        delimiter: ' ',
        reason: 'An adjacency list: each line a node and the nodes it is tied to.',
      };
    if (isList(lines))
      return { format: 'list', material: 'groups', delimiter: '', reason: 'A plain list, one value a line.' };
    throw new UnreadableFile(
      `No columns were found in ${file}: its first line has no comma, semicolon, tab or bar between names of columns.`,
      1,
    );
  }
  const name = { ',': 'commas', ';': 'semicolons', '\t': 'tabs', '|': 'bars' }[delimiter];
  return {
    format: delimiter === '\t' ? 'tsv' : 'csv',
    material: 'messages',
    delimiter,
    reason: `A table with ${name} between its columns.`,
  };
}

/** Whether lines are the values of a category: short, and most of them come again. */
function isList(lines: readonly string[]): boolean {
  const values = new Set(lines.map((line) => line.trim()));
  return lines.length > 3 && lines.every((line) => line.length <= 60) && values.size <= lines.length / 2;
}

/** How often a delimiter stands outside quotes in the first line, favoured when other lines have as many. */
function evenness(lines: readonly string[], delimiter: string): number {
  const counts = lines.map((line) => line.replace(/"[^"]*"/g, '').split(delimiter).length - 1);
  const first = counts[0] ?? 0;
  return first === 0 ? 0 : first * (counts.filter((count) => count === first).length / counts.length + 0.1);
}

function tryParse(text: string): object | null {
  try {
    const value: unknown = JSON.parse(text);
    return typeof value === 'object' ? value : null;
  } catch {
    return null;
  }
}
