import type { CollectPlan, RunCounts } from '@pebble/contract';
import { counted, formatCount } from '@pebble/core';

/** How much was asked for, how much came, and why it is less. */
export function outcomeNotes(plan: CollectPlan, counts: RunCounts): string[] {
  const notes = amountNotes(plan, counts);
  if (counts.deleted > 0) notes.push(`${counted(counts.deleted, 'post')} had been deleted (Tombstone).`);
  if (counts.repeated > 0)
    notes.push(`${counted(counts.repeated, 'thing')} came twice, since pages moved while they were read.`);
  if (counts.expandedLinks > 0)
    notes.push(
      `${counted(counts.expandedLinks, 'short link')} ${counts.expandedLinks === 1 ? 'was' : 'were'} expanded; both are kept.`,
    );
  if (counts.limited > 0)
    notes.push(
      `The budget of requests was used up ${counted(counts.limited, 'time')}, and the run waited ${counted(Math.round(counts.waitedSeconds), 'second')}.`,
    );
  return notes;
}

/** What a list holds, by what was asked for. */
const LISTS = {
  posts: ['posts', 'account'],
  followers: ['followers', 'account'],
  comments: ['comments', 'item'],
} as const;

function amountNotes(plan: CollectPlan, { messages, deleted, wholeLists, cutLists }: RunCounts): string[] {
  switch (plan.what) {
    case 'search':
    case 'mail':
      if (messages + deleted < plan.most)
        return [
          `${counted(plan.most, 'message')} were asked for and ${formatCount(messages)} came: the service has no more that fit, or gives no more.`,
        ];
      return cutLists > 0
        ? [`As many came as were asked for (${formatCount(plan.most)}); the service has more.`]
        : [];
    case 'posts':
    case 'followers':
    case 'comments': {
      const [things, owner] = LISTS[plan.what];
      return [
        ...(cutLists > 0
          ? [
              `Of ${counted(cutLists, owner)} the service has more ${things}: the first ${formatCount(plan.most)} of each were taken, as asked for.`,
            ]
          : []),
        ...(wholeLists > 0
          ? [`Of ${counted(wholeLists, owner)} all ${things} came that the service shows.`]
          : []),
      ];
    }
    case 'details':
      return [];
  }
}
