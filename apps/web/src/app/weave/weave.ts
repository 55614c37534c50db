import { ChangeDetectionStrategy, Component, computed, effect, inject, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { Router, RouterLink } from '@angular/router';
import { ADDRESS_KINDS, type AccountWeave, type AddressKind, type Network } from '@pebble/contract';
import { ADDRESS_VERB } from '@pebble/core';
import { Store } from '@ngrx/store';
import { catchError, debounceTime, filter, map, of, startWith, switchMap } from 'rxjs';
import { Api } from '../api/api';
import { counted, moment } from '../shared/words';
import { WorkActions } from '../store/work.actions';
import { work } from '../store/work.reducer';

const DAY = 86_400_000;
const PAST: Readonly<Record<AddressKind, string>> = {
  reply: 'answered',
  mention: 'mentioned',
  repost: 'reposted',
  to: 'wrote to',
  cc: 'sent a copy to',
  bcc: 'sent a blind copy to',
};

/** One sentence with controls says what ties what; an estimate follows; the result is woven and named. */
@Component({
  selector: 'pt-weave',
  imports: [FormsModule, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './weave.html',
  styleUrl: './weave.scss',
})
export class Weave {
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  protected readonly study = this.store.selectSignal(work.selectStudy);
  protected readonly overview = this.store.selectSignal(work.selectOverview);
  protected readonly networks = this.store.selectSignal(work.selectNetworks);
  /** The ways of addressing that occur in the study. */
  protected readonly kinds = computed(() => this.overview()?.addressKinds ?? []);
  protected readonly verbs = ADDRESS_VERB;
  protected readonly counted = counted;
  protected readonly moment = (iso: string): string => moment(Date.parse(iso));

  protected readonly chosen = signal<ReadonlySet<AddressKind>>(new Set(ADDRESS_KINDS));
  protected readonly from = signal('');
  protected readonly to = signal('');
  protected readonly atLeast = signal(1);
  protected readonly selfTies = signal(false);
  protected readonly isolates = signal(true);
  protected readonly name = signal('');
  protected readonly weaving = signal(false);
  protected readonly problem = signal<string | null>(null);

  protected readonly weave = computed<AccountWeave>(() => ({
    kinds: this.kinds().filter((kind) => this.chosen().has(kind)),
    from: dayStart(this.from()),
    until: this.to() ? (dayStart(this.to()) ?? 0) + DAY : null,
    atLeast: Math.max(1, Math.floor(this.atLeast() || 1)),
    selfTies: this.selfTies(),
    isolates: this.isolates(),
  }));
  protected readonly fault = computed(() => {
    const { kinds, from, until } = this.weave();
    if (kinds.length === 0)
      return `Choose at least one of: ${this.kinds()
        .map((kind) => ADDRESS_VERB[kind])
        .join(', ')}.`;
    return from !== null && until !== null && from >= until ? 'The period ends before it begins.' : null;
  });

  private readonly asked = computed(() => ({
    study: this.study()?.id ?? null,
    messages: this.study()?.messages ?? 0,
    weave: this.weave(),
    fault: this.fault(),
  }));
  protected readonly estimate = toSignal(
    toObservable(this.asked).pipe(
      filter(
        ({ study, messages, weave, fault }) =>
          study !== null && messages > 0 && weave.kinds.length > 0 && fault === null,
      ),
      debounceTime(150),
      switchMap(({ study, weave }) =>
        this.api.estimate(study!, weave).pipe(
          map((size) => ({ size, waiting: false, error: null as string | null })),
          startWith({ size: null, waiting: true, error: null }),
          catchError((error: Error) => of({ size: null, waiting: false, error: error.message })),
        ),
      ),
    ),
    { initialValue: { size: null, waiting: true, error: null } },
  );

  /** What one tie will mean, in plain words. */
  protected readonly meaning = computed(() => {
    const verbs = this.weave().kinds.map((kind) => PAST[kind]);
    const joined = verbs.length > 1 ? `${verbs.slice(0, -1).join(', ')} or ${verbs.at(-1)}` : verbs.join('');
    return `A tie of weight 3 from A to B means: A ${joined} B in three messages.${
      this.weave().kinds.includes('repost')
        ? ' A repost counts for its author and for each account mentioned in the reposted text.'
        : ''
    }`;
  });

  constructor() {
    effect(() => {
      const overview = this.overview();
      if (!overview || this.from() || this.to() || overview.from === null || overview.until === null) return;
      this.from.set(new Date(overview.from).toISOString().slice(0, 10));
      this.to.set(new Date(overview.until).toISOString().slice(0, 10));
    });
  }

  protected toggle(kind: AddressKind): void {
    this.chosen.update((set) => {
      const next = new Set(set);
      if (!next.delete(kind)) next.add(kind);
      return next;
    });
  }

  protected start(): void {
    const study = this.study();
    if (!study || this.fault()) return;
    this.weaving.set(true);
    this.problem.set(null);
    const name =
      this.name().trim() ||
      `Who ${this.weave()
        .kinds.map((kind) => ADDRESS_VERB[kind])
        .join(', ')} whom`;
    this.api.step(study.id, 'weave-accounts', { name, weave: this.weave() }).subscribe({
      next: ({ result }) =>
        void this.router.navigate(['/studies', study.id, 'map', String(result?.['network'])]),
      error: (error: Error) => {
        this.weaving.set(false);
        this.problem.set(error.message);
      },
    });
  }

  protected again({ weave }: Network): void {
    if (!weave) return;
    this.chosen.set(new Set(weave.kinds));
    this.from.set(weave.from === null ? '' : new Date(weave.from).toISOString().slice(0, 10));
    this.to.set(weave.until === null ? '' : new Date(weave.until - 1).toISOString().slice(0, 10));
    this.atLeast.set(weave.atLeast);
    this.selfTies.set(weave.selfTies);
    this.isolates.set(weave.isolates);
  }

  protected remove(network: Network): void {
    this.store.dispatch(WorkActions.networkDeleteRequested({ network }));
  }
}

function dayStart(date: string): number | null {
  const time = Date.parse(`${date}T00:00:00Z`);
  return Number.isNaN(time) ? null : time;
}
