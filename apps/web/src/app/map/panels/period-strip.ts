import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  type OnDestroy,
  output,
  signal,
} from '@angular/core';
import { MatButton } from '@angular/material/button';
import { counted, messagesByDay, periodPhrase } from '@pebble/core';
import { interval, type Subscription } from 'rxjs';
import { MapSession } from '../session/map-session';
import type { Period } from '../session/with-looking';

const DAY = 86_400_000;
/** Milliseconds for which each window is shown when it is played. */
const PACE = 900;
/** A bar of the chart stands for so many days that there are at most so many bars. */
const BARS = 120;

/**
 * The time as a strip under the map: how many messages there are, and the window of days whose ties are shown. The window is set by its two
 * ends, moved along, or played; all nodes keep their places.
 */
@Component({
  selector: 'pt-period-strip',
  imports: [MatButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './period-strip.html',
  styleUrl: './period-strip.scss',
})
export class PeriodStrip implements OnDestroy {
  readonly closed = output();
  private readonly session = inject(MapSession);
  private playing: Subscription | null = null;
  protected readonly isPlaying = signal(false);
  protected readonly isKnown = computed(() => this.session.dailyTieCounts() !== null);
  private readonly byDay = computed(() => {
    const dailyTieCounts = this.session.dailyTieCounts();
    return dailyTieCounts ? messagesByDay(dailyTieCounts) : { first: 0, messages: new Float64Array(0) };
  });
  protected readonly days = computed(() => this.byDay().messages.length);
  /** The window as days: the first one in it, and the first one after it. */
  protected readonly window = computed(() => {
    const period = this.session.passing() ?? this.session.description().show.period;
    const dayOf = (time: number | null | undefined, open: number): number =>
      time == null ? open : Math.round((time - this.byDay().first) / DAY);
    const from = Math.max(0, Math.min(this.days() - 1, dayOf(period?.from, 0)));
    return { from, until: Math.max(from + 1, Math.min(this.days(), dayOf(period?.until, this.days()))) };
  });
  protected readonly isWhole = computed(() => {
    const { from, until } = this.window();
    return from === 0 && until === this.days();
  });
  protected readonly bars = computed(() => {
    const { messages } = this.byDay();
    const each = Math.ceil(messages.length / BARS);
    const sums: number[] = [];
    messages.forEach((count, day) => {
      const bar = Math.floor(day / each);
      sums[bar] = (sums[bar] ?? 0) + count;
    });
    const most = Math.max(1, ...sums);
    return sums.map((count, i) => ({
      left: (i * each * 100) / messages.length,
      width: (Math.min(each, messages.length - i * each) * 100) / messages.length,
      height: (count * 100) / most,
    }));
  });
  protected readonly phrase = computed(() => {
    const { from, until } = this.window();
    if (this.isWhole()) return `the whole time, ${periodPhrase(this.timeOf(0), this.timeOf(this.days()))}`;
    return periodPhrase(this.timeOf(from), this.timeOf(until));
  });
  protected readonly counts = computed(() => {
    const map = this.session.prepared();
    const { from, until } = this.window();
    const messages = this.byDay().messages.subarray(from, until);
    const all = messages.reduce((sum, one) => sum + one, 0);
    return `${counted(all, 'message')} on ${counted(map?.edges.length ?? 0, 'tie')}`;
  });
  protected readonly length = computed(() => this.window().until - this.window().from);

  constructor() {
    void this.session.readDailyTieCounts();
  }

  ngOnDestroy(): void {
    this.stop();
  }

  /** Looks at another window without keeping it. */
  protected look(from: number, until: number): void {
    this.session.passTo(this.periodOf(from, until));
  }

  protected lookFrom(day: number): void {
    this.look(Math.min(day, this.window().until - 1), this.window().until);
  }

  protected lookUntil(day: number): void {
    this.look(this.window().from, Math.max(day, this.window().from + 1));
  }

  /** Keeps the window that is looked at as what the map shows, which can be undone. */
  protected keep(): void {
    const { from, until } = this.window();
    const { show, ...others } = this.session.description();
    const period = this.isWhole() ? null : this.periodOf(from, until);
    this.session.passTo(null);
    this.session.describe({ ...others, show: { ...show, period } });
  }

  protected showAll(): void {
    this.stop();
    this.look(0, this.days());
    this.keep();
  }

  /** Moves the window along by its own length, or by as much as there is room. */
  protected shift(way: -1 | 1): void {
    const { from } = this.window();
    const length = this.length();
    const to = Math.max(0, Math.min(this.days() - length, from + way * Math.max(1, Math.floor(length / 2))));
    this.look(to, to + length);
  }

  protected play(): void {
    if (this.isPlaying()) {
      this.stop();
      this.keep();
      return;
    }
    this.isPlaying.set(true);
    // The whole time has nowhere to go: a tenth of it is played from the beginning.
    const length = this.isWhole() ? Math.max(1, Math.ceil(this.days() / 10)) : this.length();
    const isAtEnd = this.window().until === this.days();
    const begin = isAtEnd ? 0 : this.window().from;
    this.look(begin, begin + length);
    this.playing = interval(PACE).subscribe(() => {
      if (this.window().until < this.days()) this.shift(1);
      else {
        this.stop();
        this.keep();
      }
    });
  }

  private stop(): void {
    this.playing?.unsubscribe();
    this.playing = null;
    this.isPlaying.set(false);
  }

  private periodOf(from: number, until: number): Period {
    return { from: this.timeOf(from), until: this.timeOf(until) };
  }

  private timeOf(day: number): number {
    return this.byDay().first + day * DAY;
  }
}
