import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  output,
  signal,
} from '@angular/core';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { Router } from '@angular/router';
import { MatButton } from '@angular/material/button';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatProgressBar } from '@angular/material/progress-bar';
import { MatSlider, MatSliderThumb } from '@angular/material/slider';
import { MatTooltip } from '@angular/material/tooltip';
import { SpreadOf, type Network, type Spread } from '@pebble/contract';
import { isNumbered } from '@pebble/core';
import { counted, formatCount } from '@pebble/core/first';
import { catchError, EMPTY, interval, of as just, switchMap } from 'rxjs';
import { Api, pathOf } from '../../api/api';
import { asking } from '../../shared/asking';
import { Chart } from '../../shared/chart';
import { Moments } from '../../shared/moments';
import type { ChartRows } from '../../shared/save-chart';
import { ThemeChoice } from '../../shared/theme';
import { moment } from '../../shared/words';
import { groupColour } from '../common/group-colour';
import type { Behind } from '../common/messages-behind';
import { curveOptions } from './curve-options';
import { SpreadMap } from './spread-map';
import { SpreadPicker } from './spread-picker';

/** Milliseconds of a sequence that is played, whatever its length, and between two of its pictures. */
const PLAYED = 12_000;
const PACE = 80;
/** Rows of the list of steps at first, and so many more. */
const ROWS = 40;

const HOW = {
  repost: 'reposts',
  quote: 'quotes',
  reply: 'answers',
  mention: 'mentions',
  tie: 'likely from',
} as const;

