import type {
  IncomingFollow,
  IncomingItem,
  IncomingMessage,
  IncomingProfile,
  Preview,
  SkippedRow,
} from '@pebble/contract';
import { handleKey } from '../../text/mentions';
import { counted, formatCount, joinWith } from '../../words/sentence';
import type { SourceSink } from '../sourceSink';

/** Counts what comes of the beginning of a file, and keeps what cannot be read. */
export class Tally implements SourceSink {
  readonly problems: Preview['problems'] = [];
  private messages = 0;
  private items = 0;
  private follows = 0;
  private profiles = 0;
  private read = 0;
  private readonly accounts = new Set<string>();

  message({ authorHandle }: IncomingMessage): void {
    this.read++;
    this.messages++;
    this.accounts.add(handleKey(authorHandle));
  }

  item({ channelHandle }: IncomingItem): void {
    this.items++;
    if (channelHandle) this.accounts.add(handleKey(channelHandle));
  }

  follow({ follower, followed }: IncomingFollow): void {
    this.read++;
    this.follows++;
    this.accounts.add(handleKey(follower));
    this.accounts.add(handleKey(followed));
  }

  profile({ handle }: IncomingProfile): void {
    this.read++;
    this.profiles++;
    this.accounts.add(handleKey(handle));
  }

  skip(row: SkippedRow): void {
    this.read++;
    this.problems.push(row);
  }

  /** "The first 200 rows give 198 messages by 120 accounts; 2 would be skipped." Null where nothing came. */
  sentence(isWhole: boolean): string | null {
    const parts = [
      this.messages > 0 ? [counted(this.messages, 'message')] : [],
      this.items > 0 ? [counted(this.items, 'item')] : [],
      this.follows > 0 ? [counted(this.follows, 'tie of following', 'ties of following')] : [],
      this.messages + this.items + this.follows === 0 && this.profiles > 0
        ? [counted(this.profiles, 'profile')]
        : [],
    ].flat();
    if (parts.length === 0) return null;
    const what = isWhole
      ? 'The file gives'
      : `The first ${counted(Math.max(this.read, this.items), 'row')} give`;
    const skipped = this.problems.length > 0 ? `; ${formatCount(this.problems.length)} would be skipped` : '';
    return `${what} ${joinWith('and', parts)} by or about ${counted(this.accounts.size, 'account')}${skipped}.`;
  }
}
