import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { escapeXml, type HeldPage } from '@pebble/core';
import { fontFace } from '../exports/fontFace';

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
  const policy = [
    "default-src 'none'",
    `script-src '${hashOf(program)}'`,
    `style-src '${hashOf(style)}'`,
    'font-src data:',
    'img-src data:',
    "base-uri 'none'",
    "form-action 'none'",
  ].join('; ');
  return [
    '<!doctype html>',
    '<html lang="en">',
    '<head>',
    '<meta charset="utf-8">',
    `<meta http-equiv="Content-Security-Policy" content="${policy}">`,
    '<meta name="viewport" content="width=device-width, initial-scale=1">',
    '<meta name="generator" content="Pebble Thread">',
    `<meta name="description" content="${escapeXml(held.told.short)}">`,
    ...(held.author === '' ? [] : [`<meta name="author" content="${escapeXml(held.author)}">`]),
    `<title>${escapeXml(held.title)}</title>`,
    `<style>${style}</style>`,
    '</head>',
    '<body>',
    `<div id="page"><h1>${escapeXml(held.title)}</h1><p>${escapeXml(held.told.short)}</p><p>${escapeXml(held.told.long)}</p></div>`,
    `<script type="application/json" id="held">${asData(held)}</script>`,
    `<script>${program}</script>`,
    '</body>',
    '</html>',
    '',
  ].join('\n');
}

/** JSON that ends no element and begins none, whatever stands in it. */
function asData(held: HeldPage): string {
  return JSON.stringify(held).replaceAll('<', '\\u003c');
}

/** As a policy names what stands in a file (CSP level 3, hash of an inline element). */
function hashOf(text: string): string {
  return `sha256-${createHash('sha256').update(text).digest('base64')}`;
}
