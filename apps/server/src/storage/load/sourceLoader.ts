import type { MessageBatch } from '../../intake/batch';
import type { SkippedRows } from '../../intake/skippedRows';
import type { Store } from '../open';
import { AccountIds } from './accountIds';
import { highest, MessageLoader } from './messageLoader';
import { PeopleLoader } from './peopleLoader';

/** Stores everything that a source brings, batch by batch. */
export class SourceLoader {
  readonly accounts: AccountIds;
  readonly messages: MessageLoader;
  readonly people: PeopleLoader;

  constructor(store: Store, source: number, skipped: SkippedRows) {
    this.accounts = new AccountIds(store, 1 + highest(store, 'account'));
    this.messages = new MessageLoader(store, source, this.accounts);
    this.people = new PeopleLoader(store, source, this.accounts, skipped);
  }

  /** To be called before the first batch. */
  begin(messagesAwaited: number): Promise<void> {
    return this.messages.begin(messagesAwaited);
  }

  add(batch: MessageBatch): void {
    this.accounts.expect(batch.newHandles);
    this.accounts.expectNames(batch.displayNames);
    this.messages.add(batch);
    this.people.add(batch);
    this.accounts.flush();
  }

  /** To be called after the last batch. */
  end(): Promise<void> {
    return this.messages.end();
  }

  /** Whether the source brought nothing at all, not even what was there already. */
  get isEmpty(): boolean {
    const { counts } = this.messages;
    const { items, itemsAgain, follows, followsAgain, profiles } = this.people.counts;
    return counts.kept + counts.duplicates + items + itemsAgain + follows + followsAgain + profiles === 0;
  }
}
