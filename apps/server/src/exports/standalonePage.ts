import { createHash } from 'node:crypto';
import { escapeXml } from '@pebble/core';

/** A page that is one file: it loads nothing, and runs nothing but its own program, if it has one. */
interface StandalonePage {
  readonly title: string;
  /** Empty where nobody is named. */
  readonly author: string;
  /** Empty where there is none. */
  readonly description?: string;
  readonly style: string;
  readonly program?: string;
  /** What stands before the program. */
  readonly body: readonly string[];
}

/** Style and program are known to the policy of the page by their hashes (CSP level 3). */
export function standalonePage({ title, author, description, style, program, body }: StandalonePage): string {
  const policy = [
    "default-src 'none'",
    ...(program === undefined ? [] : [`script-src '${hashOf(program)}'`]),
    `style-src '${hashOf(style)}'`,
    'font-src data:',
    'img-src data:',
    "base-uri 'none'",
    "form-action 'none'",
  ].join('; ');
  const meta = (name: string, content = ''): string[] =>
    content === '' ? [] : [`<meta name="${name}" content="${escapeXml(content)}">`];
  return [
    '<!doctype html>',
    '<html lang="en">',
    '<head>',
    '<meta charset="utf-8">',
    `<meta http-equiv="Content-Security-Policy" content="${policy}">`,
    '<meta name="viewport" content="width=device-width, initial-scale=1">',
    ...meta('generator', 'Pebble Thread'),
    ...meta('description', description),
    ...meta('author', author),
    `<title>${escapeXml(title)}</title>`,
    `<style>${style}</style>`,
    '</head>',
    '<body>',
    ...body,
    ...(program === undefined ? [] : [`<script>${program}</script>`]),
    '</body>',
    '</html>',
    '',
  ].join('\n');
}

function hashOf(text: string): string {
  return `sha256-${createHash('sha256').update(text).digest('base64')}`;
}
