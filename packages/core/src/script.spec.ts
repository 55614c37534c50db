import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { zachary } from './testing/known';

const root = join(__dirname, '../../..');

it('the script in docs/core.md makes a figure of Zachary (1977), the same one each time', () => {
  // The packages are built before the tests are run; see scripts/test.mjs.
  expect(existsSync(join(root, 'packages/core/dist/index.js'))).toBe(true);
  const script = /```js\n([\s\S]*?)```/.exec(readFileSync(join(root, 'docs/core.md'), 'utf8'))![1];
  const folder = mkdtempSync(join(tmpdir(), 'pebble-script-'));
  // Beside the packages, so that their names are found.
  const file = join(root, 'packages/core/dist', `script-${process.pid}.mjs`);
  try {
    const { graph, names } = zachary();
    const rows = Array.from(graph.source, (s, e) => `${names[s]},${names[graph.target[e]]}`);
    writeFileSync(join(folder, 'ties.csv'), `source,target\n${rows.join('\n')}\n`);
    writeFileSync(file, script);
    const draw = (out: string): string => {
      execFileSync(process.execPath, [file, join(folder, 'ties.csv'), join(folder, out)]);
      return readFileSync(join(folder, out), 'utf8');
    };
    const figure = draw('one.svg');
    expect(figure).toContain('34 nodes in 4 communities (Louvain, modularity 0.42).');
    expect(draw('two.svg')).toBe(figure);
  } finally {
    rmSync(folder, { recursive: true, force: true });
    rmSync(file, { force: true });
  }
});
