import type { Network } from '@pebble/contract';
import { readTable } from '../storage/files/tables';
import { revisionOf } from '../storage/cachedByRevision';
import { codingRevision } from '../storage/codings';
import { readDecisions } from '../storage/decisions';
import type { Store } from '../storage/open';
import type { DrawnFrom } from '../storage/portraits';
import { groupsHash } from './groupsOf';

/** What portraits of a column would be drawn from now. */
export async function drawnFromNow(store: Store, network: Network, column: string): Promise<DrawnFrom> {
  const nodes = readTable(store.folder, network.id, 'nodes', [column]);
  return {
    groups: column in nodes ? groupsHash(nodes[column]) : '',
    decisions: (await readDecisions(store)).map(({ id }) => id),
    messages: network.weave === null ? 0 : revisionOf(store),
    codes: network.weave === null ? 0 : codingRevision(store),
  };
}

/** Why portraits no longer say what is; empty while they do. */
export function outOfDatePhrase(then: DrawnFrom, now: DrawnFrom): string {
  const reasons = [
    ...(then.groups === now.groups ? [] : ['the groups are others']),
    ...(then.decisions.join() === now.decisions.join() ? [] : ['other tidy decisions hold']),
    ...((then.codes ?? 0) === (now.codes ?? 0) ? [] : ['messages were coded']),
    ...(then.messages === now.messages ? [] : ['messages came, went or were scored']),
  ];
  return reasons.length === 0 ? '' : `Since these portraits were drawn, ${reasons.join(', and ')}.`;
}
