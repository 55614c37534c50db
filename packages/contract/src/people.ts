import * as z from 'zod';
import { TidyKind } from './tidy';

/** What people are called in what is published: as they are, or by pseudonyms, of words, as numbers, or by a category and a number. */
export const NamingForm = z.enum(['as they are', 'words', 'numbers', 'category']);
export type NamingForm = z.infer<typeof NamingForm>;

/** How people are called in all that is published of a study. */
export const Naming = z.object({
  form: NamingForm,
  /** The category whose value stands before the number, as "resident 12". */
  category: z.string().trim().max(60).default(''),
  /** Accounts of these kinds keep their names. */
  keepKinds: z.array(TidyKind).max(10).default([]),
  /** So do these, by their handles. */
  keep: z.array(z.string().trim().min(1).max(300)).max(5000).default([]),
  /** Columns that say who somebody is, and go out nevertheless. */
  details: z.array(z.string().max(100)).max(100).default([]),
  /** Columns that tell of people, and are left out as well. */
  without: z.array(z.string().max(100)).max(100).default([]),
});
export type Naming = z.infer<typeof Naming>;

/** How people of a study are called, and of how many that is known. */
export const People = z.object({
  naming: Naming,
  /** People who have a pseudonym, whether it is used or not. */
  known: z.int(),
  /** Categories that accounts were given, any of which can stand before numbers. */
  categories: z.array(z.string()),
});
export type People = z.infer<typeof People>;

/** What the nodes of a network are called in what is published. */
export const NodeNames = z.object({
  /** By node; null for those that are called as they are. All are where the list is empty. */
  names: z.array(z.string().nullable()),
  /** People who came after pseudonyms were given, and have none yet. */
  missing: z.int(),
  /** Those who keep their names, though others have pseudonyms. */
  kept: z.int(),
  /** Columns that tell of people, and which of these are left out of tables. */
  telling: z.array(z.string()),
  leftOut: z.array(z.string()),
  /** Of those that go out: combinations of values that few people share, who can be known by them. */
  smallCells: z.object({
    columns: z.array(z.string()),
    combinations: z.int(),
    people: z.int(),
    /** Fewer than so many are few. */
    least: z.int(),
  }),
});
export type NodeNames = z.infer<typeof NodeNames>;

/** What people can be found by. */
export const LeakKind = z.enum(['handle', 'name', 'mail address', 'message', 'link']);
export type LeakKind = z.infer<typeof LeakKind>;

/** Where something stands by which a person can be found. */
export const Leak = z.object({
  kind: LeakKind,
  /** As the study has it. */
  text: z.string(),
  /** Where it stands, as "caption". */
  place: z.string(),
  context: z.string(),
});
export type Leak = z.infer<typeof Leak>;

/** What was found in something that is to go out. */
export const Leaks = z.object({
  /** The first ones, each person once in each place. */
  leaks: z.array(Leak),
  total: z.int(),
});
export type Leaks = z.infer<typeof Leaks>;

/** Texts that are to go out, each with its place. */
export const LeakQuestion = z.object({
  texts: z.array(z.object({ place: z.string().max(200), text: z.string().max(2_000_000) })).max(20_000),
});
export type LeakQuestion = z.infer<typeof LeakQuestion>;

/** Why something goes out in which people can be found; null where nobody can. */
export const Allowed = z
  .object({ reason: z.string().trim().min(1, 'Say why.').max(500), found: z.int().min(1) })
  .nullable()
  .default(null);
