import { EvidenceQuery, MessageTies, Portrait } from '../evidence';
import { FigureQuery } from '../figure';
import { FollowedNodes, FollowedNodesQuery, Following, OverTime, OverTimeQuery } from '../following';
import { KeptLookList, SavedMap, SmallPicture } from '../map';
import { MessagePage } from '../message';
import { Network, NetworkPage } from '../network';
import { PageQuery } from '../page';
import { NodePictureList } from '../pictures';
import { FullPortrait, GroupMessagesQuery, GroupQuery, PortraitList, PortraitsQuery } from '../portraits';
import { Methods, MethodsQuery } from '../references';
import { SharedPageCheck, SharedPageQuery } from '../sharedPage';
import { DeletedList } from '../study';
import { Weave, WeaveEstimate } from '../weave';
import { Bytes, routeTable } from './route';

const ARROW = new Bytes(['application/vnd.apache.arrow.file']);
const NO_MESSAGES = { 409: 'There are no messages behind this network.' };

export const networkRoutes = routeTable({
  estimate: {
    method: 'post',
    path: '/studies/{study}/estimate',
    summary: 'How large a weave would be.',
    body: Weave,
    answer: WeaveEstimate,
  },
  looks: {
    method: 'get',
    path: '/looks',
    summary: 'Looks of maps that were kept by name.',
    answer: KeptLookList,
  },
  pictures: {
    method: 'get',
    path: '/studies/{study}/pictures',
    summary: 'Small pictures for nodes, by the name of the node.',
    answer: NodePictureList,
  },
  deleted: {
    method: 'get',
    path: '/studies/{study}/deleted',
    summary:
      'Networks that were deleted and sources that were taken out, with the day until which they can be taken back.',
    answer: DeletedList,
  },
  networks: {
    method: 'get',
    path: '/studies/{study}/networks',
    summary: 'The networks of a study, the newest first.',
    query: PageQuery,
    answer: NetworkPage,
  },
  network: {
    method: 'get',
    path: '/studies/{study}/networks/{network}',
    summary: 'One network.',
    answer: Network,
  },
  dailyTieCounts: {
    method: 'get',
    path: '/studies/{study}/networks/{network}/daily-tie-counts.arrow',
    summary: 'How many messages each tie has on each day (edge, day, messages), as an Apache Arrow file.',
    answer: ARROW,
  },
  table: {
    method: 'get',
    path: '/studies/{study}/networks/{network}/{table}.arrow',
    summary: 'Its table of nodes or of edges as an Apache Arrow file.',
    answer: ARROW,
    problems: { 410: 'The table is damaged; the problem says what to do.' },
  },
  savedMap: {
    method: 'get',
    path: '/studies/{study}/networks/{network}/map',
    summary: 'How its map is drawn.',
    answer: SavedMap,
  },
  positions: {
    method: 'get',
    path: '/studies/{study}/networks/{network}/positions',
    summary: 'x and y of every node as 32-bit floats, little-endian.',
    answer: new Bytes(['application/octet-stream']),
  },
  smallPicture: {
    method: 'get',
    path: '/studies/{study}/networks/{network}/small-picture',
    summary:
      'The map made small: places, sizes and colours of its larger nodes; null for one that was never arranged.',
    answer: SmallPicture.nullable(),
  },
  evidence: {
    method: 'get',
    path: '/studies/{study}/networks/{network}/evidence',
    summary: 'The messages behind a node, a tie (source and target) or a community; one of them is named.',
    query: EvidenceQuery,
    answer: MessagePage,
    problems: NO_MESSAGES,
  },
  portrait: {
    method: 'get',
    path: '/studies/{study}/networks/{network}/portrait/{community}',
    summary: 'The profile of a community.',
    answer: Portrait,
    problems: NO_MESSAGES,
  },
  portraits: {
    method: 'get',
    path: '/studies/{study}/networks/{network}/portraits',
    summary:
      'The groups of a column that were portrayed, with a sentence for each; null where none were, which the step portray-groups does.',
    query: PortraitsQuery,
    answer: PortraitList.nullable(),
  },
  groupPortrait: {
    method: 'get',
    path: '/studies/{study}/networks/{network}/group-portrait',
    summary: 'All that is known of a group that was portrayed, with the messages that stand for it.',
    query: GroupQuery,
    answer: FullPortrait,
  },
  groupMessages: {
    method: 'get',
    path: '/studies/{study}/networks/{network}/group-messages',
    summary: 'The messages that a number of a portrait counts.',
    query: GroupMessagesQuery,
    answer: MessagePage,
    problems: NO_MESSAGES,
  },
  following: {
    method: 'get',
    path: '/studies/{study}/networks/{network}/following',
    summary:
      'How the groups of the slices of a network go on through time; null where they were not followed, which the step follow-groups does.',
    answer: Following.nullable(),
  },
  followedNodes: {
    method: 'get',
    path: '/studies/{study}/networks/{network}/followed-nodes',
    summary:
      'The nodes of a group of a slice: all, or those that are in another group, or gone, in the next.',
    query: FollowedNodesQuery,
    answer: FollowedNodes,
  },
  overTime: {
    method: 'get',
    path: '/studies/{study}/networks/{network}/over-time',
    summary: 'What leads in the slices of a network, and what rises and falls over them beyond chance.',
    query: OverTimeQuery,
    answer: OverTime,
    problems: NO_MESSAGES,
  },
  messageTies: {
    method: 'get',
    path: '/studies/{study}/networks/{network}/message-ties/{message}',
    summary: 'The ties that a message made.',
    answer: MessageTies,
    problems: NO_MESSAGES,
  },
  exportNetwork: {
    method: 'get',
    path: '/studies/{study}/networks/{network}/export/{networkFormat}',
    summary: 'The network as a file.',
    answer: new Bytes([
      'application/graphml+xml',
      'text/csv',
      'text/plain',
      'text/vnd.graphviz',
      'application/json',
      'application/vnd.jgf+json',
      'application/vnd.apache.arrow.file',
      'application/vnd.apache.parquet',
      'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
    ]),
    problems: {
      409: 'This format cannot hold it, and the problem says which others can; or somebody has no pseudonym yet.',
    },
  },
  methods: {
    method: 'get',
    path: '/studies/{study}/networks/{network}/methods',
    summary:
      'How a network, and what is known of it, came about, in sentences, with the works that these cite.',
    query: MethodsQuery,
    answer: Methods,
  },
  sharedPage: {
    method: 'get',
    path: '/studies/{study}/networks/{network}/page.html',
    summary: 'The map as one HTML file that loads nothing, with what was chosen for it.',
    query: SharedPageQuery,
    answer: new Bytes(['text/html']),
    problems: {
      409: 'The map was never arranged, the page would be too large, or somebody has no pseudonym yet.',
    },
  },
  sharedPageCheck: {
    method: 'get',
    path: '/studies/{study}/networks/{network}/page-check',
    summary: 'How large such a page would be, and where people can be found in it who have pseudonyms.',
    query: SharedPageQuery,
    answer: SharedPageCheck,
    problems: { 409: 'The map was never arranged.' },
  },
  figure: {
    method: 'get',
    path: '/studies/{study}/networks/{network}/figure.{figureFormat}',
    summary:
      'The map as it was last arranged and described, with legend and caption; letters are shapes in SVG, and letters in PDF.',
    query: FigureQuery,
    answer: new Bytes(['image/svg+xml', 'image/png', 'application/pdf']),
    problems: { 409: 'The map was never arranged.' },
  },
});
