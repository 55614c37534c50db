import * as z from 'zod';
import { MessageKind } from './message';

/** Asks for the messages behind a node, a tie or a community of one network. */
export const EvidenceQuery = z
  .object({
    node: z.coerce.number().int().optional(),
    source: z.coerce.number().int().optional(),
    target: z.coerce.number().int().optional(),
    community: z.coerce.number().int().optional(),
    /** Only messages from this moment on and before that one; milliseconds since 1970. */
    from: z.coerce.number().optional(),
    until: z.coerce.number().optional(),
    offset: z.coerce.number().int().min(0).default(0),
    limit: z.coerce.number().int().min(1).max(200).default(50),
  })
  .refine(
    (q) =>
      q.node !== undefined || q.community !== undefined || (q.source !== undefined && q.target !== undefined),
    'Name a node, a community, or both ends of a tie.',
  );
export type EvidenceQuery = z.infer<typeof EvidenceQuery>;

export const PortraitHashtag = z.object({ tag: z.string(), messages: z.int() });

/** The profile of one community. */
export const Portrait = z.object({
  community: z.int(),
  accounts: z.int(),
  messages: z.int(),
  hashtags: z.array(PortraitHashtag),
  kinds: z.array(z.object({ kind: MessageKind, messages: z.int() })),
  from: z.number().nullable(),
  until: z.number().nullable(),
});
export type Portrait = z.infer<typeof Portrait>;

/** The ties of one network that a message made, as pairs of node ids. */
export const MessageTies = z.object({ ties: z.array(z.object({ source: z.int(), target: z.int() })) });
export type MessageTies = z.infer<typeof MessageTies>;
