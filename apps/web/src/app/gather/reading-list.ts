import { ScrollingModule } from '@angular/cdk/scrolling';
import { AsyncPipe } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  input,
  model,
  signal,
  viewChild,
} from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatChip, MatChipRemove, MatChipSet } from '@angular/material/chips';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatTooltip } from '@angular/material/tooltip';
import type { Message, MessageFilter, MessageKind, MessageOverview, TextSpan } from '@pebble/contract';
import { textWidth } from '@pebble/core/first';
import { switchMap } from 'rxjs';
import { Api } from '../api/api';
import { latest } from '../shared/latest';
import { MessageText } from '../shared/message-text';
import { SaveData } from '../shared/save-data';
import { OneStop } from '../shared/one-stop';
import { counted, day, languageName, moment } from '../shared/words';
import { KeptFilters } from './kept-filters';
import { RowHeights } from './row-heights';
import { MessageSource } from './message-source';
import { MessageView } from './message-view';
import { rangesFor, SCORE_RANGES } from './score-ranges';
import { CountPipe } from '../shared/count-pipe';

/** Pixels of a row above, below and between its lines, of a line of text, and to its left and right (reading-list.scss). */
const AROUND = 40;
const LINE = 20.3;
const BESIDE = 34;
const LETTERS = 14;

/** How many lines the text of a message takes: one, or two of those that are shown. Measured a little wide: letters differ by browser. */
function linesOf({ subject, text }: Message, room: number): 1 | 2 {
  if (subject) return 2;
  return text.includes('\n') || textWidth(text, LETTERS, 'plain') * 1.03 > room ? 2 : 1;
}

/** The messages to read: search, filters, and the list that loads as one scrolls. */
@Component({
  selector: 'pt-reading-list',
  imports: [
    CountPipe,
    MatTooltip,
    MatInput,
    MatFormField,
    MatButton,
    ScrollingModule,
    MatChip,
    MatChipRemove,
    MatChipSet,
    RowHeights,
    AsyncPipe,
    FormsModule,
    KeptFilters,
    MessageText,
    MessageView,
    OneStop,
    SaveData,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './reading-list.html',
  styleUrl: './reading-list.scss',
})
export class ReadingList {
  readonly study = input.required<string>();
  readonly overview = input.required<MessageOverview>();
  /** How often messages were starred or noted. */
  readonly marks = input(0);
  readonly filter = model.required<MessageFilter>();
  private readonly api = inject(Api);
  private readonly book = latest(this.study, (study) => this.api.codebook({ study }));
  /** Codes by which messages can be chosen. */
  protected readonly codes = computed(() => this.book()?.codes ?? []);
  protected readonly error = signal<string | null>(null);
  protected readonly open = signal<Message | null>(null);
  /** A row stays the same one, with the focus on it, when its message comes. */
  protected readonly byPlace = (place: number): number => place;
  protected readonly moment = moment;
  protected readonly counted = counted;
  protected readonly languageName = languageName;
  protected readonly source = computed(() => {
    // A new import changes the number of messages, and the list is read again.
    void this.overview().messages;
    // What is marked is saved once its turn has come, which may be later than it is asked for.
    if (this.filter().marked) void this.marks();
    return new MessageSource(this.api, this.study(), this.filter(), (message) => this.error.set(message));
  });
  private readonly rows = toSignal(toObservable(this.source).pipe(switchMap(({ rows }) => rows)), {
    initialValue: [],
  });
  private readonly list = viewChild.required<unknown, ElementRef<HTMLElement>>('list', { read: ElementRef });
  private readonly width = signal(1000);
  /** Each row is as high as its text, of which two lines are shown at most. */
  protected readonly heights = computed(() => {
    const room = this.width() - BESIDE;
    return this.rows().map((message) => AROUND + LINE * (message ? linesOf(message, room) : 1));
  });
  /** What the list is filtered by that has no field of its own, or is written otherwise there, each to be taken away. */
  protected readonly chips = computed(() => {
    const { from, until, mentions, author, hashtag, item, sample, seed } = this.filter();
    const chips: { readonly words: string; readonly without: MessageFilter }[] = [];
    if (from !== undefined && until !== undefined)
      chips.push({
        words: `${day(from)} to ${day(until - 1)}`,
        without: { from: undefined, until: undefined },
      });
    if (mentions) chips.push({ words: `mentions @${mentions}`, without: { mentions: undefined } });
    if (author) chips.push({ words: `by ${author}`, without: { author: undefined } });
    if (hashtag) chips.push({ words: `#${hashtag}`, without: { hashtag: undefined } });
    if (item) chips.push({ words: `under ${item}`, without: { item: undefined } });
    if (sample)
      chips.push({
        words: `random sample of ${sample}, seed ${seed}`,
        without: { sample: undefined, seed: undefined },
      });
    return chips;
  });
  protected readonly scoreRanges = computed(() => rangesFor(this.overview().scorers));
  protected readonly scoreChoice = computed(() => {
    const { scored, scoreFrom, scoreUntil } = this.filter();
    const range = SCORE_RANGES.find(
      (one) => one.scored === scored && one.scoreFrom === scoreFrom && one.scoreUntil === scoreUntil,
    );
    return range?.title ?? '';
  });
  protected readonly active = computed(() =>
    Object.values(this.filter()).some((value) => value !== undefined && value !== ''),
  );

  constructor() {
    effect((onCleanup) => {
      const list = this.list().nativeElement;
      const watcher = new ResizeObserver(() => this.width.set(list.clientWidth));
      watcher.observe(list);
      onCleanup(() => watcher.disconnect());
    });
    effect(() => {
      this.filter();
      this.open.set(null);
      this.error.set(null);
    });
  }

  protected set(part: MessageFilter): void {
    this.filter.update((filter) => ({ ...filter, ...part }));
  }

  protected setScore(title: string): void {
    const { scored, scoreFrom, scoreUntil } = SCORE_RANGES.find((range) => range.title === title) ?? {};
    this.set({ scored, scoreFrom, scoreUntil });
  }

  protected setKind(kind: string): void {
    this.set({ kind: kind === '' ? undefined : (kind as MessageKind) });
  }

  protected follow({ what, key }: TextSpan): void {
    if (what === 'hashtag') this.set({ hashtag: key });
    if (what === 'mention') this.set({ mentions: key });
  }

  /** A random sample to read, the first with seed 1, each further one with the next. */
  protected draw(): void {
    const { sample, seed } = this.filter();
    this.set({ sample: sample ?? 50, seed: (seed ?? 0) + 1 });
  }

  protected clear(): void {
    this.filter.set({});
  }

  /** Takes a changed message into the list. */
  protected change(message: Message): void {
    this.open.set(message);
    this.source().replace(message);
  }
}
