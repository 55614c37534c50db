import type { Preview, ImportMapping } from '@pebble/contract';
import { guessEncoding } from '../encoding';
import { readNetworkText } from '../networks/readNetwork';
import { guessFormat, isWorkbook, refuseForeign, type FormatGuess } from '../sniff';
import { UnreadableFile } from '../unreadable';
import { chosenMeaning, type FileHead } from './findings';
import { previewMessages } from './messagesPreview';
import { previewNetwork } from './networkPreview';
import { readSample } from './sample';
import { previewTable } from './tablePreview';
import { readSafely } from './trial';
import { previewWorkbook } from './workbookPreview';

export type { FileHead } from './findings';

/**
 * A first look at a file.
 * @param chosen what the researcher corrected; the rest is detected
 * Throws UnreadableFile when nothing can be read from it.
 */
export async function previewFile(file: FileHead, chosen?: Partial<ImportMapping>): Promise<Preview> {
  if (file.size === 0) throw new UnreadableFile('The file is empty.');
  if (isWorkbook(file.head)) return previewWorkbook(file, chosen);
  refuseForeign(file.head);
  const complete = file.head.length >= file.size;
  const encodingGuess = guessEncoding(file.head, complete);
  const encoding = chosen?.encoding ?? encodingGuess.encoding;
  const text = wholeLines(new TextDecoder(encoding).decode(file.head, { stream: !complete }), complete);
  if (text.trim() === '') throw new UnreadableFile('The file holds only blank lines.');
  const guess = guessFormat(text, file.name);
  const format = chosen?.format ?? guess.format;
  const base: ImportMapping = {
    material: chosen?.material ?? guess.material,
    format,
    sheet: null,
    encoding,
    delimiter: chosen?.delimiter ?? (format === 'tsv' ? '\t' : guess.delimiter),
    dateForm: chosen?.dateForm ?? 'iso',
    zoneOffsetMinutes: chosen?.zoneOffsetMinutes ?? 0,
    columns: [],
    ...chosenMeaning(file, chosen),
  };
  const reasons = [`${encodingGuess.reason}.`, guess.reason];
  switch (format) {
    case 'activities':
      return previewMessages(file, text, { ...base, delimiter: isOneALine(guess) ? '\n' : '' }, reasons);
    case 'mbox':
    case 'eml': {
      const bytes = format === 'eml' ? file.whole() : file.head;
      return previewMessages(file, binary(bytes), base, [guess.reason]);
    }
    case 'graphml':
    case 'gml':
    case 'jgf':
    case 'node-link':
    case 'dot':
    case 'adjacency': {
      const whole = new TextDecoder(encoding).decode(file.whole());
      return previewNetwork(
        file,
        readSafely(() => readNetworkText(whole, base)),
        base,
        reasons,
      );
    }
    case 'matrix':
    case 'xlsx':
    default:
      return previewTable(file, readSample(base, text), base, reasons, complete, chosen);
  }
}

function isOneALine({ reason }: FormatGuess): boolean {
  return reason.endsWith('one a line.');
}

function binary(bytes: Uint8Array): string {
  let text = '';
  for (let at = 0; at < bytes.length; at += 8192)
    text += String.fromCharCode(...bytes.subarray(at, at + 8192));
  return text;
}

function wholeLines(text: string, complete: boolean): string {
  const clean = text.replace(/^\ufeff/, '');
  const end = clean.lastIndexOf('\n');
  return complete || end < 0 ? clean : clean.slice(0, end + 1);
}
