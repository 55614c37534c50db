import { findNetwork } from '../db/networks';
import { StepRefused, type StepDefinition } from './step';

export const exportFigure: StepDefinition<'export-figure'> = {
  kind: 'export-figure',
  async run({ store }, { network }) {
    if (!(await findNetwork(store, network))) throw new StepRefused('This network is no longer there.');
    return {};
  },
  describe: ({ format, width, height, resolution, caption }) =>
    `The map was exported as ${format.toUpperCase()}, ${width} by ${height} pixels${format === 'png' ? ` at ${resolution} dots per inch` : ''}: “${caption}”`,
};

const NAMES = {
  graphml: 'as GraphML',
  'csv-nodes': 'as a CSV table of its nodes',
  'csv-ties': 'as a CSV table of its ties',
} as const;

export const exportNetwork: StepDefinition<'export-network'> = {
  kind: 'export-network',
  async run({ store }, { network }) {
    const found = await findNetwork(store, network);
    if (!found) throw new StepRefused('This network is no longer there.');
    return { name: found.name, nodes: found.nodes, edges: found.edges };
  },
  describe: ({ format }) => `The network was exported ${NAMES[format]}.`,
};
