import { defaultMap } from '@pebble/contract';
import { signalStore } from '@ngrx/signals';
import { NOTHING_DECIDED, redone, undone } from './undo';
import { withDecisions } from './with-decisions';
import { withSelection } from './with-selection';

const bigger = { ...defaultMap, size: { ...defaultMap.size, largest: 30 } };

describe('what is decided of a map', () => {
  const Decisions = signalStore(withDecisions());
  let map: InstanceType<typeof Decisions>;
  beforeEach(() => (map = new Decisions()));

  it('takes back and does again a change of the description', () => {
    map.describe(bigger);
    expect([map.description(), map.canUndo(), map.canRedo()]).toEqual([bigger, true, false]);
    map.undo();
    expect([map.description(), map.canUndo(), map.canRedo()]).toEqual([defaultMap, false, true]);
    map.redo();
    expect(map.description()).toEqual(bigger);
  });

  it('takes back a plan', () => {
    map.plan([{ what: 'without-nodes', nodes: [0] }]);
    map.undo();
    expect(map.planned()).toEqual([]);
  });

  it('takes back a move and keeps the moves before it', () => {
    map.moveNodes([3], [[5, 5]]);
    map.moveNodes([3], [[9, 9]]);
    expect(map.moves().get(3)).toEqual([9, 9]);
    map.undo();
    expect(map.moves().get(3)).toEqual([5, 5]);
    map.undo();
    expect(map.moves().size).toBe(0);
  });

  it('keeps where nodes were put, also when there are more moves than can be undone', () => {
    for (let node = 0; node < 260; node++) map.moveNodes([node], [[node, node]]);
    expect(map.past()).toHaveLength(200);
    expect(map.moves().size).toBe(260);
    expect(map.moves().get(3)).toEqual([3, 3]);
    for (let i = 0; i < 250; i++) map.undo();
    expect(map.moves().size).toBe(60);
  });

  it('forgets what could be done again when something new is done', () => {
    map.describe(bigger);
    map.undo();
    map.moveNodes([1], [[1, 1]]);
    expect(map.future()).toEqual([]);
  });

  it('does nothing when there is nothing to take back', () => {
    expect(undone(NOTHING_DECIDED)).toBe(NOTHING_DECIDED);
    expect(redone(NOTHING_DECIDED)).toBe(NOTHING_DECIDED);
  });
});

describe('what is selected', () => {
  const Selected = signalStore(withSelection());
  let map: InstanceType<typeof Selected>;
  beforeEach(() => (map = new Selected()));

  it('is no node, one, or several', () => {
    const chosen = (nodes: number[]) => {
      map.chooseNodes(nodes);
      return [map.selection(), map.chosen()];
    };
    expect(chosen([])).toEqual([null, []]);
    expect(chosen([3])).toEqual([{ what: 'node', node: 3 }, [3]]);
    expect(chosen([3, 5])).toEqual([{ what: 'nodes', nodes: [3, 5] }, [3, 5]]);
  });

  it('is one thing at a time', () => {
    map.selectNode(2);
    map.markMessage(7, [{ source: 0, target: 1 }]);
    map.selectTie({ source: 1, target: 2 });
    expect([map.selection(), map.marked()]).toEqual([{ what: 'tie', source: 1, target: 2 }, null]);
  });
});
