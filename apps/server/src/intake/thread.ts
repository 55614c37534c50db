import { parentPort, workerData, type MessagePort } from 'node:worker_threads';
import { Batcher } from './batch';
import { readFile } from './readFile';
import { MOST_WAITING, type FromReader, type IntakeJob } from './reader';

/** Messages that travel together. */
const BATCH = 1000;

/** Reads a file in a thread of its own, and waits when the thread that stores falls behind. */
async function read(port: MessagePort, { path, file, reading, mostRows, stored }: IntakeJob): Promise<void> {
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
  const count = (): boolean => {
    if (++rows > mostRows) throw new TooManyRows();
    return batcher.size >= BATCH;
  };
  try {
    const counted = (): void => {
      if (count()) send();
    };
    await readFile(path, file, reading, {
      message(message) {
        batcher.add(message);
        counted();
      },
      // An item whose title a comment tells is no row of its own.
      item(item) {
        batcher.addItem(item);
        if (reading.material === 'items' || reading.format === 'activities') counted();
      },
      follow(follow) {
        batcher.addFollow(follow);
        counted();
      },
      profile(profile) {
        batcher.addProfile(profile);
        counted();
      },
      skip(row) {
        batcher.skip(row);
        counted();
      },
      piece: (read) => (share = read),
    });
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

class TooManyRows extends Error {}

if (parentPort) void read(parentPort, workerData as IntakeJob);
