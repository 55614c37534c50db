import type { Following } from '@pebble/contract';
import { OTHER_COLOUR, type OneAndMany } from '@pebble/core';
import { counted } from '@pebble/core/first';
import type { EChartsCoreOption } from 'echarts/core';
import { groupColour } from '../common/group-colour';

/** A line in a slice, or what goes from there to a line in the next one. */
export interface FlowPick {
  readonly slice: number;
  readonly line: string;
  /** The line in the next slice; null for all. */
  readonly to: string | null;
}

/** All lines that have no place of their own. */
export const OTHERS = 'others';

/** Room for the titles of lines, left and right of the slices. */
export const SIDE = 150;

/** The colour of a line, on maps as in charts. */
export function lineColour(line: string): string {
  return groupColour(Number(line) - 1);
}

/** The slices beside each other, in each the lines as high as they have nodes, and between them bands of the nodes that go from one to the other. */
export function flowOptions(
  following: Following,
  shown: number,
  titleOf: (line: string) => string,
  words: OneAndMany,
  { soft, ground }: { readonly soft: string; readonly ground: string },
): EChartsCoreOption {
  const own = (line: string): string => (line !== '' && Number(line) <= shown ? line : OTHERS);
  const nodes = new Map<string, { slice: number; line: string; value: number }>();
  for (const { slice, line, nodes: value } of following.groups) {
    const key = `${slice} ${own(line)}`;
    const before = nodes.get(key);
    if (before) before.value += value;
    else nodes.set(key, { slice, line: own(line), value });
  }
  // Lines of which nothing is told are among the smaller ones.
  following.slices.forEach(({ followed }, slice) => {
    const told = [...nodes.values()].filter((one) => one.slice === slice);
    const rest = followed - told.reduce((sum, { value }) => sum + value, 0);
    const others = nodes.get(`${slice} ${OTHERS}`);
    if (others) others.value += rest;
    else if (rest > 0) nodes.set(`${slice} ${OTHERS}`, { slice, line: OTHERS, value: rest });
  });
  const links = new Map<string, FlowPick & { value: number }>();
  for (const { slice, from, to, nodes: value } of following.bands) {
    const key = `${slice} ${own(from)} ${own(to)}`;
    const before = links.get(key);
    if (before) before.value += value;
    else links.set(key, { slice, line: own(from), to: own(to), value });
  }
  const last = following.slices.length - 1;
  const firstOf = new Map<string, number>();
  for (const { slice, line } of nodes.values())
    firstOf.set(line, Math.min(slice, firstOf.get(line) ?? slice));
  return {
    tooltip: {
      confine: true,
      formatter: ({ data }: { data: { words: string } }) => data.words,
    },
    series: [
      {
        type: 'sankey',
        left: SIDE,
        right: SIDE,
        top: 6,
        bottom: 6,
        nodeWidth: 12,
        nodeGap: 8,
        nodeAlign: 'left',
        layoutIterations: 0,
        draggable: false,
        emphasis: { focus: 'adjacency' },
        lineStyle: { color: 'source', opacity: 0.32 },
        label: { color: soft, fontSize: 12 },
        data: [...nodes].map(([name, { slice, line, value }]) => ({
          name,
          depth: slice,
          value,
          pick: line === OTHERS ? null : { slice, line, to: null },
          words: `${titleIn(line, titleOf)} in ${following.slices[slice].title}: ${counted(value, ...words)}`,
          itemStyle: { color: line === OTHERS ? OTHER_COLOUR : lineColour(line), borderWidth: 0 },
          label: {
            // A line is named where it begins, and once more at the end.
            show: slice === firstOf.get(line) || slice === last,
            position: slice === 0 ? 'left' : 'right',
            // Within the chart bands run below it.
            textBorderColor: ground,
            textBorderWidth: slice === 0 || slice === last ? 0 : 3,
            width: slice === 0 || slice === last ? SIDE - 16 : 110,
            overflow: 'truncate',
            formatter: () => titleIn(line, titleOf),
          },
        })),
        links: [...links.values()].map(({ slice, line, to, value }) => ({
          source: `${slice} ${line}`,
          target: `${slice + 1} ${to}`,
          value,
          pick: line === OTHERS || to === OTHERS ? null : { slice, line, to },
          words: `${counted(value, ...words)} from ${titleIn(line, titleOf)} in ${following.slices[slice].title} to ${titleIn(to!, titleOf)} in ${following.slices[slice + 1].title}`,
        })),
      },
    ],
  };
}

function titleIn(line: string, titleOf: (line: string) => string): string {
  return line === OTHERS ? 'smaller groups' : titleOf(line);
}
