import {
  REPORT_STYLE,
  reportBody,
  svgAddress,
  type Report,
  type ReportPicture,
} from '@pebble/core/documents';
import { fontFace } from '../exports/fontFace';
import { standalonePage } from '../exports/standalonePage';

/** A report as one file that loads nothing and runs nothing. */
export function reportPage(report: Report, pictures: readonly ReportPicture[]): string {
  const { title, author } = report;
  const style = `${fontFace('Newsreader', 'newsreader')}${REPORT_STYLE}`;
  return standalonePage({ title, author, style, body: [reportBody(report, pictures.map(svgAddress))] });
}
