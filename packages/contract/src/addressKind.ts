import { z } from 'zod';

/** The ways in which one message addresses another account; the last three are those of email. */
export const AddressKind = z.enum(['reply', 'mention', 'repost', 'to', 'cc', 'bcc']);
export type AddressKind = z.infer<typeof AddressKind>;
export const ADDRESS_KINDS = AddressKind.options;
