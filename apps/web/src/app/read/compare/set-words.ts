import type { MessageSet, Network, Source } from '@pebble/contract';
import { filterPhrase, periodPhrase } from '@pebble/core';

/** What sets are called. */
interface SetNames {
  readonly networks: readonly Network[];
  readonly sources: readonly Source[];
}

/** A set of messages in words: "messages of 1 March to 31 March 2026", "#mothcount in Who answers whom". */
export function setWords(set: MessageSet, { networks, sources }: SetNames): string {
  const nameOf = (id: string): string =>
    networks.find((one) => one.id === id)?.name ?? 'a network that is gone';
  switch (set.what) {
    case 'network':
      return `messages behind “${nameOf(set.network)}”`;
    case 'group': {
      const titles = networks.find(({ id }) => id === set.network)?.titles[set.column];
      return `${titles?.[set.group] ?? `${set.column} ${set.group}`} in “${nameOf(set.network)}”`;
    }
    case 'filter': {
      const { from, until, source, ...rest } = set.filter;
      const isTimeAlone = Object.values(rest).every((value) => value === undefined || value === '');
      const when = from === undefined && until === undefined ? '' : periodPhrase(from ?? null, until ?? null);
      const where =
        source === undefined
          ? ''
          : ` of ${sources.find(({ id }) => id === source)?.name ?? 'a source that is gone'}`;
      if (isTimeAlone && when) return `messages${where}, ${when}`;
      return `${filterPhrase(rest)}${where}${when ? `, ${when}` : ''}`;
    }
  }
}
