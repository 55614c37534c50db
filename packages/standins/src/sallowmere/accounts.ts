import type { Random } from '@pebble/core';
import { DRIVER, GROUPS, LOUD, type GroupName } from './groups';

export interface DemoAccount {
  readonly handle: string;
  readonly name: string;
  readonly group: GroupName;
  readonly followers: number;
  /** How often it posts, and how often others turn to it; any unit. */
  readonly activity: number;
  readonly appeal: number;
}

/** All accounts of the story; sizes grow with the number of messages wanted. */
export function makeAccounts(chance: Random, scale: number): DemoAccount[] {
  const taken = new Set<string>([LOUD.handle, DRIVER.handle]);
  const accounts: DemoAccount[] = [
    { ...LOUD, group: 'traders', followers: 8120, activity: 0, appeal: 0 },
    { ...DRIVER, group: 'moths', followers: 61, activity: 0, appeal: 0 },
  ];
  for (const plan of GROUPS) {
    const size = plan.name === 'ring' ? plan.accounts : Math.round(plan.accounts * scale);
    const ranks = chance.shuffle(Array.from({ length: size }, (_, i) => i));
    for (let i = 0; i < size; i++) {
      const handle = freshHandle(chance, plan.handles, taken);
      accounts.push({
        handle,
        name: displayName(handle, chance),
        group: plan.name,
        followers: Math.floor(12 + 2400 / (1 + ranks[i]) + chance.below(90)),
        activity: 1 / (ranks[i] + 4) ** 0.75,
        appeal: 1 / (i + 2) ** 0.85,
      });
    }
  }
  return accounts;
}

function freshHandle(
  chance: Random,
  [first, second]: readonly [readonly string[], readonly string[]],
  taken: Set<string>,
): string {
  for (let tries = 0; ; tries++) {
    const base = `${chance.pick(first)}_${chance.pick(second)}`;
    const handle =
      tries === 0 ? base : `${base}${tries < 40 ? chance.below(90) + 2 : chance.below(1_000_000)}`;
    if (taken.has(handle)) continue;
    taken.add(handle);
    return handle;
  }
}

function displayName(handle: string, chance: Random): string {
  const words = handle
    .replace(/\d+/g, '')
    .split('_')
    .filter((word) => word !== '');
  const name = words.map((word) => word[0].toUpperCase() + word.slice(1)).join(' ');
  return chance.chance(0.08) ? `${name} ${chance.pick(['🌙', '⚓', '🦋', '⭐', '☕'])}` : name;
}
