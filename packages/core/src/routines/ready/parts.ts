import type { WrittenRoutine } from '@pebble/contract';

type Question = NonNullable<WrittenRoutine['questions']>[number];
type Step = WrittenRoutine['steps'][number];

export const file = (ask: string): Question => ({ name: 'file', kind: 'file', ask });

export const least = (ask: string, value: number): Question => ({
  name: 'least',
  kind: 'number',
  ask,
  default: value,
  least: 1,
  whole: true,
});

export const PERIOD: readonly Question[] = [
  { name: 'from', kind: 'day', ask: 'From which day on?', default: null },
  { name: 'until', kind: 'day', ask: 'Before which day?', default: null },
];
/** The period in the recipe of a weave. */
export const INSIDE = { from: { ask: 'from' }, until: { ask: 'until' } };

export const SEED: Question = {
  name: 'seed',
  kind: 'number',
  ask: 'Which random seed?',
  default: 1,
  least: 0,
  whole: true,
};

/** Takes in the file, as it is read by itself. */
export const TAKE_IN: Step = {
  name: 'material',
  kind: 'import-source',
  parameters: { upload: { ask: 'file' }, file: { ask: 'file' }, name: { ask: 'file' } },
};

/** A network, arranged, and its map as a plate. */
export const mapped = (name: string, weave: object): Step[] => [
  { name: 'network', kind: 'weave', parameters: { name, weave } },
  {
    name: 'arrangement',
    kind: 'arrange-map',
    parameters: {
      network: { made: 'network' },
      layout: { seed: { ask: 'seed' } },
      upload: null,
      iterations: null,
      moved: 0,
    },
  },
  { name: 'plate', kind: 'keep-plate', parameters: { network: { made: 'network' }, title: name } },
];

/** The map, the network and the methods as files. */
export const RESULTS: WrittenRoutine['outputs'] = [
  { what: 'figure', of: 'plate', format: 'svg' },
  { what: 'network', of: 'network', format: 'graphml' },
  { what: 'network', of: 'network', format: 'csv-nodes' },
  { what: 'network', of: 'network', format: 'csv-ties' },
  { what: 'methods', of: 'network' },
];
