import type { ComponentChildren } from 'preact';
import { whole } from './held';
import { labels, picked, size, view } from './looking';

/** Near enough to tell a node from its neighbours. */
const NEAR = 0.8;
const EDGE = 60;

/** Picks a node, and moves the map so that it is on it; one that is there already stays where it is. */
export function goTo(node: number): void {
  picked.value = { what: 'node', node };
  const now = view.value;
  if (!now) return;
  const { width, height } = size.value;
  const [x, y] = [whole.x[node], whole.y[node]];
  const [sx, sy] = [x * now.scale + now.x, y * now.scale + now.y];
  const isThere = sx > EDGE && sy > EDGE && sx < width - EDGE && sy < height - EDGE;
  if (isThere && now.scale >= NEAR / 4) return;
  const scale = Math.max(now.scale, NEAR);
  view.value = { scale, x: width / 2 - x * scale, y: height / 2 - y * scale };
}

interface NodeListProps {
  readonly nodes: readonly number[];
  /** What stands behind a node. @param at its place in the list */
  readonly behind?: (at: number) => ComponentChildren;
  readonly gone?: () => void;
}

/** Nodes to go to, by what they are called. */
export function NodeList({ nodes, behind, gone }: NodeListProps) {
  return (
    <ul class="nodes">
      {nodes.map((node, at) => (
        <li key={at}>
          <button
            type="button"
            class="link"
            onClick={() => {
              goTo(node);
              gone?.();
            }}
          >
            {labels[node]}
          </button>{' '}
          {behind?.(at)}
        </li>
      ))}
    </ul>
  );
}
