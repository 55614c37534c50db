import type { DataKind, NetworkExport } from '@pebble/contract';
import { counted, joinWith } from '@pebble/core';
import { formatProblem } from '../../exports/formatProblem';
import { readNodeNames, withoutPseudonyms } from '../../people/publishedNames';
import { findNetwork } from '../../storage/networks';
import { findRun } from '../../storage/routineRuns';
import { StepRefused } from '../../errors/stepErrors';
import type { StepDefinition } from '../step';
import { allowedPhrase } from './allowedPhrase';

export const exportFigure: StepDefinition<'export-figure'> = {
  kind: 'export-figure',
  async run({ store }, { network }) {
    if (!(await findNetwork(store, network))) throw new StepRefused('This network is no longer there.');
    return {};
  },
  describe: ({ format, width, height, resolution, caption, plates, allowed }) =>
    `${plates.length > 0 ? `A page of ${counted(plates.length, 'plate')}` : 'The map'} was exported as ${format.toUpperCase()}, ${width} by ${height} pixels${format === 'png' ? ` at ${resolution} dots per inch` : ''}: “${caption}”${allowedPhrase(allowed)}`,
};

export const exportPage: StepDefinition<'export-page'> = {
  kind: 'export-page',
  async run({ store }, { network }) {
    if (!(await findNetwork(store, network))) throw new StepRefused('This network is no longer there.');
    return {};
  },
  describe({ title, messages, texts, bytes, allowed }) {
    const held = {
      none: 'without messages',
      counts: 'with numbers of messages',
      texts: `with texts of messages${texts === 'short' ? ', shortened' : ''}`,
    }[messages];
    return `The map was saved as a page of its own${title === '' ? '' : `, “${title}”`}, ${held} (${(bytes / 1e6).toFixed(1)} MB).${allowedPhrase(allowed)}`;
  },
};

const DOCUMENTS = { html: 'HTML', md: 'Markdown', docx: 'DOCX' } as const;

export const exportReport: StepDefinition<'export-report'> = {
  kind: 'export-report',
  async run({ store }, { network }) {
    if (!(await findNetwork(store, network))) throw new StepRefused('This network is no longer there.');
    return {};
  },
  describe({ title, plates, format, allowed }) {
    const what =
      plates.length > 0 ? `A report with ${counted(plates.length, 'plate')}` : 'A report of the map';
    return `${what} was saved as ${DOCUMENTS[format]}${title === '' ? '' : `, “${title}”`}.${allowedPhrase(allowed)}`;
  },
};

export const exportPackage: StepDefinition<'export-package'> = {
  kind: 'export-package',
  async run({ store }, { network }) {
    if (!(await findNetwork(store, network))) throw new StepRefused('This network is no longer there.');
    return {};
  },
  describe: ({ title, files, allowed }) =>
    `The network and its map were saved as a package of ${counted(files, 'file')}${title === '' ? '' : `, “${title}”`}.${allowedPhrase(allowed)}`,
};

const NAMES = {
  graphml: 'as GraphML',
  'csv-nodes': 'as a CSV table of its nodes',
  'csv-ties': 'as a CSV table of its ties',
  xlsx: 'as a workbook',
  gml: 'as GML',
  'json-graph': 'as JSON Graph',
  'node-link': 'as node-link JSON',
  dot: 'in the DOT language',
  'arrow-nodes': 'as an Arrow table of its nodes',
  'arrow-ties': 'as an Arrow table of its ties',
  'parquet-nodes': 'as a Parquet table of its nodes',
  'parquet-ties': 'as a Parquet table of its ties',
} as const satisfies Readonly<Record<NetworkExport, string>>;

export const exportNetwork: StepDefinition<'export-network'> = {
  kind: 'export-network',
  async run({ store }, { network, format }) {
    const found = await findNetwork(store, network);
    if (!found) throw new StepRefused('This network is no longer there.');
    const problem = formatProblem(format, found);
    if (problem) throw new StepRefused(problem);
    const { missing } = await readNodeNames(store, network);
    if (missing > 0) throw new StepRefused(withoutPseudonyms(missing));
    return { name: found.name, nodes: found.nodes, edges: found.edges };
  },
  describe: ({ format, allowed }) => `The network was exported ${NAMES[format]}.${allowedPhrase(allowed)}`,
};

const WHAT: Readonly<Record<DataKind, string>> = {
  messages: 'Messages were',
  accounts: 'Accounts were',
  items: 'Items were',
  decisions: 'Tidy decisions were',
  codebook: 'The codebook was',
  codings: 'What coders gave messages was',
  pseudonyms: 'The key to pseudonyms was',
  logbook: 'The logbook was',
};

/** The file itself is read from the study: the step says that it was taken out, and which part. */
export const exportData: StepDefinition<'export-data'> = {
  kind: 'export-data',
  run: () => Promise.resolve({}),
  describe({ what, format, filter }) {
    const chosen = Object.entries(filter)
      .filter(([, value]) => value !== undefined && value !== '')
      .map(([name, value]) => `${name} ${String(value)}`);
    const those = chosen.length > 0 ? `, those with ${joinWith('and', chosen)}` : '';
    return `${WHAT[what]} exported as ${format === 'csv' ? 'CSV' : 'JSON Lines'}${those}.`;
  },
};

export const exportRun: StepDefinition<'export-run', { readonly routine: string } & Record<string, unknown>> =
  {
    kind: 'export-run',
    async run({ store }, { routineRun }) {
      const run = await findRun(store, routineRun);
      if (!run) throw new StepRefused('This run is no longer there.');
      return { routine: run.routine.name };
    },
    describe: ({ routineRun, files, allowed }, result) =>
      `What run ${routineRun} of ${result ? `“${result.routine}”` : 'a routine'} gave was saved as ${counted(files, 'file')}.${allowedPhrase(allowed)}`,
  };
