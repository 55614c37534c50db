import { rmSync } from 'node:fs';
import { open, rename } from 'node:fs/promises';
import type { Readable } from 'node:stream';

/** More was sent than is taken. */
export class TooLarge extends Error {
  constructor(most: number) {
    super(`A file may have at most ${Math.round(most / 1024 ** 3)} GB. Split it and import the parts.`);
  }
}

/**
 * Writes what is sent to a file, which stands there only when it is whole. Where it cannot be written, the rest is still read, so that the
 * sender hears why; nothing of it stays. Gives how many bytes came.
 * @param most bytes at most; throws TooLarge beyond
 */
export async function receive(sent: Readable, path: string, most: number): Promise<number> {
  const part = `${path}.part`;
  let size = 0;
  try {
    const file = await open(part, 'w');
    try {
      for await (const chunk of sent.iterator({ destroyOnReturn: false }) as AsyncIterable<Buffer>) {
        size += chunk.length;
        if (size > most) throw new TooLarge(most);
        await file.writeFile(chunk);
      }
    } finally {
      await file.close();
    }
    await rename(part, path);
    return size;
  } catch (error) {
    sent.resume();
    rmSync(part, { force: true });
    throw error;
  }
}
