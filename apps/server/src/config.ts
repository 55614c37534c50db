import { homedir } from 'node:os';
import { join } from 'node:path';
import { OWN_HOSTS } from '@pebble/contract';

export interface Config {
  readonly host: string;
  readonly port: number;
  /** Port of the simulated services; null when they are not started. */
  readonly standinsPort: number | null;
  readonly dataFolder: string;
  /** Folder of the built interface; null in tests of the API alone. */
  readonly webFolder: string | null;
  /** Bytes of one uploaded file at most. */
  readonly largestUpload: number;
  /** Rows of one file at most. */
  readonly mostRows: number;
  /** Milliseconds for which a first look at a file may go on without getting any further; large ones have longer. */
  readonly longestLook: number;
}

/** Where it may listen: the data are never offered to a network. */
const LOCAL_ADDRESSES = OWN_HOSTS.map((name) => name.replace(/[[\]]/g, ''));

/** Settings from the environment; throws a sentence when one cannot be used. */
export function readConfig(
  env: NodeJS.ProcessEnv,
  webFolder: string | null,
  options: { standins: boolean } = { standins: true },
): Config {
  const port = Number(env['PORT'] ?? 4620);
  if (!Number.isInteger(port) || port < 0 || port > 65_535)
    throw new Error(`PORT must be a number from 0 to 65535, not “${env['PORT']}”.`);
  const host = env['PEBBLE_HOST'] ?? '127.0.0.1';
  if (!LOCAL_ADDRESSES.includes(host))
    throw new Error(
      `PEBBLE_HOST must be an address of this machine alone (${LOCAL_ADDRESSES.join(', ')}), not “${host}”.`,
    );
  return {
    host,
    port,
    // Beside the application's own port; a free one is taken where that is 0.
    standinsPort: options.standins ? (port === 0 ? 0 : port + 1) : null,
    dataFolder: env['PEBBLE_DATA'] ?? join(homedir(), '.pebble-thread'),
    webFolder,
    largestUpload: 4 * 1024 ** 3,
    mostRows: 20_000_000,
    longestLook: 10_000,
  };
}
