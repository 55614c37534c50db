import type { Random } from '@pebble/core';
import { COLLECTING_TAG, LATE_TREND, type GroupPlan } from './groups';
import { HOURS, NAMES, ORGS, PLACES, TOPICS } from './texts';

/** Fills {place}, {hour}, {count}, {name}, {org}, {topic} and what is given. */
export function fill(pattern: string, chance: Random, given: Readonly<Record<string, string>> = {}): string {
  return pattern.replace(/\{(\w+)\}/g, (_, slot: string) => {
    if (given[slot] !== undefined) return given[slot];
    switch (slot) {
      case 'place':
        return chance.pick(PLACES);
      case 'hour':
        return chance.pick(HOURS);
      case 'org':
        return chance.pick(ORGS);
      case 'name':
        return chance.pick(NAMES);
      case 'topic':
        return chance.pick(TOPICS);
      default:
        return String(2 + chance.below(46));
    }
  });
}

/** Slips of the finger and habits of writing. */
export function handwriting(text: string, chance: Random): string {
  const roll = chance.real();
  if (roll < 0.1) return text.toLowerCase();
  if (roll < 0.15) return swapTwoLetters(text, chance);
  if (roll < 0.19) return `${text} ${chance.pick(['😅', '🙃', '👀', '🤷', '🌙', '💡'])}`;
  if (roll < 0.22) return text.replace(/\byou\b/g, 'u').replace(/\bplease\b/gi, 'pls');
  return text;
}

function swapTwoLetters(text: string, chance: Random): string {
  const at = 1 + chance.below(Math.max(1, text.length - 3));
  const isLetter = (c: string): boolean => /[a-z]/.test(c);
  if (!isLetter(text[at]) || !isLetter(text[at + 1] ?? '')) return text;
  return text.slice(0, at) + text[at + 1] + text[at] + text.slice(at + 2);
}

/** Hashtags for the end of a message: the collecting tag nearly always, then of the group, late ones after the power failure. */
export function hashtagsFor(plan: GroupPlan, afterFailure: boolean, chance: Random): string[] {
  const tags: string[] = [];
  if (chance.chance(0.9)) tags.push(COLLECTING_TAG);
  if (chance.chance(0.55)) tags.push(chance.pick(plan.hashtags));
  if (chance.chance(0.2)) tags.push(chance.pick(plan.hashtags));
  if (afterFailure && chance.chance(0.35)) tags.push(chance.pick(LATE_TREND));
  return [...new Set(tags)];
}

export function linkFor(chance: Random): string {
  const host = chance.pick([
    'harbourpost.example',
    'sallowmere-library.example',
    'lampfacts.example',
    'marshrecords.example',
    'skyclub.example',
    'tidepost.example',
  ]);
  return `https://${host}/${chance.pick(['2026', 'lamps', 'read', 'minutes', 'map'])}/${100 + chance.below(400)}`;
}
