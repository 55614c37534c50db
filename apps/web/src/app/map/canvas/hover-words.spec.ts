import { nodeHover, tieHover } from './hover-words';

const accounts = {
  nodeCount: 2,
  nodes: {
    handle: ['ann', 'ben'],
    messages: Float64Array.of(3, 1),
    inDegree: Uint32Array.of(1, 0),
    outDegree: Uint32Array.of(0, 1),
    betweenness: Float64Array.of(0.25, 0),
    community: Uint32Array.of(1, 1),
  },
  edges: { source: Uint32Array.of(1), target: Uint32Array.of(0), weight: Float64Array.of(1) },
};
const { inDegree: _in, outDegree: _out, ...undirected } = accounts.nodes;
const shares = {
  ...accounts,
  nodes: { ...undirected, degree: Uint32Array.of(1, 1) },
  edges: { ...accounts.edges, weight: Float64Array.of(0.125) },
};

describe('what is told under the pointer', () => {
  it('says of an account who addresses it, and of others how many ties they have', () => {
    expect(nodeHover(accounts, 0)).toEqual({
      title: 'ann',
      lines: ['addressed by 1, addresses 0', 'betweenness 0.250 · community 1'],
    });
    expect(nodeHover(shares, 1).lines[0]).toBe('ties: 1');
    // Betweenness of a large network comes later.
    const { betweenness: _later, ...nodes } = accounts.nodes;
    expect(nodeHover({ ...accounts, nodes }, 0).lines[1]).toBe('community 1');
  });

  it('says of a tie its ends and its messages, or its weight where that is no number of messages', () => {
    expect(tieHover(accounts, 0, true)).toEqual({ title: 'ben → ann', lines: ['1 message'] });
    expect(tieHover(shares, 0, false)).toEqual({ title: 'ben – ann', lines: ['weight 0.125'] });
  });

  it('says the number of a tie that colours it, where it has one', () => {
    const blamed = { ...accounts, edges: { ...accounts.edges, blame: Float64Array.of(0.5) } };
    expect(tieHover(blamed, 0, true, 'blame').lines).toEqual(['1 message', 'blame: 0.500']);
    expect(tieHover(blamed, 0, true, 'weight').lines).toEqual(['1 message']);
    expect(tieHover(accounts, 0, true, 'blame').lines).toEqual(['1 message']);
  });

  it('does not call messages what hands added', () => {
    const byHand = (done: string) => ({ ...accounts, edges: { ...accounts.edges, 'by hand': [done] } });
    expect(tieHover(byHand('added'), 0, true).lines).toEqual(['weight 1, by hand']);
    expect(tieHover(byHand('made stronger'), 0, true).lines).toEqual(['weight 1, by hand']);
    expect(tieHover(byHand('merged'), 0, true).lines).toEqual(['1 message']);
  });
});
