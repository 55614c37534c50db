import { spawn, type ChildProcess } from 'node:child_process';
import { join } from 'node:path';
import { expect } from '@playwright/test';

const main = join(import.meta.dirname, '../apps/server/dist/main.js');

/** Starts an application of its own on a data folder, without the demo, and waits until it is ready. */
export async function beginServer(port: number, data: string): Promise<ChildProcess> {
  const server = spawn(process.execPath, [main, '--empty'], {
    env: { ...process.env, PORT: String(port), PEBBLE_DATA: data },
    stdio: 'ignore',
  });
  const isReady = (): Promise<boolean> =>
    fetch(`http://127.0.0.1:${port}/api/v1/health`)
      .then((r) => r.ok)
      .catch(() => false);
  await expect.poll(isReady, { timeout: 20_000 }).toBe(true);
  return server;
}
