import { zachary } from '../testing/known';
import { modularity } from './modularity';

describe('modularity', () => {
  it('gives 0.3582 for the historical split of Zachary (1977)', () => {
    const { graph, reference } = zachary();
    const clubs = reference.mapNodes((_, attributes) => String(attributes['club']));
    expect(
      modularity(
        graph,
        clubs.map((club) => (club === clubs[0] ? 0 : 1)),
      ),
    ).toBeCloseTo(0.3582, 4);
  });

  it('is the sum over all pairs that Newman & Girvan (2004) define', () => {
    const { graph, names } = zachary();
    const group = names.map((_, v) => v % 3);
    const n = names.length;
    const tied = Array.from({ length: n }, () => new Float64Array(n));
    graph.source.forEach((s, e) => {
      tied[s][graph.target[e]] += 1;
      tied[graph.target[e]][s] += 1;
    });
    const degree = tied.map((row) => row.reduce((a, b) => a + b, 0));
    const twice = degree.reduce((a, b) => a + b, 0);
    let sum = 0;
    for (let a = 0; a < n; a++) {
      for (let b = 0; b < n; b++)
        if (group[a] === group[b]) sum += tied[a][b] - (degree[a] * degree[b]) / twice;
    }
    expect(modularity(graph, group)).toBeCloseTo(sum / twice, 12);
  });
});
