import type { TextEncoding } from '@pebble/contract';

/** An encoding and the reason for taking it. */
export interface EncodingGuess {
  readonly encoding: TextEncoding;
  readonly reason: string;
}

/**
 * The encoding of a file by its first bytes: a byte order mark, the zero bytes of UTF-16, well-formed UTF-8, and
 * otherwise Windows-1252.
 * @param complete false when the bytes are only the start of the file, so that the last character may be cut
 */
export function guessEncoding(bytes: Uint8Array, complete: boolean): EncodingGuess {
  if (bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf) {
    return { encoding: 'utf-8', reason: 'UTF-8, by its byte order mark' };
  }
  if (bytes[0] === 0xff && bytes[1] === 0xfe) {
    return { encoding: 'utf-16le', reason: 'UTF-16 (little endian), by its byte order mark' };
  }
  if (bytes[0] === 0xfe && bytes[1] === 0xff) {
    return { encoding: 'utf-16be', reason: 'UTF-16 (big endian), by its byte order mark' };
  }
  const zeros = zeroShares(bytes);
  if (zeros.odd > 0.3 && zeros.even < 0.05)
    return { encoding: 'utf-16le', reason: 'UTF-16, by its zero bytes' };
  if (zeros.even > 0.3 && zeros.odd < 0.05)
    return { encoding: 'utf-16be', reason: 'UTF-16, by its zero bytes' };
  if (isUtf8(bytes, complete))
    return { encoding: 'utf-8', reason: 'UTF-8, since all bytes form valid characters' };
  return { encoding: 'windows-1252', reason: 'Windows-1252, since the bytes are not valid UTF-8' };
}

function isUtf8(bytes: Uint8Array, complete: boolean): boolean {
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(bytes, { stream: !complete });
    return true;
  } catch {
    return false;
  }
}

function zeroShares(bytes: Uint8Array): { odd: number; even: number } {
  let odd = 0;
  let even = 0;
  const length = Math.min(bytes.length, 4096);
  for (let i = 0; i < length; i++) {
    if (bytes[i] !== 0) continue;
    if (i % 2 === 1) odd++;
    else even++;
  }
  return { odd: odd / (length / 2 || 1), even: even / (length / 2 || 1) };
}
