// The rule of controls: what is pressed and written in is a component of the library. Words of a text that can be pressed are their own.
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './prepare.mjs';

const APP = join(root, 'apps/web/src/app');
const ATTRIBUTES = /(?:[^>"']|"[^"]*"|'[^']*')*/.source;
const CONTROL = new RegExp(`<(button|input|select|textarea)\\b(${ATTRIBUTES})>`, 'g');
const OF_THE_LIBRARY = /\[?\bmat[A-Z]\w*|\bmat-(?:tab-link|menu-item)\b/;
/** Words of a text or a table that open what is behind them, and lines of the legend. */
const WORDS = new Set(['link', 'link big', 'count', 'evidence', 'author', 'answer', 'spot']);
/** Phrases of the caption and of messages, heads of columns, pictures to choose from: they look like what they stand in. */
const OWN = new Set([
  'map/panels/caption-bar.html',
  'shared/message-text.ts',
  'gather/sort-heads.ts',
  'map/settings/arrangement-settings.ts',
]);
/** The library has no colour field; a file field is hidden behind a button; sliders over a chart have no track of their own. */
const TYPES = new Set(['color', 'file', 'range']);

const faults = [];
for (const entry of readdirSync(APP, { recursive: true })) {
  if (!/\.(?:ts|html)$/.test(entry) || entry.endsWith('.spec.ts')) continue;
  for (const [, name, attributes] of readFileSync(join(APP, entry), 'utf8').matchAll(CONTROL)) {
    const type = /(?<![\w.[-])type="(\w+)"/.exec(attributes)?.[1];
    const words = /(?<![\w.[-])class="([^"]*)"/.exec(attributes)?.[1];
    const isOwn = name === 'button' && (WORDS.has(words) || OWN.has(entry));
    if (!OF_THE_LIBRARY.test(attributes) && !isOwn && !(name === 'input' && TYPES.has(type)))
      faults.push(`${entry}: <${name}${words ? ` class="${words}"` : ''}>`);
  }
}
for (const fault of faults) console.error(`${fault} is no component of the library`);
process.exit(faults.length > 0 ? 1 : 0);
