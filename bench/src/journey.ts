import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium } from '@playwright/test';
import { browser as launch } from '../../e2e/browser';
import { keyCookie } from '../../e2e/key';
import { goThrough, type Act } from '../../e2e/journey/journey';
import { writePosts } from '../../e2e/journey/material';

const PORT = 4671;
/** An act that takes longer than this is given up; in milliseconds, set in seconds. */
const PATIENCE = Number(process.env['JOURNEY_PATIENCE'] ?? 240) * 1000;

interface Watched extends Act {
  /** The most memory that the server held during the act, MB. */
  readonly memory: number;
  /** The longest that the server let a plain question wait, milliseconds. */
  readonly waited: number;
}

/** Goes through the whole job with a file of so many posts, and prints what each act took. */
export async function journey(posts: number): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'pebble-journey-'));
  const file = join(folder, 'posts.csv');
  const material = writePosts(file, posts);
  const server = spawn(process.execPath, ['apps/server/dist/main.js', '--empty', '--no-standins'], {
    env: { ...process.env, PORT: String(PORT), PEBBLE_DATA: join(folder, 'data') },
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  const address = `http://127.0.0.1:${PORT}`;
  const health = async (): Promise<boolean> =>
    fetch(`${address}/api/v1/health`).then(
      ({ ok }) => ok,
      () => false,
    );
  while (!(await health())) await new Promise((done) => setTimeout(done, 100));
  const watch = new Watch(server.pid!, health);
  const rows: Watched[] = [];
  const browser = await chromium.launch(launch);
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, baseURL: address });
    await page.context().addCookies([keyCookie(join(folder, 'data'), PORT)]);
    console.log(
      `\n${posts.toLocaleString('en')} posts by ${material.accounts.toLocaleString('en')} accounts, ${Math.round(material.bytes / 1e6)} MB\n\n| act | seconds | server memory, MB | longest wait for another answer, ms | longest task of the page, ms | |\n|---|---:|---:|---:|---:|---|`,
    );
    const { toFirstMap, faults } = await goThrough(page, file, {
      patience: PATIENCE,
      told: (act) => {
        const row = { ...act, ...watch.take() };
        rows.push(row);
        console.log(
          `| ${row.name} | ${row.seconds.toFixed(1)} | ${row.memory.toFixed(0)} | ${row.waited.toFixed(0)} | ${row.longestTask.toFixed(0)} | ${row.error ?? ''} |`,
        );
      },
    });
    const most = (of: (row: Watched) => number): number => Math.max(...rows.map(of));
    console.log(
      `\nDrop to first map ${toFirstMap.toFixed(1)} s; at most ${most(({ memory }) => memory).toFixed(0)} MB; longest wait ${most(({ waited }) => waited).toFixed(0)} ms; longest task of the page ${most(({ longestTask }) => longestTask).toFixed(0)} ms; errors: ${faults.length === 0 ? 'none' : [...new Set(faults)].join(', ')}.`,
    );
  } finally {
    watch.stop();
    await browser.close();
    server.kill('SIGTERM');
    await new Promise((done) => server.once('exit', done));
    rmSync(folder, { recursive: true, force: true });
  }
}

/** Looks at a process every moment: its memory, and how long it lets a plain question wait. */
class Watch {
  private memory = 0;
  private waited = 0;
  private readonly timer: NodeJS.Timeout;
  private asking = false;

  constructor(
    private readonly pid: number,
    private readonly health: () => Promise<boolean>,
  ) {
    this.timer = setInterval(() => void this.look(), 50);
  }

  /** What was seen since it was asked last. */
  take(): { memory: number; waited: number } {
    const seen = { memory: this.memory, waited: this.waited };
    this.memory = 0;
    this.waited = 0;
    return seen;
  }

  stop(): void {
    clearInterval(this.timer);
  }

  private async look(): Promise<void> {
    const resident = /VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${this.pid}/status`, 'utf8'));
    if (resident) this.memory = Math.max(this.memory, Number(resident[1]) / 1024);
    if (this.asking) return;
    this.asking = true;
    const begun = performance.now();
    await this.health();
    this.waited = Math.max(this.waited, performance.now() - begun);
    this.asking = false;
  }
}
