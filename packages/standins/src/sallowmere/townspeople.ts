import { Random } from '@pebble/core';
import { makeAccounts, type DemoAccount } from './accounts';
import type { GroupName } from './groups';
import { NAMES, PLACES } from './texts';

export interface DemoFollower {
  readonly handle: string;
  readonly name: string;
  readonly followers: number;
  readonly following: number;
  readonly posts: number;
  readonly location: string;
  readonly description: string;
  readonly joined: string;
}

/** Followers of one account; the lists of several accounts overlap. */
export interface FollowerList {
  readonly followed: string;
  readonly followers: readonly DemoFollower[];
}

/** Accounts whose followers were listed, how many there are, and the groups that they come from most. */
const FOLLOWED: readonly (readonly [string, number, readonly GroupName[]])[] = [
  ['harbour_post', 1800, ['press', 'traders', 'council', 'night', 'moths', 'stars', 'pilots']],
  ['sallow_sky_club', 620, ['stars', 'moths', 'press']],
  ['quay_traders', 540, ['traders', 'night', 'pilots']],
  ['marsh_records', 200, ['moths', 'stars']],
];
const ABOUT: Readonly<Partial<Record<GroupName, string>>> = {
  moths: 'I count what flies at night.',
  stars: 'Looking up, mostly.',
  night: 'Late shifts, long walks.',
  pilots: 'On the water before you are awake.',
  traders: 'Open late on the quay.',
  council: 'Here about the lamps. Views my own.',
  press: 'I write down what others say.',
  ring: 'Keep our lights.',
};

/** Who follows four local accounts. The same seed gives the same lists. */
export function makeFollowers(seed = 20260305): FollowerList[] {
  const chance = new Random(seed);
  const names = FOLLOWED.map(([followed]) => followed);
  const people = makeAccounts(chance, 1.6)
    .slice(2)
    .filter(({ handle }) => !names.includes(handle));
  return FOLLOWED.map(([followed, count, groups]) => {
    const near = chance.shuffle(people.filter(({ group }) => groups.includes(group)));
    const far = chance.shuffle(people.filter(({ group }) => !groups.includes(group)));
    const chosen = [...near.slice(0, Math.round(count * 0.93)), ...far];
    return { followed, followers: chosen.slice(0, count).map((account) => profileOf(account)) };
  });
}

/** What is told of an account; the same in every list. */
function profileOf({ handle, name, group, followers }: DemoAccount): DemoFollower {
  const own = new Random([...handle].reduce((sum, letter) => (sum * 31 + letter.charCodeAt(0)) >>> 0, 7));
  return {
    handle,
    name,
    followers,
    following: 20 + own.below(700),
    posts: own.below(4000),
    location: own.chance(0.6) ? `Sallowmere, ${own.pick(PLACES)}` : '',
    description: own.chance(0.7) ? (ABOUT[group] ?? '') : '',
    joined: `${2012 + own.below(14)}-${String(1 + own.below(12)).padStart(2, '0')}-${String(1 + own.below(28)).padStart(2, '0')}`,
  };
}

export const MEETINGS = [
  'First reading, 3 March',
  'Hearing, 24 March',
  'Traders’ evening, 9 April',
  'Night walk, 17 April',
  'After the vote, 5 May',
];

/** Who signed in at five public meetings: 80 people, and for each meeting whether they were there. */
export function makeSignInSheet(seed = 20260306): { person: string; there: boolean[] }[] {
  const chance = new Random(seed);
  const first = [
    'Ada',
    'Bo',
    'Cleo',
    'Dov',
    'Elke',
    'Finn',
    'Gwen',
    'Hana',
    'Ivo',
    'June',
    'Kit',
    'Lena',
    'Mo',
  ];
  const last = NAMES.map((name) => name.split(' ').at(-1)!);
  const people = new Set<string>();
  while (people.size < 80) people.add(`${chance.pick(first)} ${chance.pick(last)}`);
  return [...people].map((person) => {
    // Most people belong to one of two camps, and some go to everything.
    const camp = chance.below(3);
    const share =
      camp === 0
        ? [0.3, 0.6, 0.1, 0.8, 0.4]
        : camp === 1
          ? [0.3, 0.7, 0.8, 0.1, 0.4]
          : [0.7, 0.9, 0.6, 0.5, 0.8];
    const there = share.map((p) => chance.chance(p));
    if (!there.includes(true)) there[1] = true;
    return { person, there };
  });
}
