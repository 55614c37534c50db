import * as z from 'zod';
import { pageOf, PageQuery } from './page';

/** What can be made to mean one thing; only things of the same sort can be merged. */
export const TidySort = z.enum(['account', 'hashtag', 'domain', 'word', 'name']);
export type TidySort = z.infer<typeof TidySort>;

/** Kinds of accounts and names. */
export const TidyKind = z.enum(['person', 'organisation', 'press', 'place', 'bot-like', 'unknown']);
export type TidyKind = z.infer<typeof TidyKind>;

/**
 * What was decided of one thing, known by its key: that it is right as it stands, that it is left out, that it is another one, that it is
 * called something else, of which kind it is, or which of a category of the researcher's own.
 */
export const Verdict = z.discriminatedUnion('verdict', [
  z.object({ verdict: z.literal('keep') }),
  z.object({ verdict: z.literal('drop') }),
  z.object({ verdict: z.literal('merge'), into: z.string().min(1).max(300) }),
  z.object({ verdict: z.literal('rename'), label: z.string().trim().min(1, 'Give it a name.').max(200) }),
  z.object({ verdict: z.literal('kind'), kind: TidyKind }),
  z.object({
    verdict: z.literal('category'),
    /** Name of the category, such as "role", and which one the thing is; nothing takes it away. */
    name: z.string().trim().min(1, 'Give the category a name.').max(60),
    value: z.string().trim().max(200),
  }),
]);
export type Verdict = z.infer<typeof Verdict>;

export const NewDecision = z.object({ key: z.string().min(1).max(300), verdict: Verdict });
export type NewDecision = z.infer<typeof NewDecision>;

/** A decision as it is kept: it is applied when a network is woven, and can be taken back. */
export const Decision = z.object({
  id: z.int(),
  sort: TidySort,
  key: z.string(),
  verdict: Verdict,
  step: z.int(),
});
export type Decision = z.infer<typeof Decision>;

/** What a rule looks at; only accounts have more than what they are called. */
export const RuleField = z.enum(['label', 'name', 'description', 'location']);
export type RuleField = z.infer<typeof RuleField>;

/** A thing as it was found in the messages, with what was decided of it. */
export const FoundThing = z.object({
  key: z.string(),
  /** What it is called after what was decided. */
  label: z.string(),
  messages: z.int(),
  authors: z.int(),
  first: z.number().nullable(),
  last: z.number().nullable(),
  /** A message in which it stands. */
  example: z.int().nullable(),
  kind: TidyKind.nullable(),
  state: z.enum(['open', 'kept', 'dropped', 'merged']),
  /** Key and label of what it was merged into. */
  into: z.object({ key: z.string(), label: z.string() }).nullable(),
  /** Labels of what was merged into it. */
  merged: z.array(z.string()),
  /** Which one it is of each category that was given to it. */
  categories: z.record(z.string(), z.string()).default({}),
});
export type FoundThing = z.infer<typeof FoundThing>;

export const TidyQuery = z.object({
  /** Alternatives apart by "|". */
  search: z.string().max(300).default(''),
  show: z.enum(['all', 'open', 'kept', 'dropped', 'merged']).default('all'),
  limit: z.coerce.number().int().min(1).max(1000).default(200),
});
export type TidyQuery = z.infer<typeof TidyQuery>;

/** How far the review is. */
export const Review = z.object({
  found: z.int(),
  reviewed: z.int(),
  dropped: z.int(),
  merged: z.int(),
  /** All of the most used have been reviewed up to this share of what was found, 0 to 1. */
  mostUsed: z.number(),
  sentence: z.string(),
});
export type Review = z.infer<typeof Review>;

export const TidyPage = z.object({ total: z.int(), things: z.array(FoundThing), review: Review });
export type TidyPage = z.infer<typeof TidyPage>;

/** Why two things may be the same. */
export const SuggestionReason = z.enum([
  'same letters',
  'nearly the same letters',
  'abbreviation',
  'one inside the other',
  'same personal name',
]);
export type SuggestionReason = z.infer<typeof SuggestionReason>;

export const Suggestion = z.object({
  a: FoundThing,
  b: FoundThing,
  reason: SuggestionReason,
  /** The shortest label that is still clear. */
  label: z.string(),
});
export type Suggestion = z.infer<typeof Suggestion>;
export const SuggestionList = z.array(Suggestion);
export const DecisionQuery = PageQuery.extend({ sort: TidySort.optional() });
export type DecisionQuery = z.infer<typeof DecisionQuery>;
export const DecisionPage = pageOf('decisions', Decision);
export type DecisionPage = z.infer<typeof DecisionPage>;
