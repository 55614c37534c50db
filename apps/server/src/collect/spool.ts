import { createReadStream, existsSync, statSync, truncateSync, writeFileSync } from 'node:fs';
import { open } from 'node:fs/promises';
import { createInterface } from 'node:readline';
import type { Collected } from './connector';

/** Where a run keeps what it has collected until it is taken in: objects, one a line, known again by their ids. */
export class Spool {
  private readonly ids = new Set<string>();

  private constructor(
    private readonly path: string,
    public bytes: number,
  ) {}

  /**
   * Opens a run's spool at the place up to which it is valid: what was written after it, before the process was killed, is cut off, and what
   * cannot be read, with all that follows. Its bytes are then fewer than were asked for.
   */
  static async at(path: string, bytes: number): Promise<Spool> {
    if (!existsSync(path)) writeFileSync(path, '');
    const valid = Math.min(bytes, statSync(path).size);
    truncateSync(path, valid);
    const spool = new Spool(path, 0);
    if (valid > 0)
      for await (const line of createInterface({ input: createReadStream(path) })) {
        const end = spool.bytes + Buffer.byteLength(line) + 1;
        const id = end > valid ? null : idOfLine(line);
        if (id === null) break;
        spool.ids.add(id);
        spool.bytes = end;
      }
    truncateSync(path, spool.bytes);
    return spool;
  }

  isNew(id: string): boolean {
    return !this.ids.has(id);
  }

  /** Writes objects that are new, so that they are on the disk when this is done; returns them. */
  async add(records: readonly Collected[]): Promise<Collected[]> {
    const fresh: Collected[] = [];
    for (const record of records) {
      if (!this.isNew(record.id)) continue;
      this.ids.add(record.id);
      fresh.push(record);
    }
    if (fresh.length === 0) return fresh;
    const text = fresh.map(({ object }) => `${JSON.stringify(object)}\n`).join('');
    const file = await open(this.path, 'a');
    try {
      // Writes on until all is written: one write alone may take only a part where the disk is full.
      await file.appendFile(text);
      await file.datasync();
    } catch (error) {
      await file.truncate(this.bytes);
      for (const { id } of fresh) this.ids.delete(id);
      throw error;
    } finally {
      await file.close();
    }
    this.bytes += Buffer.byteLength(text);
    return fresh;
  }
}

/** Null where a line is no object. */
function idOfLine(line: string): string | null {
  try {
    const object: unknown = JSON.parse(line);
    return typeof object === 'object' && object !== null ? idOf(object) : null;
  } catch {
    return null;
  }
}

/** The id by which a kept object is known again; a Follow by its two ends. */
function idOf(object: unknown): string {
  const { id, type, actor, object: target } = object as Record<string, unknown>;
  const end = (value: unknown): string =>
    typeof value === 'string' ? value : String((value as { id?: unknown } | undefined)?.id ?? '');
  if (type === 'Follow') return `${end(actor)} ${end(target)}`;
  if (type === 'Create' || type === 'Update') return end(target);
  return typeof id === 'string' ? id : JSON.stringify(object);
}
