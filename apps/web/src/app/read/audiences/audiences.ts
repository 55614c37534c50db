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
import { FormsModule } from '@angular/forms';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatTooltip } from '@angular/material/tooltip';
import { MOST_SETS, type AudienceSets, type AudienceSort, type Network } from '@pebble/contract';
import { counted, formatCount } from '@pebble/core/first';
import { Store } from '@ngrx/store';
import { Api } from '../../api/api';
import { work } from '../../store/work.reducer';
import { asking } from '../../shared/asking';
import { AudienceMembersView } from './audience-members';
import { AUDIENCE_WORDS, type Wanted } from './audience-words';

/** Sets that are chosen at first. */
const AT_FIRST = 4;

/** Who belongs to which combination of audiences, and who is in some but not in others. */
@Component({
  selector: 'pt-audiences',
  imports: [AudienceMembersView, FormsModule, MatCheckbox, MatFormField, MatInput, MatTooltip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './audiences.html',
  styleUrls: ['../common/cells.scss', '../common/view.scss', './audiences.scss'],
})
export class AudiencesView {
  readonly study = input.required<string>();
  /** The network that is read; null where there is none. */
  readonly open = input<Network | null>(null);
  private readonly api = inject(Api);
  private readonly store = inject(Store);
  private readonly networks = this.store.selectSignal(work.selectNetworks);
  private readonly overview = this.store.selectSignal(work.selectOverview);
  protected readonly words = AUDIENCE_WORDS;
  protected readonly most = MOST_SETS;
  protected readonly count = formatCount;
  protected readonly round = Math.round;
  protected readonly counted = counted;
  /** Networks of two sorts of nodes. */
  protected readonly twoMode = computed(() =>
    this.networks().filter(({ columns }) => columns.some(({ name }) => name === 'mode')),
  );
  /** Sorts of which the study has something. */
  protected readonly sorts = computed((): AudienceSort[] => {
    const overview = this.overview();
    return [
      ...((overview?.follows ?? 0) > 0 ? (['followers'] as const) : []),
      ...((overview?.items ?? 0) > 0 ? (['channel', 'item'] as const) : []),
      ...((overview?.hashtags.length ?? 0) > 0 ? (['hashtag'] as const) : []),
      ...(this.twoMode().length > 0 ? (['network'] as const) : []),
    ];
  });
  private readonly chosenSort = signal<AudienceSort | null>(null);
  protected readonly sort = computed(() => this.chosenSort() ?? this.sorts().at(0) ?? null);
  private readonly chosenNetwork = signal<string | null>(null);
  protected readonly network = computed((): Network | null => {
    if (this.sort() !== 'network') return null;
    const all = this.twoMode();
    return all.find(({ id }) => id === this.chosenNetwork()) ?? all.at(0) ?? null;
  });
  protected readonly asked = computed(() => {
    const sort = this.sort();
    const network = this.network()?.id;
    return sort ? { sort, ...(network ? { network } : {}) } : null;
  });
  protected readonly search = signal('');
  protected readonly offered = signal<AudienceSets | null>(null);
  /** Names of the sets that are looked at. */
  protected readonly chosen = signal<readonly string[]>([]);
  private readonly shared = computed(() => {
    const asked = this.asked();
    const names = this.chosen();
    return asked && names.length > 0 ? { study: this.study(), body: { ...asked, names: [...names] } } : null;
  });
  private readonly asking = asking(this.shared, ({ study, body }) => this.api.audiences({ study }, body));
  protected readonly found = this.asking.found;
  protected readonly wanted = signal<readonly Wanted[]>([]);
  private readonly problem = signal<string | null>(null);
  protected readonly error = computed(() => this.problem() ?? this.asking.error());
  protected readonly largest = computed(() =>
    Math.max(1, ...(this.found()?.combinations ?? []).map((one) => one.members)),
  );
  /** Pairs with most in common beside chance first. */
  protected readonly pairs = computed(() =>
    [...(this.found()?.pairs ?? [])]
      .filter(({ both }) => both > 0)
      .sort((x, y) => y.both - x.both)
      .slice(0, 60),
  );

  constructor() {
    effect((onCleanup) => {
      const asked = this.asked();
      const search = this.search();
      if (!asked) return;
      const reading = this.api
        .audienceSets({ study: untracked(this.study) }, { ...asked, search })
        .subscribe({
          next: (offered) => {
            this.offered.set(offered);
            this.problem.set(null);
            if (untracked(this.chosen).length === 0 && search === '')
              this.choose(offered.sets.slice(0, AT_FIRST).map(({ name }) => name));
          },
          error: (error: Error) => this.problem.set(error.message),
        });
      onCleanup(() => reading.unsubscribe());
    });
  }

  protected chooseSort(sort: AudienceSort): void {
    this.chosenSort.set(sort);
    this.restart();
  }

  protected chooseNetwork(id: string): void {
    this.chosenNetwork.set(id);
    this.restart();
  }

  protected isChosen(name: string): boolean {
    return this.chosen().includes(name);
  }

  protected toggle(name: string, isWanted: boolean): void {
    const before = this.chosen();
    this.choose(isWanted ? [...before, name] : before.filter((one) => one !== name));
  }

  /** Asks for the members of exactly one combination. */
  protected ask(sets: readonly number[]): void {
    this.wanted.set(this.chosen().map((_, i) => (sets.includes(i) ? 'in' : 'out')));
  }

  /** Asks for the members of both of a pair. */
  protected askPair(a: number, b: number): void {
    this.wanted.set(this.chosen().map((_, i) => (i === a || i === b ? 'in' : 'either')));
  }

  private choose(names: readonly string[]): void {
    this.chosen.set(names);
    this.wanted.set(names.map(() => 'either'));
  }

  private restart(): void {
    this.choose([]);
    this.offered.set(null);
    this.search.set('');
  }
}
