import type {
  IncomingFollow,
  IncomingItem,
  IncomingMessage,
  IncomingProfile,
  SkippedRow,
} from '@pebble/contract';

/** Where what a source holds goes to. */
export interface SourceSink {
  message(message: IncomingMessage): void;
  item(item: IncomingItem): void;
  follow(follow: IncomingFollow): void;
  profile(profile: IncomingProfile): void;
  skip(row: SkippedRow): void;
}
