import { defaultMap } from '@pebble/contract';
import { MapActions } from './map.actions';
import { mapEditing, type MapState } from './map.reducer';

const { reducer } = mapEditing;
const bigger = { ...defaultMap, size: { ...defaultMap.size, largest: 30 } };

describe('map editing', () => {
  let state: MapState;

  beforeEach(() => {
    state = reducer(undefined, MapActions.opened({ network: 'n', description: defaultMap }));
  });

  it('takes back and does again a change of the description', () => {
    state = reducer(state, MapActions.descriptionChanged({ description: bigger }));
    expect(state.description).toEqual(bigger);
    state = reducer(state, MapActions.undoRequested());
    expect(state.description).toEqual(defaultMap);
    state = reducer(state, MapActions.redoRequested());
    expect(state.description).toEqual(bigger);
  });

  it('takes back a move and keeps the moves before it', () => {
    state = reducer(state, MapActions.nodesMoved({ nodes: [3], to: [[5, 5]] }));
    state = reducer(state, MapActions.nodesMoved({ nodes: [3], to: [[9, 9]] }));
    expect(mapEditing.selectMoves.projector(state.settled, state.past).get(3)).toEqual([9, 9]);
    state = reducer(state, MapActions.undoRequested());
    expect(mapEditing.selectMoves.projector(state.settled, state.past).get(3)).toEqual([5, 5]);
    state = reducer(state, MapActions.undoRequested());
    expect(mapEditing.selectMoves.projector(state.settled, state.past).size).toBe(0);
  });

  it('keeps where nodes were put, also when there are more moves than can be undone', () => {
    for (let node = 0; node < 260; node++)
      state = reducer(state, MapActions.nodesMoved({ nodes: [node], to: [[node, node]] }));
    const moves = () => mapEditing.selectMoves.projector(state.settled, state.past);
    expect(state.past).toHaveLength(200);
    expect(moves().size).toBe(260);
    expect(moves().get(3)).toEqual([3, 3]);
    for (let i = 0; i < 250; i++) state = reducer(state, MapActions.undoRequested());
    expect(moves().size).toBe(60);
    state = reducer(state, MapActions.opened({ network: 'other', description: defaultMap }));
    expect(moves().size).toBe(0);
  });

  it('takes back an arrangement with what hands had moved on the one before', () => {
    const moves = () => mapEditing.selectMoves.projector(state.settled, state.past);
    state = reducer(state, MapActions.nodesMoved({ nodes: [1, 2], to: [[1, 1], [2, 2]] })); // prettier-ignore
    state = reducer(state, MapActions.arranged({ before: 0, after: 1, kept: false }));
    expect([state.arrangement, moves().size]).toEqual([1, 0]);
    state = reducer(state, MapActions.undoRequested());
    expect([state.arrangement, moves().size]).toEqual([0, 2]);
    state = reducer(state, MapActions.redoRequested());
    state = reducer(state, MapActions.nodesMoved({ nodes: [4], to: [[4, 4]] }));
    state = reducer(state, MapActions.arranged({ before: 1, after: 2, kept: true }));
    expect([...moves()]).toEqual([[4, [4, 4]]]);
  });

  it('chooses no node, one, or several', () => {
    const chosen = (nodes: number[]) => reducer(state, MapActions.nodesChosen({ nodes })).selection;
    expect(chosen([])).toBeNull();
    expect(chosen([3])).toEqual({ what: 'node', node: 3 });
    expect(chosen([3, 5])).toEqual({ what: 'nodes', nodes: [3, 5] });
  });

  it('forgets what could be done again when something new is done', () => {
    state = reducer(state, MapActions.descriptionChanged({ description: bigger }));
    state = reducer(state, MapActions.undoRequested());
    state = reducer(state, MapActions.nodesMoved({ nodes: [1], to: [[1, 1]] }));
    expect(state.future).toEqual([]);
  });

  it('does nothing when there is nothing to take back', () => {
    expect(reducer(state, MapActions.undoRequested())).toBe(state);
    expect(reducer(state, MapActions.redoRequested())).toBe(state);
  });

  it('selects one thing at a time', () => {
    state = reducer(state, MapActions.nodeSelected({ node: 2 }));
    state = reducer(state, MapActions.messageSelected({ message: 7, ties: [{ source: 0, target: 1 }] }));
    state = reducer(state, MapActions.tieSelected({ source: 1, target: 2 }));
    expect(state.selection).toEqual({ what: 'tie', source: 1, target: 2 });
    expect(state.marked).toBeNull();
  });
});
