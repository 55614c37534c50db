import { createHash } from 'node:crypto';
import { escapeXml } from '@pebble/core';
import { fontFace } from '../exports/fontFace';
import {
  REPORT_STYLE,
  reportBody,
  svgAddress,
  type Report,
  type ReportPicture,
} from '@pebble/core/documents';

/** A report as one file that loads nothing and runs nothing. */
export function reportPage(report: Report, pictures: readonly ReportPicture[]): string {
  const style = `${fontFace('Newsreader', 'newsreader')}${REPORT_STYLE}`;
  const sum = createHash('sha256').update(style).digest('base64');
  const policy = `default-src 'none'; style-src 'sha256-${sum}'; img-src data:; font-src data:; base-uri 'none'; form-action 'none'`;
  return [
    '<!doctype html>',
    '<html lang="en">',
    '<head>',
    '<meta charset="utf-8">',
    `<meta http-equiv="Content-Security-Policy" content="${policy}">`,
    '<meta name="viewport" content="width=device-width, initial-scale=1">',
    '<meta name="generator" content="Pebble Thread">',
    ...(report.author === '' ? [] : [`<meta name="author" content="${escapeXml(report.author)}">`]),
    `<title>${escapeXml(report.title)}</title>`,
    `<style>${style}</style>`,
    '</head>',
    '<body>',
    reportBody(report, pictures.map(svgAddress)),
    '</body>',
    '</html>',
    '',
  ].join('\n');
}
