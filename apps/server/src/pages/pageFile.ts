import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { escapeXml, type HeldPage } from '@pebble/core';
import { fontFace } from '../exports/fontFace';
import { standalonePage } from '../exports/standalonePage';

const { resolve } = createRequire(import.meta.url);

/** Fonts of a page, by what they are called in its style. */
const FONTS = [
  ['Atkinson Hyperlegible Next Variable', 'atkinson-hyperlegible-next'],
  ['Newsreader Variable', 'newsreader'],
] as const;

/** A page as one file that loads nothing: its program and its style are known by their hashes, and what it holds stands in it as data. */
export function pageFile(held: HeldPage): string {
  const program = readFileSync(resolve('@pebble/page/page.js'), 'utf8').trim();
  const style = `${FONTS.map(([family, name]) => fontFace(family, name)).join('\n')}\n${readFileSync(resolve('@pebble/page/page.css'), 'utf8').trim()}`;
  const { title, author, told } = held;
  const heading = `<h1>${escapeXml(title)}</h1><p>${escapeXml(told.short)}</p><p>${escapeXml(told.long)}</p>`;
  return standalonePage({
    title,
    author,
    description: told.short,
    style,
    program,
    body: [
      `<div id="page">${heading}</div>`,
      `<script type="application/json" id="held">${asData(held)}</script>`,
    ],
  });
}

/** JSON that ends no element and begins none, whatever stands in it. */
function asData(held: HeldPage): string {
  return JSON.stringify(held).replaceAll('<', '\\u003c');
}
