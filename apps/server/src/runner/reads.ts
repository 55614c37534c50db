import type {
  DataExport,
  FigureFormat,
  FigureQuery,
  EvidenceQuery,
  NetworkPage,
  PageQuery,
  NetworkExport,
  Agreement,
  AgreementRequest,
  AudienceMembers,
  AudienceMembersRequest,
  Audiences,
  AudienceSets,
  AudienceSetsQuery,
  AudiencesRequest,
  Comparison,
  ComparisonRequest,
  FollowedNodes,
  FollowedNodesQuery,
  Following,
  FullPortrait,
  OverTime,
  OverTimeQuery,
  SetMessagesRequest,
  Spread,
  SpreadMessagesRequest,
  SpreadOffers,
  SpreadOffersQuery,
  SpreadRequest,
  GroupMessagesQuery,
  GroupQuery,
  LeakQuestion,
  Leaks,
  Methods,
  MethodsLength,
  NodeNames,
  People,
  Plate,
  Portrait,
  PackageCheck,
  PackageQuery,
  PortraitList,
  ReportCheck,
  RunDifferences,
  ReportFormat,
  ReportQuery,
  Queue,
  QueueQuery,
  SharedPageCheck,
  SharedPageQuery,
  SmallPicture,
  AccountPage,
  AccountQuery,
  ItemPage,
  ItemQuery,
  MessageOverview,
  MessagePage,
  MessageQuery,
  Suggestion,
  Thread,
  TidyPage,
  TidyQuery,
  TidySort,
  Timeline,
  TimelineQuery,
  Weave,
  WeaveEstimate,
} from '@pebble/contract';
import type * as z from 'zod';
import type { Tie } from '@pebble/core';
import { findLeaks, findNetworkLeaks, readPeople } from '../people/readPeople';
import { readNodeNames } from '../people/publishedNames';
import { readMethods } from '../methods/readMethods';
import { checkPackage, writePackage } from '../packing/package';
import { checkReport, writeReport } from '../reports/report';
import { checkSharedPage, writeSharedPage } from '../pages/sharedPage';
import { readCover, readPlates } from '../plates/readPlates';
import { readDifferences } from '../reading/runDifferences';
import { readAudienceMembers, readAudiences, readAudienceSets } from '../reading/audiences';
import { readAgreement, readQueue } from '../reading/coding';
import { readComparison, readSetMessages } from '../reading/comparison';
import { readFollowedNodes, readFollowing } from '../reading/following';
import { readOverTime } from '../reading/overTime';
import { readGroupMessages, readGroupPortrait, readPortraits } from '../reading/readPortraits';
import { readSpread } from '../reading/spread';
import { readSpreadMessages, readSpreadOffers } from '../reading/spreadMessages';
import { findRunLeaks, writeRunFiles, zipRun, type RunFile } from '../packing/runFiles';
import { runResults } from '../reading/runResults';
import { readAccounts } from '../storage/accounts';
import { readNetworks } from '../storage/networks';
import { readSmallPicture } from '../storage/files/smallPictures';
import { exportNetwork } from '../exports/exportNetwork';
import { exportFigure } from '../exports/exportFigure';
import { exportData } from '../exports/exportData';
import type { ExportedFile } from '../exports/writtenFile';
import { readItems } from '../storage/items';
import { readMessages, readOverview } from '../storage/messages';
import { readTimeline } from '../storage/timeline';
import type { Store } from '../storage/open';
import { readThread } from '../storage/threads';
import { readSuggestions, readTidyPage } from '../tidying/review';
import { readCommunity, readEvidence, readMessageTies, readDailyTieCounts } from '../weaving/behindNetworks';
import { estimateWeave } from '../weaving/estimateWeave';

/**
 * What reads a study and may take a while for a large one. It is done in a thread beside the one that answers requests, so that the
 * application answers meanwhile.
 */
