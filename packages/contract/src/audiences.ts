import * as z from 'zod';
import { Term } from './portraits';

/** What accounts can have in common: whom they follow, under what they comment, what they use; or what the nodes of a two-mode network are tied to. */
export const AudienceSort = z.enum(['followers', 'channel', 'item', 'hashtag', 'network']);
export type AudienceSort = z.infer<typeof AudienceSort>;

/** Sets of members that can be asked for at most, and combinations that are told. */
export const MOST_SETS = 30;
export const MOST_COMBINATIONS = 200;

const of = {
  sort: AudienceSort,
  /** Of two sorts of nodes; for "network" alone. */
  network: z.string().optional(),
};
export const AudienceSetsQuery = z.object({ ...of, search: z.string().max(200).default('') });
export type AudienceSetsQuery = z.infer<typeof AudienceSetsQuery>;

/** Sets that there are, the largest first; at most 200. */
export const AudienceSets = z.object({
  total: z.int(),
  sets: z.array(z.object({ name: z.string(), members: z.int() })),
});
export type AudienceSets = z.infer<typeof AudienceSets>;

export const AudiencesRequest = z.object({
  ...of,
  /** Of the sets, as `AudienceSets` gives them. */
  names: z.array(z.string()).min(1, 'Choose at least one.').max(MOST_SETS),
});
export type AudiencesRequest = z.infer<typeof AudiencesRequest>;

/** Who belongs to which combination of sets; sets by their places in what was asked for. */
export const Audiences = z.object({
  sizes: z.array(z.int()),
  /** Members of any of them. */
  members: z.int(),
  /** Exactly these sets and no others; the largest first. */
  combinations: z.array(z.object({ sets: z.array(z.int()), members: z.int() })),
  /** Further combinations, summed up. */
  further: z.object({ combinations: z.int(), members: z.int() }),
  /** Members of both of two sets; by chance so many would be, were members of all sets dealt out at random. */
  pairs: z.array(
    z.object({
      a: z.int(),
      b: z.int(),
      both: z.int(),
      /** Of the smaller one, 0 to 1. */
      share: z.number(),
      jaccard: z.number(),
      byChance: z.number(),
    }),
  ),
});
export type Audiences = z.infer<typeof Audiences>;

/** Who is in some sets and not in others. */
export const AudienceQuestion = AudiencesRequest.extend({
  /** Members that are in all of these, and in none of those; by places among the names. */
  inside: z.array(z.int().min(0)).max(MOST_SETS),
  outside: z.array(z.int().min(0)).max(MOST_SETS),
});
export type AudienceQuestion = z.infer<typeof AudienceQuestion>;

export const AudienceMembersRequest = AudienceQuestion.extend({
  offset: z.int().min(0).default(0),
  limit: z.int().min(1).max(100_000).default(50),
});
export type AudienceMembersRequest = z.infer<typeof AudienceMembersRequest>;

export const AudienceMembers = z.object({
  total: z.int(),
  members: z.array(
    z.object({
      handle: z.string(),
      name: z.string().nullable(),
      description: z.string().nullable(),
      /** Places of the sets in which it is. */
      sets: z.array(z.int()),
    }),
  ),
  /** What is typical of their descriptions beside those of all other members; told with the first of them alone. */
  typical: z.array(Term),
  /** Of the members, and of all others, how many have a description. */
  described: z.object({ here: z.int(), elsewhere: z.int() }),
});
export type AudienceMembers = z.infer<typeof AudienceMembers>;
