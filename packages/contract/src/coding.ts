import * as z from 'zod';
import { Message } from './message';
import { MessageSet } from './comparison';

/** The name under which coders settle what they disagreed on; where it has coded a message, that holds. */
export const AGREED = 'agreed';

/** Colours that codes have, in their order, where none is chosen. */
export const CODE_COLOURS = [
  '#0072B2',
  '#D55E00',
  '#009E73',
  '#CC79A7',
  '#E69F00',
  '#56B4E9',
  '#8C7A3D',
  '#7A4A9C',
];

/** What a message can be said to be. */
const code = {
  name: z.string().trim().min(1, 'Give the code a name.').max(60),
  /** When it is given, and when not. */
  definition: z.string().trim().max(4000).default(''),
  examples: z.string().trim().max(4000).default(''),
  colour: z.string().regex(/^#[0-9a-fA-F]{6}$/),
  /** The group of codes that it belongs to; empty for none. */
  set: z.string().trim().max(60).default(''),
};

export const Code = z.object({ id: z.int(), ...code });
export type Code = z.infer<typeof Code>;
/** A code as it is kept: one without an id is new. */
export const EditedCode = z.object({ id: z.int().nullable().default(null), ...code });
export type EditedCode = z.infer<typeof EditedCode>;

export const MOST_CODES = 200;

export const Coder = z.string().trim().min(1, 'Say under whose name it is coded.').max(40);

/** Messages that are to be coded, in the order in which they are. */
export const Sample = z.object({
  id: z.int(),
  name: z.string(),
  step: z.int(),
  messages: z.int(),
  /** How many of them each coder has coded. */
  coded: z.record(z.string(), z.int()),
});
export type Sample = z.infer<typeof Sample>;

export const Codebook = z.object({
  /** In their order, with the messages that have them. */
  codes: z.array(Code.extend({ messages: z.int() })),
  /** Who coded, with their messages; `agreed` last. */
  coders: z.array(z.object({ name: z.string(), messages: z.int() })),
  samples: z.array(Sample),
});
export type Codebook = z.infer<typeof Codebook>;

/** From what a sample is drawn: a set of messages, or so many of each group of a network. */
export const SampleFrom = z.discriminatedUnion('what', [
  ...MessageSet.options,
  z.object({ what: z.literal('groups'), network: z.string(), column: z.string() }),
]);
export type SampleFrom = z.infer<typeof SampleFrom>;

export const NewSample = z.object({
  name: z.string().trim().min(1, 'Give the sample a name.').max(80),
  from: SampleFrom,
  /** So many messages, of groups so many of each. */
  most: z.int().min(1).max(10_000),
  seed: z.int().min(0).max(0xffffffff).default(1),
});

const codedBy = z.object({ coder: z.string(), codes: z.array(z.int()) });

export const QueueQuery = z.object({
  coder: Coder,
  /** From which place of the sample on. */
  offset: z.coerce.number().int().min(0).default(0),
  limit: z.coerce.number().int().min(1).max(100).default(20),
});
export type QueueQuery = z.infer<typeof QueueQuery>;

/** Messages of a sample with what the coder gave them; null for those that are not coded yet. */
export const Queue = z.object({
  total: z.int(),
  coded: z.int(),
  /** The first place that this coder has not coded; null where all are. */
  next: z.int().nullable(),
  offset: z.int(),
  entries: z.array(z.object({ place: z.int(), message: Message, codes: z.array(z.int()).nullable() })),
});
export type Queue = z.infer<typeof Queue>;

export const AgreementSettings = z.object({
  coders: z.array(Coder).min(2, 'Choose two coders.').max(10),
  seed: z.int().min(0).max(0xffffffff).default(1),
  /** Samples drawn for the intervals. */
  runs: z.int().min(100).max(10_000).default(1000),
});
export const AgreementRequest = AgreementSettings.extend({
  sample: z.int(),
  /** Disagreements from one on. */
  offset: z.int().min(0).default(0),
  limit: z.int().min(1).max(100).default(20),
});
export type AgreementRequest = z.infer<typeof AgreementRequest>;

const Interval = z.object({ low: z.number(), high: z.number() });
export const CodeAgreement = z.object({
  code: z.int(),
  name: z.string(),
  /** Messages to which each of the coders gave it, and to which all that coded them did. */
  given: z.array(z.int()),
  all: z.int(),
  /** Null where it cannot be told: nobody gave the code, or all did. Kappa is of two coders alone. */
  kappa: z.number().nullable(),
  alpha: z.number().nullable(),
  interval: Interval.nullable(),
});
export type CodeAgreement = z.infer<typeof CodeAgreement>;

/** How far coders agree on what at least two of them coded. */
export const Agreement = z.object({
  coders: z.array(z.string()),
  messages: z.int(),
  /** Messages to which all gave exactly the same codes. */
  alike: z.int(),
  codes: z.array(CodeAgreement),
  disagreements: z.object({
    total: z.int(),
    /** Of these, settled already. */
    settled: z.int(),
    offset: z.int(),
    entries: z.array(
      z.object({ message: Message, by: z.array(codedBy), agreed: z.array(z.int()).nullable() }),
    ),
  }),
});
export type Agreement = z.infer<typeof Agreement>;
