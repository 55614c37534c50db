import { readFileSync } from 'node:fs';
import { defaultMap } from '@pebble/contract';
import { buildScene, fitView, paintSvg, PAPER, prepareMap, Random, type Scene } from '@pebble/core';
import { paintPdf } from '@pebble/core/pdf';
import { lettersFor } from '../../apps/server/src/exports/fontFiles';
import { atMost, time, under, type Row } from './measure';

const NODES = 5000;
const TIES = 25_000;
const SIZE = { width: 1280, height: 760 };

/** A map of groups that lie apart, most ties within them. */
function makeScene(): Scene {
  const random = new Random(1);
  const group = (v: number): number => v % 9;
  const near = (middle: number): number => middle + 160 * (random.real() + random.real() - 1);
  const x = Float32Array.from({ length: NODES }, (_, v) => near(400 * Math.cos(group(v))));
  const y = Float32Array.from({ length: NODES }, (_, v) => near(400 * Math.sin(group(v))));
  const source = Uint32Array.from({ length: TIES }, () => random.below(NODES));
  const target = source.map((a) =>
    random.chance(0.85) ? (a + 9 * random.below(500)) % NODES : random.below(NODES),
  );
  const map = prepareMap(
    {
      nodeCount: NODES,
      nodes: {
        handle: Array.from({ length: NODES }, (_, v) => `account_${v}`),
        community: Uint32Array.from({ length: NODES }, (_, v) => 1 + group(v)),
        inDegree: Uint32Array.from({ length: NODES }, () => random.below(200)),
        betweenness: Float64Array.from({ length: NODES }, () => random.real()),
      },
      edges: { source, target, weight: new Float64Array(TIES).fill(1) },
    },
    defaultMap,
  );
  return buildScene({
    map,
    x,
    y,
    view: fitView(x, y, map.radius, map.nodes, SIZE),
    size: SIZE,
    theme: PAPER,
    focus: null,
  });
}

/** A figure as PDF beside the same one as SVG. */
export async function figures(): Promise<Row[]> {
  const scene = makeScene();
  const letters = await lettersFor([...scene.texts, ...scene.legend.texts]);
  let [svg, pdf] = [0, 0];
  const reference = await time(4, () => (svg = paintSvg(scene, { width: 1800, letters }).length));
  const ours = await time(4, async () => {
    const bytes = await paintPdf(scene, {
      width: 1800,
      resolution: 300,
      letters,
      readFont: (address) => Promise.resolve(readFileSync(address)),
      title: 'Map',
      told: { short: 'A map.', long: 'Of made-up accounts.' },
      made: new Date(0),
    });
    pdf = bytes.length;
  });
  const work = '5,000 nodes, 25,000 ties';
  return [
    atMost('A figure as PDF', work, ours, reference, 2, 'reference: the same as SVG'),
    under('Its size', work, pdf / 1e6, 30, 'MB', `the SVG ${(svg / 1e6).toFixed(1)} MB`),
  ];
}
