import { parentPort, workerData, type MessagePort } from 'node:worker_threads';
import type { SourceSink } from '@pebble/core/files';
import { Batcher } from './batch';
import { readFile } from './readFile';
import { MOST_WAITING, type FromReader, type IntakeFile, type IntakeJob } from './reader';

/** Messages that travel together. */
const BATCH = 1000;

/** Reads files in a thread of its own, and waits when the thread that stores falls behind. */
async function read(port: MessagePort, { files, mostRows, stored }: IntakeJob): Promise<void> {
  const batcher = new Batcher();
  let rows = 0;
  let sent = 0;
  let share = 0;
  const say = (message: FromReader): void => port.postMessage(message);
  const send = (): void => {
    for (let done = Atomics.load(stored, 0); sent - done >= MOST_WAITING; done = Atomics.load(stored, 0))
      Atomics.wait(stored, 0, done);
    sent++;
    say({ what: 'batch', batch: batcher.take(rows, share) });
  };
  const count = (): void => {
    if (++rows > mostRows) throw new TooManyRows();
    if (batcher.size >= BATCH) send();
  };
  try {
    for (const [i, one] of files.entries()) {
      const sink = sinkFor(batcher, one, files.length > 1, count);
      await readFile(one.path, one.file, one.reading, {
        ...sink,
        piece: (read) => (share = (i + read) / files.length),
      });
    }
    share = 1;
    send();
    say({ what: 'end' });
  } catch (error) {
    say(
      error instanceof TooManyRows
        ? { what: 'too many rows' }
        : { what: 'error', message: error instanceof Error ? error.message : String(error) },
    );
  }
}

/** Takes what a file holds; where there are several, messages and skipped rows keep the name of theirs. */
function sinkFor(
  batcher: Batcher,
  { file, reading }: IntakeFile,
  isOneOfMany: boolean,
  count: () => void,
): SourceSink {
  // An item whose title a comment tells is no row of its own.
  const itemsCount = reading.material === 'items' || reading.format === 'activities';
  return {
    message(message) {
      batcher.add(isOneOfMany ? { ...message, attributes: { ...message.attributes, file } } : message);
      count();
    },
    item(item) {
      batcher.addItem(item);
      if (itemsCount) count();
    },
    follow(follow) {
      batcher.addFollow(follow);
      count();
    },
    profile(profile) {
      batcher.addProfile(profile);
      count();
    },
    skip(row) {
      batcher.skip(isOneOfMany ? { ...row, file } : row);
      count();
    },
  };
}

class TooManyRows extends Error {}

if (parentPort) void read(parentPort, workerData as IntakeJob);
