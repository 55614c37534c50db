import { defaultMap, type StepKind } from '@pebble/contract';

/** The map of a network as it is to begin with, to be kept as a plate. */
export const PLATE = {
  title: 'First',
  description: defaultMap,
  layout: null,
  iterations: null,
  moved: 0,
  view: null,
  selection: null,
};

/** Parameters of the kinds of step that name a network and nothing else, for tests that go through every kind. */
export const NETWORK_STEPS = {
  'share-arrangement': (network) => ({ network }),
  'measure-network': (network) => ({ network, settings: { seed: 5 } }),
  'measure-betweenness': (network) => ({ network, seed: 1 }),
  'answer-questions': (network) => ({ network, questions: ['basics', 'core'], settings: {} }),
  'describe-whole': (network) => ({ network, networks: 10 }),
  'group-nodes': (network) => ({ network, name: 'More groups', settings: { method: 'leiden' } }),
  regroup: (network) => ({ network, column: 'community', name: 'Renamed', rename: { '1': 'One' } }),
  'split-group': (network) => ({
    network,
    column: 'community',
    group: '1',
    name: 'Split',
    settings: { method: 'louvain' },
  }),
  'portray-groups': (network) => ({ network, column: 'community', settings: {} }),
  'note-group': (network) => ({ network, column: 'community', group: '1', notes: { title: 'Recorders' } }),
  'follow-groups': (network) => ({ network, column: 'community', settings: {} }),
  'export-portraits': (network) => ({ network, column: 'community', groups: ['1'], format: 'md' }),
  'scan-resolutions': (network) => ({ network, settings: { method: 'louvain' } }),
  'test-removal': (network) => ({ network, nodes: [0, 1, 2] }),
  'doubt-ranks': (network) => ({ network, measure: 'inDegree', runs: 20 }),
  'compute-column': (network) => ({ network, name: 'twice', formula: '2 * inDegree' }),
  'mark-nodes': (network) => ({ network, nodes: [0, 1], column: 'hand', value: 'chosen' }),
  'mark-audience': (network) => ({
    network,
    audience: { sort: 'hashtag', names: ['#Sallowmere'], inside: [0], outside: [] },
    column: 'audience',
    value: 'of the lamps',
  }),
  'change-network': (network) => ({
    network,
    name: 'Changed',
    changes: [{ what: 'without-nodes', nodes: [0] }],
  }),
  'rename-network': (network) => ({ network, name: 'Renamed' }),
  'delete-network': (network) => ({ network }),
  'restore-network': (network) => ({ network }),
  'arrange-map': (network) => ({ network, layout: {}, upload: null, iterations: null, moved: 0 }),
  'describe-map': (network) => ({ network, description: defaultMap }),
  'export-package': (network) => ({ network, files: 1 }),
  'export-page': (network) => ({ network, bytes: 1000 }),
  'export-report': (network) => ({ network, format: 'html' }),
  'export-figure': (network) => ({
    network,
    format: 'svg',
    width: 100,
    height: 100,
    resolution: 72,
    caption: '',
  }),
  'export-network': (network) => ({ network, format: 'graphml' }),
} as const satisfies Partial<Record<StepKind, (network: string) => object>>;

/** Them all on the network that something names. */
export function networkSteps<T>(networkOf: (of: T, kind: StepKind) => string) {
  return Object.fromEntries(
    Object.entries(NETWORK_STEPS).map(([kind, parameters]) => [
      kind,
      (of: T) => parameters(networkOf(of, kind as StepKind)),
    ]),
  ) as Record<keyof typeof NETWORK_STEPS, (of: T) => object>;
}
