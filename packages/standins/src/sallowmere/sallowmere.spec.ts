import { adjustedRand, communities, makeGraph, betweenness, outRows, degrees, findSpans } from '@pebble/core';
import { makePosts, type DemoMaterial } from './posts';

/** The network of who addresses whom, from what the generator drafted and the texts say. */
function network({ posts }: DemoMaterial) {
  const number = new Map<string, number>();
  const node = (handle: string): number => {
    if (!number.has(handle)) number.set(handle, number.size);
    return number.get(handle)!;
  };
  const pairs = new Set<string>();
  for (const post of posts) {
    const author = node(post.author);
    const addressed = new Set(
      findSpans(post.text)
        .filter((s) => s.what === 'mention')
        .map((s) => s.key),
    );
    if (post.in_reply_to_handle) addressed.add(post.in_reply_to_handle);
    for (const handle of addressed) if (handle !== post.author) pairs.add(`${author} ${node(handle)}`);
  }
  const ties = [...pairs].map((pair) => pair.split(' ').map(Number));
  return {
    graph: makeGraph(
      number.size,
      ties.map(([s]) => s),
      ties.map(([, t]) => t),
    ),
    handles: [...number.keys()],
  };
}

describe('the Sallowmere posts', () => {
  const material = makePosts();
  const { posts, truth } = material;
  const { graph, handles } = network(material);

  it('are the same every time, and others for another seed', () => {
    expect(makePosts().posts).toEqual(posts);
    expect(makePosts(500, 7).posts).not.toEqual(makePosts(500, 8).posts);
  });

  it('are as many as asked for, in order of the story, with distinct ids', () => {
    expect(posts).toHaveLength(9000);
    expect(new Set(posts.map((post) => post.id)).size).toBe(9000);
    expect(truth.accounts).toBeGreaterThan(1250);
    const times = posts.map((post) => Date.parse(post.created_at));
    expect(Math.min(...times)).toBeGreaterThanOrEqual(Date.UTC(2026, 2, 1));
    expect(Math.max(...times)).toBeLessThan(Date.UTC(2026, 5, 1));
  });

  it('have the ties that the generator wrote down, when they are read from the texts', () => {
    expect(graph.nodeCount).toBe(truth.accounts);
    expect(graph.source.length).toBe(truth.ties.all);
    const { degree } = degrees(graph);
    expect(degree.filter((d) => d === 0)).toHaveLength(truth.isolates);
  });

  it('have groups that communities find again', () => {
    const found = communities(graph, { resolution: 1, seed: 1, runs: 5 });
    const { degree } = degrees(graph);
    const names = ['moths', 'stars', 'night', 'pilots', 'traders', 'council', 'ring'];
    const kept = handles
      .map((_, v) => v)
      .filter((v) => degree[v] > 0 && names.includes(truth.group[handles[v]]));
    expect(
      adjustedRand(
        kept.map((v) => found.of[v]),
        kept.map((v) => names.indexOf(truth.group[handles[v]])),
      ),
    ).toBeGreaterThan(0.9);
  });

  it('have a loud account, first by in-degree and low by betweenness, and a driver high by betweenness', () => {
    const { inDegree } = degrees(graph);
    const between = betweenness(outRows(graph), { directed: true });
    const rank = (values: ArrayLike<number>, handle: string): number =>
      Array.from(values).filter((v) => v > values[handles.indexOf(handle)]).length + 1;
    expect(rank(inDegree, truth.loud)).toBe(1);
    expect(rank(between, truth.loud)).toBeGreaterThan(100);
    expect(rank(between, truth.driver)).toBeLessThanOrEqual(5);
  });

  it('have a ring that posts the same sentence within minutes', () => {
    const ring = new Set(truth.ring);
    const byText = new Map<string, number[]>();
    for (const post of posts) {
      if (!ring.has(post.author) || post.text.startsWith('Well said')) continue;
      byText.set(post.text, [...(byText.get(post.text) ?? []), Date.parse(post.created_at)]);
    }
    const waves = [...byText.values()].filter((times) => times.length >= 10);
    expect(waves.length).toBeGreaterThan(5);
  });

  it('let moth recorders and night workers meet only through the driver', () => {
    const group = (v: number): string => (handles[v] === truth.driver ? 'driver' : truth.group[handles[v]]);
    const across = graph.source.filter(
      (s, e) => [group(s), group(graph.target[e])].sort().join() === 'moths,night',
    );
    expect(across).toHaveLength(0);
  });
});
