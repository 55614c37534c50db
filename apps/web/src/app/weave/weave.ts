import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import { MatButton } from '@angular/material/button';
import { MatButtonToggle, MatButtonToggleGroup } from '@angular/material/button-toggle';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatTooltip } from '@angular/material/tooltip';
import type { Deleted, Network, Weave as Recipe, WeaveEstimate, WeaveKind } from '@pebble/contract';
import { ADDRESS_VERB, kindOf, nodeWords } from '@pebble/core';
import { shortened } from '../shared/words';
import { Store } from '@ngrx/store';
import {
  catchError,
  debounceTime,
  endWith,
  filter,
  finalize,
  map,
  of,
  scan,
  startWith,
  Subject,
  switchMap,
  takeUntil,
} from 'rxjs';
import { Api } from '../api/api';
import { latest } from '../shared/latest';
import { WorkActions } from '../store/work.actions';
import { work } from '../store/work.reducer';
import { AfterFields } from './after-fields';
import { DeletedList } from '../shared/deleted-list';
import { NetworkList } from './network-list';
import { PackageOpening } from './package-opening';
import { firstQuestion, firstWeave, QUESTIONS, whyNot, type Held } from './questions';
import { Sentence } from './sentence';
import { SliceFields, type Slicing } from './slice-fields';
import { TakenFields } from './taken-fields';
import { WeaveSize } from './weave-size';
import { Busy } from '../shared/busy';