export interface Reads {
  overview: { asks: undefined; gives: MessageOverview };
  timeline: { asks: z.infer<typeof TimelineQuery>; gives: Timeline };
  messages: { asks: MessageQuery; gives: MessagePage };
  thread: { asks: number; gives: Thread | null };
  accounts: { asks: AccountQuery; gives: AccountPage };
  items: { asks: ItemQuery; gives: ItemPage };
  estimate: { asks: Weave; gives: WeaveEstimate };
  networks: { asks: PageQuery; gives: NetworkPage };
  /** Null where there are no messages behind a network. */
  evidence: { asks: { network: string; query: EvidenceQuery }; gives: MessagePage | null };
  portrait: { asks: { network: string; community: number }; gives: Portrait | 'no such community' | null };
  /** Null where a grouping was not portrayed. */
  portraits: { asks: { network: string; column: string }; gives: PortraitList | null };
  groupPortrait: { asks: { network: string } & z.infer<typeof GroupQuery>; gives: FullPortrait | null };
  /** Null where groups were not followed through time. */
  following: { asks: string; gives: Following | null };
  followedNodes: { asks: { network: string; query: FollowedNodesQuery }; gives: FollowedNodes };
  overTime: { asks: { network: string; query: OverTimeQuery }; gives: OverTime | null };
  queue: { asks: { sample: number; query: QueueQuery }; gives: Queue };
  agreement: { asks: AgreementRequest; gives: Agreement };
  spreadOffers: { asks: SpreadOffersQuery; gives: SpreadOffers };
  spread: { asks: SpreadRequest; gives: Spread };
  spreadMessages: { asks: SpreadMessagesRequest; gives: MessagePage };
  audienceSets: { asks: AudienceSetsQuery; gives: AudienceSets };
  audiences: { asks: AudiencesRequest; gives: Audiences };
  audienceMembers: { asks: AudienceMembersRequest; gives: AudienceMembers };
  comparison: { asks: ComparisonRequest; gives: Comparison };
  setMessages: { asks: SetMessagesRequest; gives: MessagePage };
  groupMessages: { asks: { network: string; query: GroupMessagesQuery }; gives: MessagePage | null };
  dailyTieCounts: { asks: string; gives: Uint8Array | null };
  messageTies: { asks: { network: string; message: number }; gives: Tie[] | null };
  /** Null for a map that was never arranged. */
  smallPicture: { asks: string; gives: SmallPicture | null };
  people: { asks: undefined; gives: People };
  nodeNames: { asks: string; gives: NodeNames };
  /** In texts that are to be published. */
  leaks: { asks: LeakQuestion; gives: Leaks };
  networkLeaks: { asks: string; gives: Leaks };
  plates: { asks: undefined; gives: Plate[] };
  /** Null for a study without a map. */
  cover: { asks: undefined; gives: SmallPicture | null };
  /** Writes a file, which is the reader's to take away. */
  exportNetwork: { asks: { network: string; format: NetworkExport }; gives: ExportedFile };
  /** Of messages, accounts, items, decisions or the logbook; the file is the reader's to take away. */
  exportData: { asks: DataExport; gives: ExportedFile };
  /** Null for a map that was never arranged. */
  exportFigure: {
    asks: { network: string; format: FigureFormat; query: FigureQuery };
    gives: ExportedFile | null;
  };
  methods: { asks: { network: string; length: MethodsLength }; gives: Methods };
  /** Null for a map that was never arranged. */
  sharedPage: {
    asks: { network: string; query: SharedPageQuery };
    gives: ExportedFile | { problem: string } | null;
  };
  sharedPageCheck: { asks: { network: string; query: SharedPageQuery }; gives: SharedPageCheck | null };
  report: { asks: { format: ReportFormat; query: ReportQuery }; gives: ExportedFile | { problem: string } };
  reportCheck: { asks: ReportQuery; gives: ReportCheck };
  /** Null for a map that was never arranged. */
  package: {
    asks: { network: string; query: PackageQuery };
    gives: ExportedFile | { problem: string } | null;
  };
  packageCheck: { asks: { network: string; query: PackageQuery }; gives: PackageCheck | null };
  /** Null where there is no such run. */
  routineDifferences: { asks: { run: number; beside?: number | undefined }; gives: RunDifferences | null };
  /** What came out of a run, as hashes; null where there is no such run, as with what follows. */
  runResults: { asks: number; gives: Record<string, string> | null };
  runFiles: { asks: number; gives: RunFile[] | null };
  runZip: { asks: number; gives: ExportedFile | { problem: string } | null };
  runLeaks: { asks: number; gives: Leaks | null };
  tidy: { asks: TidyQuery & { sort: TidySort }; gives: TidyPage };
  suggestions: { asks: TidySort; gives: Suggestion[] };
}
export type ReadName = keyof Reads;

type Reader<N extends ReadName> = (
  store: Store,
  asks: Reads[N]['asks'],
  progress?: (share: number) => void,
) => Promise<Reads[N]['gives']>;

export const readers: { readonly [N in ReadName]: Reader<N> } = {
  overview: readOverview,
  timeline: (store, { by, ...filter }) => readTimeline(store, filter, by),
  messages: readMessages,
  thread: readThread,
  accounts: readAccounts,
  items: readItems,
  estimate: estimateWeave,
  networks: readNetworks,
  evidence: readEvidence,
  portrait: readCommunity,
  portraits: readPortraits,
  groupPortrait: readGroupPortrait,
  groupMessages: readGroupMessages,
  following: readFollowing,
  followedNodes: readFollowedNodes,
  overTime: readOverTime,
  queue: readQueue,
  agreement: readAgreement,
  spreadOffers: readSpreadOffers,
  spread: readSpread,
  spreadMessages: readSpreadMessages,
  audienceSets: readAudienceSets,
  audiences: readAudiences,
  audienceMembers: readAudienceMembers,
  comparison: readComparison,
  setMessages: readSetMessages,
  dailyTieCounts: readDailyTieCounts,
  messageTies: readMessageTies,
  people: readPeople,
  nodeNames: readNodeNames,
  leaks: findLeaks,
  networkLeaks: findNetworkLeaks,
  plates: readPlates,
  cover: readCover,
  smallPicture: (store, network) => readSmallPicture(store, network),
  exportNetwork: (store, asks) => exportNetwork(store, asks),
  exportData,
  exportFigure: (store, asks) => exportFigure(store, asks),
  methods: readMethods,
  sharedPage: writeSharedPage,
  sharedPageCheck: checkSharedPage,
  report: writeReport,
  reportCheck: checkReport,
  package: writePackage,
  packageCheck: checkPackage,
  routineDifferences: readDifferences,
  runResults,
  runFiles: writeRunFiles,
  runZip: zipRun,
  runLeaks: findRunLeaks,
  tidy: readTidyPage,
  suggestions: readSuggestions,
};
