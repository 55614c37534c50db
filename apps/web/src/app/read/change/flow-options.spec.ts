import type { Following } from '@pebble/contract';
import { flowOptions, lineColour, OTHERS } from './flow-options';

const group = (slice: number, line: string, nodes: number): Following['groups'][number] => ({
  slice,
  line,
  nodes,
  happening: 'begins',
  alike: null,
  before: null,
  splitFrom: null,
  joinedBy: [],
  gone: null,
});
const FOLLOWING: Following = {
  column: 'community',
  step: 1,
  settings: { threshold: 0.2, least: 3, patience: 1 },
  outOfDate: '',
  slices: [
    { network: 'a', title: 'March', nodes: 40, followed: 36 },
    { network: 'b', title: 'April', nodes: 30, followed: 30 },
  ],
  lines: [],
  groups: [group(0, '1', 20), group(0, '2', 10), group(1, '1', 18), group(1, '3', 12)],
  bands: [
    { slice: 0, from: '1', to: '1', nodes: 15 },
    { slice: 0, from: '2', to: '3', nodes: 6 },
    { slice: 0, from: '', to: '3', nodes: 2 },
  ],
  further: { lines: 4, nodes: 6 },
};

interface Sankey {
  readonly data: readonly { name: string; value: number; pick: unknown; itemStyle: { color: string } }[];
  readonly links: readonly { source: string; target: string; value: number; pick: unknown }[];
}
const drawn = (shown: number): Sankey =>
  (
    flowOptions(FOLLOWING, shown, (line) => `#${line}`, ['account', 'accounts'], { soft: '', ground: '' })
      .series as Sankey[]
  )[0];

describe('groups from slice to slice', () => {
  it('are as high as they have nodes; all that is followed is there', () => {
    const { data } = drawn(2);
    expect(data.map(({ name, value }) => [name, value])).toEqual([
      ['0 1', 20],
      ['0 2', 10],
      ['1 1', 18],
      [`1 ${OTHERS}`, 12],
      [`0 ${OTHERS}`, 6],
    ]);
    expect(data[0].itemStyle.color).toBe(lineColour('1'));
  });

  it('put bands of smaller groups together, which open nothing', () => {
    const { links } = drawn(2);
    expect(links.map(({ source, target, value }) => [source, target, value])).toEqual([
      ['0 1', '1 1', 15],
      ['0 2', `1 ${OTHERS}`, 6],
      [`0 ${OTHERS}`, `1 ${OTHERS}`, 2],
    ]);
    expect(links[0].pick).toEqual({ slice: 0, line: '1', to: '1' });
    expect(links[1].pick).toBeNull();
    expect(drawn(3).links[1].pick).toEqual({ slice: 0, line: '2', to: '3' });
  });
});
