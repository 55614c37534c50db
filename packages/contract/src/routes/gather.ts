import * as z from 'zod';
import { DataFilters } from '../dataExport';
import {
  FileName,
  NewMapping,
  Preview,
  ImportMapping,
  SavedMappingList,
  SentBytes,
  SourcePage,
  UploadAnswer,
} from '../gather';
import {
  AccountPage,
  AccountQuery,
  ItemPage,
  ItemQuery,
  MessageOverview,
  MessagePage,
  MessageQuery,
  SavedFilterList,
  Thread,
  Timeline,
  TimelineQuery,
} from '../message';
import { PageQuery } from '../page';
import { Bytes, routeTable, type Route } from './route';

const ANY = new Bytes(['application/octet-stream']);
const TOO_LARGE = { 413: 'The file is too large.' };
const UNREADABLE = { 422: 'The file cannot be read; the problem names the file and the row.' };
const SEARCH = ' The text is searched as the guide describes ("Searching").';

/** One kind of what a study holds, saved as a file with the filters of its list. */
const dataExport = <const W extends keyof typeof DataFilters>(what: W, summary: string) =>
  ({
    method: 'get',
    path: `/studies/{study}/export/${what}.{dataFormat}`,
    summary,
    query: DataFilters[what],
    answer: new Bytes(['text/csv', 'application/jsonl']),
  }) as const satisfies Route;

export const gatherRoutes = routeTable({
  upload: {
    method: 'post',
    path: '/studies/{study}/uploads',
    summary: 'Takes a file and looks at it; of an archive at every file.',
    body: ANY,
    answer: UploadAnswer,
    status: 201,
    problems: { ...TOO_LARGE, ...UNREADABLE },
  },
  sendBytes: {
    method: 'post',
    path: '/studies/{study}/bytes',
    summary: 'Takes bytes that a step uses, such as the places of nodes, without looking at them.',
    body: ANY,
    answer: SentBytes,
    status: 201,
    problems: TOO_LARGE,
  },
  previewAgain: {
    method: 'post',
    path: '/studies/{study}/uploads/{upload}/preview',
    summary: 'Looks at an uploaded file again with corrected settings.',
    body: z.object({ file: FileName, reading: ImportMapping.partial() }),
    answer: Preview,
    problems: UNREADABLE,
  },
  dropUpload: {
    method: 'delete',
    path: '/studies/{study}/uploads/{upload}',
    summary: 'Forgets an uploaded file that was not taken in.',
  },
  saveReading: {
    method: 'post',
    path: '/readings',
    summary: 'Keeps a way to read a table under a name, and gives those that fit the same columns.',
    body: NewMapping,
    answer: SavedMappingList,
    status: 201,
  },
  forgetReading: { method: 'delete', path: '/readings/{reading}', summary: 'Forgets a kept reading.' },
  sources: {
    method: 'get',
    path: '/studies/{study}/sources',
    summary: 'What the messages came from, with reports.',
    query: PageQuery,
    answer: SourcePage,
  },
  importReport: {
    method: 'get',
    path: '/studies/{study}/reports/{step}',
    summary: 'The report of an import, to download.',
    answer: new Bytes(['application/json']),
  },
  skippedRows: {
    method: 'get',
    path: '/studies/{study}/skipped/{step}',
    summary: 'The rows that a step could not read, as CSV: line, field and reason.',
    answer: new Bytes(['text/csv']),
  },
  messages: {
    method: 'get',
    path: '/studies/{study}/messages',
    summary: `A page of messages.${SEARCH}`,
    query: MessageQuery,
    answer: MessagePage,
  },
  thread: {
    method: 'get',
    path: '/studies/{study}/messages/{message}/thread',
    summary: 'The conversation that a message stands in.',
    answer: Thread,
  },
  timeline: {
    method: 'get',
    path: '/studies/{study}/timeline',
    summary: 'Messages over time, by choice parted by source, kind or language.',
    query: TimelineQuery,
    answer: Timeline,
  },
  filters: {
    method: 'get',
    path: '/studies/{study}/filters',
    summary: 'Kept filters of the reading list.',
    answer: SavedFilterList,
  },
  accounts: {
    method: 'get',
    path: '/studies/{study}/accounts',
    summary: 'A page of the table of accounts.',
    query: AccountQuery,
    answer: AccountPage,
  },
  items: {
    method: 'get',
    path: '/studies/{study}/items',
    summary: 'A page of the table of items.',
    query: ItemQuery,
    answer: ItemPage,
  },
  overview: {
    method: 'get',
    path: '/studies/{study}/overview',
    summary: 'Counts of a study.',
    answer: MessageOverview,
  },
  exportMessages: dataExport('messages', `Messages as a file, with the filters of their list.${SEARCH}`),
  exportAccounts: dataExport('accounts', 'Accounts as a file.'),
  exportItems: dataExport('items', 'Items as a file.'),
  exportDecisions: dataExport('decisions', 'The tidy decisions as a file.'),
  exportCodebook: dataExport('codebook', 'The codes as a file.'),
  exportCodings: dataExport('codings', 'What each coder gave each message, as a file.'),
  exportPseudonyms: dataExport(
    'pseudonyms',
    'Who is called what in what is published: the key, to be kept apart.',
  ),
  exportLogbook: dataExport('logbook', 'The logbook as a file.'),
});
