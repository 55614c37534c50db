import * as z from 'zod';

/**
 * The ways in which one message addresses another account: it answers a post, answers a comment below a video or page, quotes,
 * mentions or reposts; the last three are those of email.
 */
export const AddressKind = z.enum(['reply', 'comment', 'quote', 'mention', 'repost', 'to', 'cc', 'bcc']);
export type AddressKind = z.infer<typeof AddressKind>;
export const ADDRESS_KINDS = AddressKind.options;