/** How a sentence, a link, a hashtag or a message went from account to account: when, from whom, into which groups. */
@Component({
  selector: 'pt-spread-view',
  imports: [
    Chart,
    FormsModule,
    MatButton,
    MatCheckbox,
    MatProgressBar,
    MatSlider,
    MatSliderThumb,
    MatTooltip,
    SpreadMap,
    SpreadPicker,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './spread-view.html',
  styleUrls: ['../common/cells.scss', './spread-view.scss'],
})
export class SpreadView {
  readonly study = input.required<string>();
  /** On whose groups and map it is told; null where there is none. */
  readonly network = input.required<Network | null>();
  readonly column = input.required<string>();
  /** From the address: what spread, and whether ties tell of it too. */
  readonly of = input<string>();
  readonly ties = input<string>();
  readonly opened = output<Behind>();
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  private readonly theme = inject(ThemeChoice);
  private readonly moments = inject(Moments);
  protected readonly count = formatCount;
  protected readonly counted = counted;
  protected readonly moment = moment;
  protected readonly how = HOW;
  protected readonly wanted = computed(() => wantedIn(this.of()));
  protected readonly byTies = computed(() => this.ties() === 'yes');
  private readonly asked = computed(() => {
    const of = this.wanted();
    const network = this.network()?.id ?? null;
    const [column, byTies] = [this.column(), this.byTies()];
    return of && { study: this.study(), body: { of, network, column, byTies } };
  });
  private readonly asking = asking(this.asked, ({ study, body }) => this.api.spread({ study }, body));
  protected readonly found = this.asking.found;
  protected readonly error = this.asking.error;
  protected readonly isBusy = this.asking.isBusy;
  protected readonly positions = signal<Float32Array | null>(null);
  protected readonly rowsShown = linkedSignal({ source: this.found, computation: () => ROWS });
  /** So many steps stand on the map. */
  protected readonly until = linkedSignal(() => this.found()?.steps.length ?? 0);
  protected readonly playing = signal(false);
  protected readonly now = computed(() => {
    const step = this.found()?.steps.at(Math.max(0, this.until() - 1));
    return step && this.until() > 0 ? `${moment(step.time)}: ${step.label}` : '';
  });
  protected readonly onMap = computed(() => this.found()?.steps.some(({ node }) => node !== null) ?? false);
  protected readonly largest = computed(() => this.found()?.trees.at(0) ?? null);
  private readonly places = computed(
    () => new Map((this.found()?.entries ?? []).map(({ group, place }) => [group, place])),
  );
  /** As on the map; for what is in no group with others the last one. */
  protected readonly colourOf = computed(() => {
    const places = this.places();
    return (group: string): string => groupColour(places.get(group) ?? Infinity);
  });
  protected readonly chart = computed(() => {
    const found = this.found();
    return found ? curveOptions(found.curve, this.moments.all(), this.theme.map()) : {};
  });
  protected readonly rows = computed<ChartRows>(() => {
    const found = this.found();
    if (!found) return [];
    return [
      ['account', 'time', 'message', 'from', 'how', 'steps from the first', 'group'],
      ...found.steps.map(({ label, time, message, from, how, depth, group }) => [
        label,
        new Date(time).toISOString(),
        message,
        from === null ? '' : found.steps[from].label,
        how ?? '',
        depth,
        group === null ? '' : this.titleOf(group),
      ]),
    ];
  });

  constructor() {
    effect(() => {
      // What is played belongs to what was found.
      this.found();
      this.playing.set(false);
    });
    effect((onCleanup) => {
      const network = this.network();
      this.positions.set(null);
      if (!network) return;
      // A map that was never arranged has no places.
      const reading = this.api
        .positions(pathOf(network))
        .pipe(catchError(() => just(null)))
        .subscribe((bytes) => this.positions.set(bytes ? new Float32Array(bytes) : null));
      onCleanup(() => reading.unsubscribe());
    });
    toObservable(this.playing)
      .pipe(
        switchMap((playing) => (playing ? interval(PACE) : EMPTY)),
        takeUntilDestroyed(),
      )
      .subscribe(() => this.playOn());
  }

  /** What a group is called. */
  protected titleOf(group: string): string {
    const title = this.network()?.titles[this.column()]?.[group];
    return title ?? (isNumbered(group) ? `group ${group}` : group);
  }

  protected choose(of: SpreadOf): void {
    void this.router.navigate([], {
      queryParams: { spread: JSON.stringify(of) },
      queryParamsHandling: 'merge',
      replaceUrl: this.of() === undefined,
    });
  }

  protected setTies(isWanted: boolean): void {
    void this.router.navigate([], {
      queryParams: { ties: isWanted ? 'yes' : null },
      queryParamsHandling: 'merge',
      replaceUrl: true,
    });
  }

  protected play(): void {
    const steps = this.found()?.steps.length ?? 0;
    if (!this.playing() && this.until() >= steps) this.until.set(0);
    this.playing.update((playing) => !playing);
  }

  private playOn(): void {
    const steps = this.found()?.steps.length ?? 0;
    this.until.update((before) => Math.min(steps, before + Math.max(1, Math.round((steps * PACE) / PLAYED))));
    if (this.until() >= steps) this.playing.set(false);
  }

  protected openAll(): void {
    this.read(this.found()!.name, 'All of them', {});
  }

  protected openAccount({ label }: Spread['steps'][number]): void {
    this.read(label, `With ${this.found()!.name}`, { author: label });
  }

  protected openGroup(group: string): void {
    const network = this.network();
    if (network)
      this.read(this.titleOf(group), `With ${this.found()!.name}`, {
        within: { network: network.id, column: this.column(), group },
      });
  }

  protected openColumn(at: number): void {
    const { start, width } = this.found()!.curve;
    const from = start + at * width;
    this.read(moment(from), `With ${this.found()!.name}`, { from, until: from + width });
  }

  private read(
    words: string,
    where: string,
    asked: {
      author?: string;
      from?: number;
      until?: number;
      within?: { network: string; column: string; group: string };
    },
  ): void {
    const of = this.wanted();
    if (!of) return;
    this.opened.emit({
      words,
      where,
      ...('label' in of ? { found: of.label } : {}),
      page: (offset, limit) =>
        this.api.spreadMessages({ study: this.study() }, { of, within: null, ...asked, offset, limit }),
    });
  }
}

/** What an address names; null where it names nothing that can be asked of. */
function wantedIn(text: string | undefined): SpreadOf | null {
  if (text === undefined) return null;
  try {
    return SpreadOf.safeParse(JSON.parse(text)).data ?? null;
  } catch {
    return null;
  }
}
