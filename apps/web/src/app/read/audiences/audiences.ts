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
import { MatButton } from '@angular/material/button';
import { MatButtonToggle, MatButtonToggleGroup } from '@angular/material/button-toggle';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatTooltip } from '@angular/material/tooltip';
import {
  MOST_SETS,
  type AudienceMembers,
  type Audiences,
  type AudienceSets,
  type AudienceSort,
  type Network,
} from '@pebble/contract';
import { handleKey, saveableCsv } from '@pebble/core';
import { counted, formatCount } from '@pebble/core/first';
import { Store } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import { Api } from '../../api/api';
import { Busy } from '../../shared/busy';
import { saveFile } from '../../shared/png';
import { stepRun } from '../../shared/step-run';
import { Notices } from '../../store/notices';
import { work } from '../../store/work.reducer';
import { AUDIENCE_WORDS, questionWords, type Wanted } from './audience-words';

/** Sets that are chosen at first. */
const AT_FIRST = 4;
const PAGE = 50;
/** Members that are saved with one question. */
const TOGETHER = 10_000;
/** Members of which a category is made at most: each is a decision of its own. */
const MOST_DECISIONS = 5000;

/** Who belongs to which combination of audiences, and who is in some but not in others. */
@Component({
  selector: 'pt-audiences',
  imports: [
    Busy,
    FormsModule,
    MatButton,
    MatButtonToggle,
    MatButtonToggleGroup,
    MatCheckbox,
    MatFormField,
    MatInput,
    MatTooltip,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './audiences.html',
  styleUrls: ['../common/cells.scss', './audiences.scss'],
})
export class AudiencesView {
  readonly study = input.required<string>();
  private readonly api = inject(Api);
  private readonly notices = inject(Notices);
  private readonly store = inject(Store);
  private readonly networks = this.store.selectSignal(work.selectNetworks);
  private readonly overview = this.store.selectSignal(work.selectOverview);
  protected readonly words = AUDIENCE_WORDS;
  protected readonly most = MOST_SETS;
  protected readonly count = formatCount;
  protected readonly counted = counted;
  protected readonly marking = stepRun();
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
  private readonly asked = computed(() => {
    const sort = this.sort();
    const network = this.network()?.id;
    return sort ? { sort, ...(network ? { network } : {}) } : null;
  });
  protected readonly search = signal('');
  protected readonly offered = signal<AudienceSets | null>(null);
  /** Names of the sets that are looked at. */
  protected readonly chosen = signal<readonly string[]>([]);
  protected readonly found = signal<Audiences | null>(null);
  protected readonly wanted = signal<readonly Wanted[]>([]);
  protected readonly members = signal<AudienceMembers | null>(null);
  protected readonly error = signal<string | null>(null);
  protected readonly isSaving = signal(false);
  /** The category that is made of the members, and which one they are. */
  protected readonly category = signal('audience');
  protected readonly value = signal('');
  protected readonly largest = computed(() =>
    Math.max(1, ...(this.found()?.combinations ?? []).map((one) => one.members)),
  );
  protected readonly question = computed(() => {
    const sort = this.sort();
    const [one, many] = this.words[sort ?? 'followers'].does;
    return sort && questionWords(this.members()?.total === 1 ? one : many, this.chosen(), this.wanted());
  });
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
            if (untracked(this.chosen).length === 0 && search === '')
              this.choose(offered.sets.slice(0, AT_FIRST).map(({ name }) => name));
          },
          error: (error: Error) => this.error.set(error.message),
        });
      onCleanup(() => reading.unsubscribe());
    });
    effect((onCleanup) => {
      const asked = this.asked();
      const names = this.chosen();
      this.found.set(null);
      this.error.set(null);
      if (!asked || names.length === 0) return;
      const reading = this.api
        .audiences({ study: untracked(this.study) }, { ...asked, names: [...names] })
        .subscribe({
          next: (found) => this.found.set(found),
          error: (error: Error) => this.error.set(error.message),
        });
      onCleanup(() => reading.unsubscribe());
    });
    effect((onCleanup) => {
      const request = this.request(0, PAGE);
      this.members.set(null);
      if (!request || this.question() === null) return;
      const reading = this.api.audienceMembers({ study: untracked(this.study) }, request).subscribe({
        next: (members) => this.members.set(members),
        error: (error: Error) => this.error.set(error.message),
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

  /** What is asked of one of the sets. */
  protected want(at: number, wanted: Wanted): void {
    this.wanted.update((all) => all.map((one, i) => (i === at ? wanted : one)));
  }

  /** Asks for the members of exactly one combination. */
  protected ask(sets: readonly number[]): void {
    this.wanted.set(this.chosen().map((_, i) => (sets.includes(i) ? 'in' : 'out')));
  }

  /** Asks for the members of both of a pair. */
  protected askPair(a: number, b: number): void {
    this.wanted.set(this.chosen().map((_, i) => (i === a || i === b ? 'in' : 'either')));
  }

  protected more(): void {
    const before = this.members();
    const request = this.request(before?.members.length ?? 0, PAGE);
    if (!before || !request) return;
    this.api.audienceMembers({ study: this.study() }, request).subscribe({
      next: ({ members }) => this.members.set({ ...before, members: [...before.members, ...members] }),
      error: (error: Error) => this.error.set(error.message),
    });
  }

  /** Saves all members as CSV. */
  protected async save(): Promise<void> {
    this.isSaving.set(true);
    try {
      const members = await this.all();
      const names = this.chosen();
      const rows = members.map(({ handle, name, description, sets }) => [
        handle,
        name ?? '',
        description ?? '',
        sets.map((at) => names[at]).join('; '),
      ]);
      const text = `\ufeff${saveableCsv([['handle', 'name', 'description', 'sets'], ...rows])}`;
      saveFile(new Blob([text], { type: 'text/csv;charset=utf-8' }), `${this.question() ?? 'audience'}.csv`);
      this.notices.say(`${counted(members.length, 'row')} saved.`);
    } catch (error) {
      this.error.set((error as Error).message);
    } finally {
      this.isSaving.set(false);
    }
  }

  /** Makes a category of the members, which weaving brings along as a column of the nodes. */
  protected async mark(): Promise<void> {
    const total = this.members()?.total ?? 0;
    const [name, value] = [this.category().trim(), this.value().trim()];
    if (total > MOST_DECISIONS) {
      this.error.set(
        `A category can be made of at most ${formatCount(MOST_DECISIONS)} accounts at once; these are ${formatCount(total)}. Save them as CSV and take the file in under Tidy.`,
      );
      return;
    }
    if (name === '' || value === '') return;
    try {
      const members = await this.all();
      const decisions = members.map(({ handle }) => ({
        key: handleKey(handle),
        verdict: { verdict: 'category' as const, name, value },
      }));
      this.marking.start(this.study(), 'tidy', { sort: 'account', decisions }, () =>
        this.notices.say(
          `${counted(members.length, 'account')} are “${value}” by “${name}”; networks have it once they are woven again.`,
        ),
      );
    } catch (error) {
      this.error.set((error as Error).message);
    }
  }

  private async all(): Promise<AudienceMembers['members']> {
    const members: AudienceMembers['members'] = [];
    for (;;) {
      const request = this.request(members.length, TOGETHER);
      if (!request) return members;
      const page = await firstValueFrom(this.api.audienceMembers({ study: this.study() }, request));
      members.push(...page.members);
      if (page.members.length === 0 || members.length >= page.total) return members;
    }
  }

  private request(offset: number, limit: number) {
    const asked = this.asked();
    const wanted = this.wanted();
    if (!asked || this.chosen().length === 0) return null;
    const placesOf = (which: Wanted): number[] => wanted.flatMap((one, i) => (one === which ? [i] : []));
    return {
      ...asked,
      names: [...this.chosen()],
      inside: placesOf('in'),
      outside: placesOf('out'),
      offset,
      limit,
    };
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
