import { inRows, outRows, withoutSelfLoops } from '../../graph/csr';
import { makeGraph } from '../../graph/graph';
import { reciprocatedShare } from './reciprocated';

describe('the reciprocated share', () => {
  it('counts partners with ties both ways among all partners', () => {
    // 0 and 1 both ways, 0 to 2, 3 to 0, 4 alone.
    const graph = makeGraph(5, [0, 1, 0, 3], [1, 0, 2, 0]);
    const found = reciprocatedShare(withoutSelfLoops(outRows(graph)), withoutSelfLoops(inRows(graph)));
    expect([...found]).toEqual([1 / 3, 1, 0, 0, NaN]);
  });
});
