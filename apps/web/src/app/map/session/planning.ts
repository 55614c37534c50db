import { computed, inject, type Signal } from '@angular/core';
import type { NetworkChange } from '@pebble/contract';
import { nodeLabels, plannedPhrase } from '@pebble/core';
import { MapSession } from './map-session';

/** What is to be changed in the open network: the plan, in words too, and how to add to it and take from it. */
interface Planning {
  readonly changes: Signal<readonly NetworkChange[]>;
  readonly phrases: Signal<readonly string[]>;
  readonly add: (...changes: readonly NetworkChange[]) => void;
  readonly replace: (at: number, change: NetworkChange) => void;
  readonly drop: (at: number) => void;
  readonly clear: () => void;
}

/** Where fields are made. */
export function planning(): Planning {
  const session = inject(MapSession);
  const changes = session.planned;
  const plan = (planned: readonly NetworkChange[]): void => session.plan(planned);
  return {
    changes,
    phrases: computed(() => {
      const data = session.data();
      if (!data) return [];
      const labels = nodeLabels(data.nodes);
      const added = changes().flatMap((change) => (change.what === 'new-node' ? [change.name] : []));
      const nameOf = (node: number): string => labels[node] ?? added[node - labels.length] ?? '?';
      return changes().map((change) => plannedPhrase(change, nameOf, session.network()?.directed ?? true));
    }),
    add: (...added) => plan([...changes(), ...added]),
    replace: (at, change) => plan(changes().with(at, change)),
    drop: (at) => plan(withoutChange(changes(), at, session.data()?.nodeCount ?? 0)),
    clear: () => plan([]),
  };
}

/** Without one change; with a node that is not added after all go its ties, and later ones get its number. */
export function withoutChange(
  changes: readonly NetworkChange[],
  at: number,
  nodes: number,
): readonly NetworkChange[] {
  const left = changes.filter((_, i) => i !== at);
  if (changes[at].what !== 'new-node') return left;
  const gone = nodes + changes.slice(0, at).filter(({ what }) => what === 'new-node').length;
  const now = (node: number): number => (node > gone ? node - 1 : node);
  return left.flatMap((change): NetworkChange[] => {
    if (change.what !== 'new-tie') return [change];
    if (change.source === gone || change.target === gone) return [];
    return [{ ...change, source: now(change.source), target: now(change.target) }];
  });
}
