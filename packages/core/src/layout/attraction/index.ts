import { LayoutSettings } from '@pebble/contract';
import type { Graph } from '../../graph/graph';
import type { Running } from '../common/running';
import type { Beginning, LayoutKind } from '../kind';
import { Attraction } from './attraction';
import { multilevelStart } from './multilevel';

/** Parts with more nodes begin from smaller pictures of themselves. */
const LARGE = 1500;

const USUAL = LayoutSettings.parse({});

function* begin(graph: Graph, settings: LayoutSettings): Generator<Beginning, Running> {
  const start = graph.nodeCount > LARGE ? yield* multilevelStart(graph, settings) : null;
  return new Attraction(graph, { ...settings, start });
}

export const attraction: LayoutKind = {
  method: 'attraction',
  phrase: 'by attraction',
  says: 'Ties attract, all nodes repel each other: what is much tied stands near. For networks of any size.',
  source: 'Noack 2009; Jacomy et al. 2014',
  goesBy: 'nothing',
  isByChance: true,
  settingWords: ({ apart, weights, hubs, gravity, repulsion }) => [
    ...(apart === 'usual' ? [] : [`communities pulled ${apart} apart`]),
    ...(weights === 'none' ? ['weights of ties left out'] : []),
    ...(weights === 'whole' ? ['ties pull by their whole weight'] : []),
    ...(hubs === 'rim' ? ['nodes with many ties pushed to the rim'] : []),
    ...(hubs === 'middle' ? ['nodes with many ties drawn to the middle'] : []),
    ...(gravity === USUAL.gravity ? [] : [`pull towards the middle ${gravity}`]),
    ...(repulsion === USUAL.repulsion ? [] : [`push between nodes ${repulsion}`]),
  ],
  how: { begin },
};
