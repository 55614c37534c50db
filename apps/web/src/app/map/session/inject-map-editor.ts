import { computed, inject } from '@angular/core';
import type { MapDescription } from '@pebble/contract';
import { groupingsOf } from './grouping';
import { MapSession } from './map-session';

/** The parts of a description that settings change. */
type Part = Exclude<keyof MapDescription, 'held' | 'notes'>;

/** What settings of a map need: the description, how to change a part of it, and the columns it may go by. Where fields are made. */
export function injectMapEditor() {
  const session = inject(MapSession);
  const columns = computed(() => {
    const nodes = session.data()?.nodes ?? {};
    return (session.network()?.columns ?? []).filter(({ name }) => name in nodes);
  });
  return {
    session,
    description: session.description,
    columns,
    numberColumns: computed(() => columns().filter(({ type }) => type === 'number')),
    groupColumns: computed(() => groupingsOf(session.network(), session.data())),
    how: (name: string): string => columns().find((one) => one.name === name)?.how ?? '',
    set<K extends Part>(part: K, change: Partial<MapDescription[K]>): void {
      const before = session.description();
      const description = { ...before, [part]: { ...before[part], ...change } };
      session.describe(description);
    },
  };
}

export function clamp(value: number, least: number, most: number): number {
  return Math.min(most, Math.max(least, Math.round(value) || least));
}
