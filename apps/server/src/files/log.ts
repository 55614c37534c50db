import { randomBytes } from 'node:crypto';
import { join } from 'node:path';
import { pino, type Logger } from 'pino';
import { createStream } from 'rotating-file-stream';

/** The folder of a data folder in which what was not expected is written down. */
export const logFolder = (dataFolder: string): string => join(dataFolder, 'log');

/** What is written down of something that nobody expected: where it happened, and no words of messages or names of people. */
export interface Fault {
  /** By which a person can look it up. */
  readonly id: string;
  readonly kind: string;
  readonly code: string | null;
  /** The places in the program, innermost first. */
  readonly stack: readonly string[];
}

/** An error's own words may hold what somebody wrote: they are not written down. */
export function faultOf(error: unknown): Fault {
  const { name, code, stack } = (error ?? {}) as { name?: unknown; code?: unknown; stack?: unknown };
  return {
    id: randomBytes(4).toString('hex'),
    kind: typeof name === 'string' ? name : typeof error,
    code: typeof code === 'string' || typeof code === 'number' ? String(code) : null,
    stack:
      typeof stack === 'string'
        ? stack
            .split('\n')
            .filter((line) => /^\s+at /.test(line))
            .map((line) => line.trim().replace(/(?:file:\/\/)?\/[^\s()]*\/(?=[^/\s()]+:\d)/, ''))
        : [],
  };
}

/** "Fault 1a2b3c4d" as it is told to people. */
export const faultPhrase = ({ id }: Fault): string =>
  `It is written down as fault ${id} in the folder “log” of the data folder.`;

/** A log in files of the data folder: five of 1 MB at most, the oldest goes first. */
export function openLog(dataFolder: string): { readonly log: Logger; close(): Promise<void> } {
  const stream = createStream('faults.log', {
    path: logFolder(dataFolder),
    size: '1M',
    maxFiles: 5,
    mode: 0o600,
  });
  return {
    log: pino({ level: 'info', base: null, timestamp: pino.stdTimeFunctions.isoTime }, stream),
    close: () => new Promise((done) => stream.end(() => done())),
  };
}
