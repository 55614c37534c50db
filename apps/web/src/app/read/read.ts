import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { Router, RouterLink } from '@angular/router';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatTabLink, MatTabNav, MatTabNavPanel } from '@angular/material/tabs';
import { Store } from '@ngrx/store';
import { NetworkChoice } from '../shared/network-choice';
import { wholesIn } from '../shared/slices';
import { NoNetwork } from '../shell/no-network';
import { Notices } from '../store/notices';
import { WorkActions } from '../store/work.actions';
import { work } from '../store/work.reducer';
import { AudiencesView } from './audiences/audiences';
import { Change } from './change/change';
import { CodesView } from './codes/codes-view';
import { Compare } from './compare/compare';
import { MessagesBehind, type Behind } from './common/messages-behind';
import { Portraits } from './common/portraits';
import { referenceTo } from './portraits/memo-references';
import { PortraitsView } from './portraits/portraits-view';
import { SpreadView } from './spread/spread-view';

/** What can be read, with its words. */
const VIEWS = [
  ['portraits', 'Portraits'],
  ['compare', 'Two beside each other'],
  ['change', 'Through time'],
  ['spread', 'Spread'],
  ['audiences', 'Shared audiences'],
  ['codes', 'Codes'],
] as const;

/** From a picture to an argument: what groups are, what differs between two of anything; every number opens its messages. */
@Component({
  selector: 'pt-read',
  imports: [
    AudiencesView,
    Change,
    CodesView,
    Compare,
    MatFormField,
    MatInput,
    MatTabLink,
    MatTabNav,
    MatTabNavPanel,
    MessagesBehind,
    NetworkChoice,
    NoNetwork,
    PortraitsView,
    RouterLink,
    SpreadView,
  ],
  providers: [Portraits],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './read.html',
  styleUrl: './read.scss',
})
export class Read {
  private readonly store = inject(Store);
  private readonly router = inject(Router);
  private readonly notices = inject(Notices);
  protected readonly portraits = inject(Portraits);
  protected readonly study = this.store.selectSignal(work.selectStudy);
  protected readonly networks = this.store.selectSignal(work.selectNetworks);
  private readonly openNetwork = this.store.selectSignal(work.selectOpenNetwork);
  /** From the address: which network, which grouping, what is read; which groups stand beside each other; which two are compared; what is followed through time; what spread; what is coded. */
  readonly network = input<string>();
  readonly by = input<string>();
  readonly view = input<string>();
  readonly groups = input<string>();
  readonly a = input<string>();
  readonly b = input<string>();
  readonly show = input<string>();
  readonly sample = input<string>();
  /** What spread. */
  readonly spread = input<string>();
  readonly ties = input<string>();
  protected readonly views = VIEWS;
  protected readonly shown = computed(() => VIEWS.find(([view]) => view === this.view())?.[0] ?? 'portraits');
  /** Which messages are read, and the group whose quotations they can be. */
  protected readonly behind = signal<Behind | null>(null);
  protected readonly group = signal<string | null>(null);

  protected readonly current = computed(
    () => this.networks().find(({ id }) => id === this.network()) ?? null,
  );
  protected readonly isMissing = computed(
    () =>
      this.study() !== null && this.networks().length > 0 && this.network() !== undefined && !this.current(),
  );
  /** Columns by which nodes fall into groups, communities first. */
  protected readonly groupings = computed(() =>
    (this.current()?.columns ?? [])
      .filter(({ type }) => type === 'category')
      .sort((a, b) => Number(b.name === 'community') - Number(a.name === 'community')),
  );
  protected readonly column = computed(() => {
    const all = this.groupings();
    return (all.find(({ name }) => name === this.by()) ?? all.at(0))?.name ?? '';
  });

  constructor() {
    effect(() => {
      const wanted = this.network() ?? this.openNetwork() ?? wholesIn(this.networks()).at(0)?.id;
      if (wanted !== undefined && this.network() === undefined)
        untracked(() => this.goTo({ network: wanted, replaceUrl: true }));
    });
    effect(() => {
      // What is read is what other stops go on with.
      const id = this.current()?.id;
      if (id !== undefined) this.store.dispatch(WorkActions.networkOpened({ id }));
    });
    effect(() => {
      const network = this.current();
      const column = this.column();
      if (network && column) untracked(() => this.portraits.open(network, column));
    });
  }

  protected open(behind: Behind, group: string | null = null): void {
    this.group.set(group);
    this.behind.set(behind);
  }

  /** Shows another network, or other groups. */
  protected goTo({
    network,
    by,
    replaceUrl = false,
  }: {
    network?: string;
    by?: string;
    replaceUrl?: boolean;
  }): void {
    const study = this.study();
    this.behind.set(null);
    if (!study) return;
    const view = this.view();
    void this.router.navigate(['/studies', study.id, 'read', network ?? this.network()], {
      queryParams: { ...(view ? { view } : {}), ...(by === undefined ? {} : { by }) },
      replaceUrl,
    });
  }

  /** Has the memo of a group point at a message. */
  protected cite(group: string, message: number): void {
    const memo = this.portraits.memoOf(group);
    const reference = referenceTo(message);
    if (memo.includes(reference)) this.notices.say('The memo cites this message already.');
    else
      this.portraits.note(group, { memo: `${memo}${memo === '' ? '' : ' '}${reference}` }, () =>
        this.notices.withUndo('The memo cites the message.', () => this.portraits.note(group, { memo })),
      );
  }

  protected quote(group: string, message: number): void {
    this.portraits.quote(group, message, (isQuoted) =>
      this.notices.say(isQuoted ? 'The message is kept as a quotation.' : 'The quotation was taken away.'),
    );
  }
}
