import { Preview, ImportMapping, Weave } from '@pebble/contract';
import type { CollectRun, Message, MessageOverview, Network, Step, Study } from '@pebble/contract';

/** Small values of the contract for tests. */
export const exampleStudy: Study = {
  id: 'ab12cd34ef',
  name: 'Lamps',
  createdAt: '2026-03-01T00:00:00.000Z',
  changedAt: '2026-03-02T12:30:00.000Z',
  messages: 1200,
  accounts: 300,
  networks: 1,
  latestNetwork: null,
  broken: null,
  goneAt: null,
};

export const exampleOverview: MessageOverview = {
  messages: 1200,
  accounts: 300,
  from: Date.UTC(2026, 2, 1),
  until: Date.UTC(2026, 2, 31),
  kinds: [{ kind: 'post', messages: 1200 }],
  languages: [],
  items: 0,
  follows: 0,
  names: 0,
  scorers: [],
  addressKinds: ['reply', 'mention'],
  hashtags: [],
  authors: [],
};

export function exampleStep(change: Partial<Step> = {}): Step {
  return {
    id: 7,
    study: exampleStudy.id,
    kind: 'weave',
    state: 'done',
    parameters: { atLeast: 2 },
    result: { nodes: 12 },
    sentence: 'A network was woven.',
    error: null,
    seed: null,
    startedAt: '2026-03-02T12:30:00.000Z',
    endedAt: '2026-03-02T12:30:01.000Z',
    duration: 1234,
    ...change,
  };
}

export function exampleNetwork(change: Partial<Network> = {}): Network {
  return {
    id: 'n1',
    study: exampleStudy.id,
    name: 'Replies of March',
    weave: Weave.parse({ what: 'accounts', kinds: ['reply'] }),
    directed: true,
    sentence: 'Accounts tied when one replies to another.',
    nodes: 12,
    edges: 20,
    messages: 40,
    state: 'measured',
    step: 3,
    columns: [],
    decisions: 0,
    stale: false,
    forgotten: 0,
    slice: null,
    changed: null,
    opened: null,
    whole: null,
    groupings: {},
    titles: {},
    measures: {},
    createdAt: '2026-03-02T12:30:00.000Z',
    ...change,
  };
}

export function exampleMessage(change: Partial<Message> = {}): Message {
  return {
    id: 1,
    key: 'm1',
    source: 'posts.csv',
    author: { id: 2, handle: 'ann', name: null },
    subject: null,
    text: 'The lamps are bright.',
    spans: [],
    time: Date.UTC(2026, 2, 1, 12),
    kind: 'post',
    parent: null,
    addressed: [],
    link: null,
    item: null,
    language: null,
    starred: false,
    scores: [],
    note: null,
    numbers: {},
    attributes: {},
    ...change,
  };
}

export function exampleRun(change: Partial<CollectRun> = {}): CollectRun {
  return {
    id: 'r1',
    study: exampleStudy.id,
    name: 'Search for lamps',
    service: { kind: 'hub', name: 'Tidepost', address: 'http://127.0.0.1:4621/hub' },
    plan: { what: 'search', query: 'lamps', language: '', from: null, until: null, most: 400 },
    state: 'running',
    counts: {
      requests: 28,
      messages: 312,
      items: 1,
      follows: 0,
      profiles: 0,
      repeated: 3,
      deleted: 4,
      wholeLists: 0,
      cutLists: 0,
      expandedLinks: 0,
      limited: 1,
      faults: 2,
      tokens: 1,
      waitedSeconds: 12,
    },
    share: null,
    waitUntil: null,
    notes: [],
    error: null,
    source: null,
    previous: null,
    createdAt: '2026-03-02T12:30:00.000Z',
    endedAt: null,
    ...change,
  };
}

export function exampleReading(change: Partial<ImportMapping> = {}): ImportMapping {
  return {
    ...ImportMapping.parse({
      format: 'csv',
      encoding: 'utf-8',
      delimiter: ',',
      dateForm: 'iso',
      columns: [
        { name: 'who', role: 'author' },
        { name: 'what', role: 'text' },
        { name: 'more', role: 'attribute' },
      ],
    }),
    ...change,
  };
}

export function examplePreview(change: Partial<Preview> = {}): Preview {
  return {
    ...Preview.parse({
      file: 'posts.csv',
      bytes: 2048,
      reading: exampleReading(),
      fixed: false,
      materials: ['messages', 'network'],
      sheets: [],
      network: null,
      reasons: ['A table with commas between its columns.'],
      rows: [['ann', 'hello', 'x']],
      missing: [],
      problems: [],
    }),
    ...change,
  };
}
