// The rule of words: what the guide sets in bold or italics is a name on the screens, so that readers find it there. Claims end with a stop, and are none.
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './prepare.mjs';

const GUIDE = join(root, 'docs/guide');
/** Where the words of the screens stand. */
const SOURCES = ['apps/web/src/app', 'packages/core/src', 'packages/contract/src', 'apps/server/src'];
const CODE = /```[\s\S]*?```|`[^`]*`/g;
const NAME = /\*\*([^*]+)\*\*|(?<![*\w])[*_]([^*_\n][^*_]*)[*_](?![*\w])/g;

/** Tags without words of their own, breaks and entities aside: words as they are read. */
const plain = (text) =>
  text
    .replace(/&amp;/g, '&')
    .replace(/<\/?\w+[^<>=]*>/g, ' ')
    .replace(/\s+/g, ' ')
    .toLowerCase();

const screens = SOURCES.flatMap((folder) =>
  readdirSync(join(root, folder), { recursive: true })
    .filter((entry) => /\.(?:ts|html)$/.test(entry) && !entry.endsWith('.spec.ts'))
    .map((entry) => plain(readFileSync(join(root, folder, entry), 'utf8'))),
).join('\n');

/** Whether the words stand on a screen, whole. */
function isShown(words) {
  const escaped = words.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
  return new RegExp(`(?<![\\p{L}\\d])${escaped}(?![\\p{L}\\d])`, 'u').test(screens);
}

const faults = [];
for (const file of readdirSync(GUIDE)) {
  const text = readFileSync(join(GUIDE, file), 'utf8').replace(CODE, '');
  for (const [, bold, italic] of text.matchAll(NAME)) {
    const name = plain(bold ?? italic).trim();
    if (!name.endsWith('.') && !isShown(name.replace(/[…,:;?]+$/, '').trim()))
      faults.push(`${file}: “${name}”`);
  }
}
for (const fault of faults) console.error(`${fault} is set as a name, and stands on no screen`);
process.exit(faults.length > 0 ? 1 : 0);
