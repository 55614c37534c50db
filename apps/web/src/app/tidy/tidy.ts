import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  linkedSignal,
  signal,
  viewChild,
} from '@angular/core';
import { RouterLink } from '@angular/router';
import { MatButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatTabLink, MatTabNav, MatTabNavPanel } from '@angular/material/tabs';
import { TidyKind, type NewDecision, type TidyQuery, type TidySort, type Verdict } from '@pebble/contract';
import { SORT_WORDS } from '@pebble/core/first';
import { Store } from '@ngrx/store';
import { of } from 'rxjs';
import { Api } from '../api/api';
import { everyPage } from '../api/every-page';
import { latest } from '../shared/latest';
import { SaveData } from '../shared/save-data';
import { work } from '../store/work.reducer';
import { CategoryPanel } from './category-panel';
import { DecisionList } from './decision-list';
import { NameFinding } from './name-finding';
import { Scores } from './scores';
import { SuggestionList } from './suggestion-list';
import { ThingPane } from './thing-pane';
import { ThingTable } from './thing-table';
import { WordField } from '../shared/word-field';
import { CountPipe } from '../shared/count-pipe';

const PAGE = 200;

/** Make names mean one thing: what was found, one after the other, with keys; nothing in the messages is changed. */
@Component({
  selector: 'pt-tidy',
  imports: [
    CountPipe,
    WordField,
    MatTabLink,
    MatTabNav,
    MatTabNavPanel,
    MatInput,
    MatFormField,
    MatButton,
    RouterLink,
    CategoryPanel,
    DecisionList,
    NameFinding,
    SaveData,
    Scores,
    SuggestionList,
    ThingPane,
    ThingTable,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './tidy.html',
  styleUrl: './tidy.scss',
  host: { '(document:keydown)': 'onKey($event)' },
})
export class Tidy {
  private readonly api = inject(Api);
  private readonly store = inject(Store);
  protected readonly study = this.store.selectSignal(work.selectStudy);
  protected readonly sorts: readonly TidySort[] = ['account', 'hashtag', 'name', 'domain', 'word'];
  protected readonly words = SORT_WORDS;
  protected readonly sort = signal<TidySort>('hashtag');
  /** Whether scores of messages are looked at, not things to review. */
  protected readonly scoring = signal(false);
  protected readonly search = signal('');
  protected readonly show = signal<TidyQuery['show']>('all');
  private readonly limit = signal(PAGE);
  private readonly version = signal(0);
  protected readonly problem = signal<string | null>(null);
  /** Decisions of this sitting, the last one last: each can be undone. */
  private readonly done = signal<readonly (readonly number[])[]>([]);
  protected readonly canUndo = computed(() => this.done().length > 0);

  private readonly asked = computed(() => ({
    study: this.study()?.id ?? '',
    sort: this.sort(),
    query: { search: this.search(), show: this.show(), limit: this.limit() },
    version: this.version(),
  }));
  protected readonly page = latest(this.asked, ({ study, sort, query }) =>
    study ? this.api.tidy({ study, sort }, query) : of(null),
  );
  private readonly pairsAsked = computed(() => ({
    study: this.study()?.id ?? '',
    sort: this.sort(),
    version: this.version(),
  }));
  protected readonly suggestions = latest(this.pairsAsked, ({ study, sort }) =>
    study ? this.api.suggestions({ study, sort }) : of(null),
  );
  private readonly allDecisions = latest(this.pairsAsked, ({ study }) =>
    study ? everyPage('decisions', (page) => this.api.decisions({ study }, page)) : of([]),
  );
  protected readonly decisions = computed(() =>
    (this.allDecisions() ?? []).filter(({ sort }) => sort === this.sort()),
  );
  protected readonly knownCategories = computed(() => [
    ...new Set(
      (this.allDecisions() ?? []).flatMap(({ verdict }) =>
        verdict.verdict === 'category' ? verdict.name : [],
      ),
    ),
  ]);
  /** Keys of the things that are marked; another sort begins anew. */
  protected readonly marked = linkedSignal<TidySort, ReadonlySet<string>>({
    source: () => this.sort(),
    computation: () => new Set(),
  });
  protected readonly markedKeys = computed(() => [...this.marked()]);
  protected readonly labels = computed(
    () => new Map((this.page()?.things ?? []).map(({ key, label }) => [key, label])),
  );
  protected readonly things = computed(() => this.page()?.things ?? []);
  /** The row that is looked at; another sort or search begins at the top. */
  protected readonly at = linkedSignal({
    source: () => `${this.sort()} ${this.search()} ${this.show()}`,
    computation: () => 0,
  });
  protected readonly thing = computed(
    () => this.things()[Math.min(this.at(), this.things().length - 1)] ?? null,
  );
  protected readonly rest = computed(() => {
    const page = this.page();
    return page && this.limit() < 1000 ? page.total - page.things.length : 0;
  });
  private readonly pane = viewChild(ThingPane);

  protected go(sort: TidySort): void {
    this.scoring.set(false);
    this.sort.set(sort);
    this.limit.set(PAGE);
  }

  protected more(): void {
    this.limit.update((limit) => Math.min(1000, limit * 2));
  }

  /** Decides on the row that is looked at, and goes to the next one that is open. */
  protected decide(verdict: Verdict): void {
    const thing = this.thing();
    if (!thing) return;
    this.send([{ key: thing.key, verdict }]);
    if (verdict.verdict === 'keep' || verdict.verdict === 'drop' || verdict.verdict === 'merge') this.next();
  }

  protected send(decisions: NewDecision[]): void {
    const study = this.study();
    if (!study) return;
    this.problem.set(null);
    this.api.step(study.id, 'tidy', { sort: this.sort(), decisions }).subscribe({
      next: ({ state, error, result }) => {
        if (state !== 'done') this.problem.set(error);
        else this.done.update((all) => [...all, (result?.['decisions'] ?? []) as number[]]);
        this.refresh();
      },
      error: (error: Error) => this.problem.set(error.message),
    });
  }

  protected undo(): void {
    const study = this.study();
    const last = this.done().at(-1);
    if (!study || !last) return;
    this.takeBack([...last]);
  }

  /** Marks a row, or no longer. */
  protected mark(row: number): void {
    const thing = this.things()[row];
    if (!thing) return;
    this.marked.update((marked) => {
      const next = new Set(marked);
      if (!next.delete(thing.key)) next.add(thing.key);
      return next;
    });
  }

  /** Something was decided by a rule or a table. */
  protected given(decisions: number[]): void {
    this.done.update((all) => [...all, decisions]);
    this.refresh();
  }

  protected takeBack(decisions: number[]): void {
    const study = this.study();
    if (!study) return;
    this.done.update((all) =>
      all.map((ids) => ids.filter((id) => !decisions.includes(id))).filter((ids) => ids.length > 0),
    );
    this.api.step(study.id, 'take-back-tidy', { decisions }).subscribe({
      next: () => this.refresh(),
      error: (error: Error) => this.problem.set(error.message),
    });
  }

  protected refresh(): void {
    this.version.update((version) => version + 1);
  }

  protected onKey(event: KeyboardEvent): void {
    const { target } = event;
    const isTyping =
      target instanceof Element && target.closest('input:not([type=checkbox]), select, textarea') !== null;
    // The space bar presses what has the focus.
    if (event.key === ' ' && target instanceof Element && target.closest('button, summary, a')) return;
    if (event.altKey || isTyping || this.scoring() || this.pane()?.isOpen()) return;
    if (event.ctrlKey || event.metaKey) {
      if (event.key === 'z') this.undo();
      return;
    }
    const kind = TidyKind.options[Number(event.key) - 1];
    switch (event.key) {
      case 'ArrowDown':
        this.move(1);
        break;
      case 'ArrowUp':
        this.move(-1);
        break;
      case 'k':
        this.decide({ verdict: 'keep' });
        break;
      case 'x':
        this.decide({ verdict: 'drop' });
        break;
      case 'm':
        this.pane()?.open('merge');
        break;
      case 'r':
        this.pane()?.open('rename');
        break;
      case ' ':
        this.mark(this.at());
        this.move(1);
        break;
      case 'u':
        this.undo();
        break;
      default:
        if (kind && this.hasKinds()) this.decide({ verdict: 'kind', kind });
        else return;
    }
    event.preventDefault();
  }

  protected hasKinds(): boolean {
    return this.sort() === 'account' || this.sort() === 'name';
  }

  private next(): void {
    const things = this.things();
    const open = things.findIndex(({ state }, i) => i > this.at() && state === 'open');
    // Of the open ones alone, the next one moves up by itself.
    if (this.show() !== 'open')
      this.move((open < 0 ? Math.min(this.at() + 1, things.length - 1) : open) - this.at());
  }

  private move(by: number): void {
    this.at.update((at) => Math.max(0, Math.min(this.things().length - 1, at + by)));
    document.getElementById(`thing-${this.at()}`)?.scrollIntoView({ block: 'nearest' });
  }
}