/** A question is chosen; one sentence with controls says what ties what; an estimate follows; the result is woven and named. */
@Component({
  selector: 'pt-weave',
  imports: [
    MatButtonToggle,
    MatButtonToggleGroup,
    MatTooltip,
    MatInput,
    MatFormField,
    MatButton,
    DeletedList,
    Busy,
    RouterLink,
    AfterFields,
    NetworkList,
    PackageOpening,
    Sentence,
    SliceFields,
    TakenFields,
    WeaveSize,
  ],
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
  protected readonly sources = this.store.selectSignal(work.selectSources);
  protected readonly questions = QUESTIONS;
  /** The question that was chosen; null while none was. */
  protected readonly chosen = signal<WeaveKind | null>(null);
  protected readonly what = computed(() => {
    const overview = this.overview();
    return this.chosen() ?? (overview ? firstQuestion(overview, this.networks()) : 'accounts');
  });
  /** The sentences that were changed, by their question. */
  private readonly changed = signal<Partial<Record<WeaveKind, Recipe>>>({});
  protected readonly name = signal('');
  /** Into which parts the time is cut; null for one network of the whole. */
  protected readonly slicing = signal<Slicing | null>(null);
  protected readonly kept = latest(
    computed(() => this.study()?.id ?? null),
    (study) => (study === null ? of([]) : this.api.filters({ study })),
  );
  protected readonly weaving = signal(false);
  protected readonly problem = signal<string | null>(null);

  protected readonly kinds = computed(() => this.overview()?.addressKinds ?? []);
  protected readonly held = computed<Held | null>(() => {
    const overview = this.overview();
    return overview && { overview, networks: this.networks() };
  });
  protected readonly weave = computed<Recipe | null>(() => {
    const overview = this.overview();
    if (!overview) return null;
    return this.changed()[this.what()] ?? firstWeave(this.what(), overview, this.networks());
  });
  protected readonly meaning = computed(() => {
    const weave = this.weave();
    return weave ? kindOf(weave).meaning(weave) : '';
  });
  protected readonly words = computed(() => nodeWords(this.weave()));
  /** Why the question cannot be asked of this study yet. */
  protected readonly closed = computed(() => this.isClosed(this.what()));
  /** Whether nothing can be asked: there is neither a message nor a network. */
  protected readonly isEmpty = computed(
    () => this.overview() !== null && QUESTIONS.every(({ what }) => this.isClosed(what) !== null),
  );
  /** Why the sentence cannot be woven as it stands. */
  protected readonly fault = computed(() => {
    const overview = this.overview();
    const weave = this.weave();
    if (!overview || !weave) return null;
    const closed = this.closed();
    if (closed) return closed;
    if (weave.what === 'accounts' && weave.kinds.length === 0)
      return `Choose at least one of: ${this.kinds()
        .map((kind) => ADDRESS_VERB[kind])
        .join(', ')}.`;
    const isTurned =
      'from' in weave && weave.from !== null && weave.until !== null && weave.from >= weave.until;
    return isTurned ? 'The period ends before it begins.' : null;
  });

  private readonly estimating = this.store.selectSignal(work.selectEstimating);
  protected readonly ended = new Subject<void>();
  private readonly asked = computed(() => ({
    study: this.study()?.id ?? null,
    messages: this.study()?.messages ?? 0,
    weave: this.weave(),
    fault: this.fault(),
  }));
  protected readonly estimate = toSignal(
    toObservable(this.asked).pipe(
      filter(({ study, weave, fault }) => study !== null && weave !== null && fault === null),
      debounceTime(150),
      switchMap(({ study, weave }) =>
        this.api.estimate({ study: study! }, weave!).pipe(
          map((size): Estimated => ({ size, error: null, ended: false })),
          startWith(NONE_YET),
          catchError((error: Error) => of({ ...NONE_YET, error: error.message })),
          takeUntil(this.ended),
          finalize(() => this.store.dispatch(WorkActions.estimateReported({ share: null }))),
          endWith(null),
          // Ended by hand, nothing came; else the last answer stays.
          scan(
            (last: Estimated, now) => now ?? (last === NONE_YET ? { ...NONE_YET, ended: true } : last),
            NONE_YET,
          ),
        ),
      ),
    ),
    { initialValue: NONE_YET },
  );
  /** How far an estimate is that takes long, in per cent. */
  protected readonly percent = computed(() => {
    const share = this.estimating();
    return share === null ? null : Math.round(100 * share);
  });

  protected isClosed(what: WeaveKind): string | null {
    const overview = this.overview();
    return overview ? whyNot(what, overview, this.networks()) : null;
  }

  protected change(weave: Recipe): void {
    this.changed.update((all) => ({ ...all, [weave.what]: weave }));
  }

  protected thin(part: object): void {
    const weave = this.weave();
    if (weave) this.change({ ...weave, ...part });
  }

  protected start(): void {
    const study = this.study();
    const weave = this.weave();
    if (!study || !weave || this.fault()) return;
    const slicing = 'from' in weave ? this.slicing() : null;
    this.make(study.id, shortened(this.name().trim() || kindOf(weave).title(weave)), weave, slicing);
  }

  protected weaveAgain({ name, weave, study }: Network): void {
    if (weave) this.make(study, name, weave);
  }

  private make(study: string, name: string, weave: Recipe, slicing: Slicing | null = null): void {
    this.weaving.set(true);
    this.problem.set(null);
    // It would be an answer to what is being found out, and take half of the computer for it.
    this.ended.next();
    const asked = slicing
      ? this.api.step(study, 'weave-slices', { name, weave, ...slicing })
      : this.api.step(study, 'weave', { name, weave });
    asked.subscribe({
      next: ({ state, error, result }) => {
        if (state === 'done')
          return void this.router.navigate(['/studies', study, 'map', String(result?.['network'])]);
        this.weaving.set(false);
        this.problem.set(error);
      },
      error: (error: Error) => {
        this.weaving.set(false);
        this.problem.set(error.message);
      },
    });
  }

  protected again({ weave }: Network): void {
    if (!weave) return;
    this.chosen.set(weave.what);
    this.change(weave);
  }

  protected remove(network: Network): void {
    this.store.dispatch(WorkActions.networkDeleteRequested({ network }));
  }

  protected takeBack({ id }: Deleted): void {
    this.store.dispatch(WorkActions.networkRestoreRequested({ id: String(id) }));
  }
}

/** What came of an estimate. */
interface Estimated {
  readonly size: WeaveEstimate | null;
  readonly error: string | null;
  /** Whether it was ended by hand. */
  readonly ended: boolean;
}

const NONE_YET: Estimated = { size: null, error: null, ended: false };
