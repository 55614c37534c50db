import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Service } from '@pebble/contract';
import * as z from 'zod';

const Kept = z.array(z.object({ service: Service, clientId: z.string(), secret: z.string() }));
type Kept = z.infer<typeof Kept>;

/**
 * The secrets of services, in a file of the data folder that only its owner can read. They stand nowhere else: not in the database, not in
 * the logbook, not in an export or a message.
 */
export class Secrets {
  private readonly path: string;

  constructor(folder: string) {
    this.path = join(folder, 'secrets.json');
  }

  /** Whether there is a file that cannot be read. */
  get isBroken(): boolean {
    return existsSync(this.path) && this.read() === null;
  }

  /** None where the file cannot be read: services that need no secret, and those whose secret is given again, go on. */
  all(): Kept {
    return this.read() ?? [];
  }

  find(address: string): Kept[number] | null {
    return this.all().find(({ service }) => service.address === address) ?? null;
  }

  keep(entry: Kept[number]): void {
    // What cannot be read is not written over.
    if (this.isBroken) renameSync(this.path, `${this.path}.broken`);
    const others = this.all().filter(({ service }) => service.address !== entry.service.address);
    writeFileSync(`${this.path}.part`, JSON.stringify([...others, entry], null, 1), { mode: 0o600 });
    renameSync(`${this.path}.part`, this.path);
  }

  private read(): Kept | null {
    if (!existsSync(this.path)) return [];
    try {
      return Kept.parse(JSON.parse(readFileSync(this.path, 'utf8')));
    } catch {
      return null;
    }
  }
}
