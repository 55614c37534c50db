import type { GroupMessagesQuery } from '@pebble/contract';

/** The messages that a number counts, in words and as they are asked for. */
export interface Evidence {
  readonly words: string;
  readonly query: Pick<GroupMessagesQuery, 'group'> & Partial<GroupMessagesQuery>;
}
