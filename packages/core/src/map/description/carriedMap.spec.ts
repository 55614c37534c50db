import { Condition, defaultMap } from '@pebble/contract';
import { TAKEN_OUT } from '../../network/changes';
import { carriedMap } from './carriedMap';

describe('a map carried to a network with other numbers', () => {
  // Node 0 was taken out, 2 became a part of 1.
  const became = Uint32Array.of(TAKEN_OUT, 0, 0, 1);
  const note = (at: (typeof defaultMap.notes)[number]['at']) => ({ text: 'see', at, dx: 1, dy: 2 });

  it('gives held nodes, names, outlines, notes and conditions their new numbers', () => {
    const map = carriedMap(
      {
        ...defaultMap,
        held: [0, 1, 2, 3],
        names: { ...defaultMap.names, placed: [0, 3].map((node) => ({ node, dx: 5, dy: 5 })) },
        regions: {
          ...defaultMap.regions,
          own: [
            { title: 'Harbour', nodes: [2, 3] },
            { title: 'Gone', nodes: [0] },
          ],
          strokes: [
            { title: 'Quay', width: 30, points: [0, 3].map((near) => ({ near, dx: 1, dy: 1 })) },
            { title: 'Gone', width: 30, points: [{ near: 0, dx: 1, dy: 1 }] },
          ],
        },
        notes: [
          note({ what: 'node', node: 0 }),
          note({ what: 'node', node: 3 }),
          note({ what: 'tie', source: 1, target: 2 }),
          note({ what: 'tie', source: 1, target: 3 }),
        ],
        show: {
          ...defaultMap.show,
          communities: [2],
          where: { joined: 'or', conditions: [Condition.parse({ what: 'chosen', nodes: [0, 2] })] },
        },
      },
      became,
    );
    expect(map.held).toEqual([0, 1]);
    expect(map.names.placed).toEqual([{ node: 1, dx: 5, dy: 5 }]);
    expect(map.regions.own).toEqual([{ title: 'Harbour', nodes: [0, 1] }]);
    expect(map.regions.strokes).toEqual([{ title: 'Quay', width: 30, points: [{ near: 1, dx: 1, dy: 1 }] }]);
    expect(map.notes.map(({ at }) => at)).toEqual([
      { what: 'node', node: 1 },
      { what: 'tie', source: 0, target: 1 },
    ]);
    expect(map.show.communities).toBeNull();
    expect(map.show.where).toEqual({
      joined: 'or',
      conditions: [{ what: 'chosen', nodes: [0], not: false }],
    });
  });
});
