import { PackageCheck, PackageQuery } from '../package';
import { ReportCheck, ReportQuery } from '../report';
import { Bytes, routeTable } from './route';

const NOT_MADE = 'The map was never arranged, a plate cannot be drawn, or somebody has no pseudonym yet.';

export const reportRoutes = routeTable({
  package: {
    method: 'get',
    path: '/studies/{study}/networks/{network}/package.zip',
    summary:
      'The network and its map for reuse: tables, figures, a page, methods, provenance, and what describes them, in a zip.',
    query: PackageQuery,
    answer: new Bytes(['application/zip']),
    problems: { 409: NOT_MADE },
  },
  packageCheck: {
    method: 'get',
    path: '/studies/{study}/networks/{network}/package-check',
    summary: 'What such a package would hold, and where people can be found in it who have pseudonyms.',
    query: PackageQuery,
    answer: PackageCheck,
    problems: { 409: NOT_MADE },
  },
  report: {
    method: 'get',
    path: '/studies/{study}/report.{reportFormat}',
    summary:
      'Maps with their groups, numbers, methods, limits and references as one document; Markdown as a zip with its pictures.',
    query: ReportQuery,
    answer: new Bytes([
      'text/html',
      'application/zip',
      'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
    ]),
    problems: { 409: NOT_MADE },
  },
  reportCheck: {
    method: 'get',
    path: '/studies/{study}/report-check',
    summary: 'What such a report would hold, and where people can be found in it who have pseudonyms.',
    query: ReportQuery,
    answer: ReportCheck,
    problems: { 409: NOT_MADE },
  },
});
