import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Router } from '@angular/router';
import { MatButton } from '@angular/material/button';
import { MatButtonToggle, MatButtonToggleGroup } from '@angular/material/button-toggle';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatTooltip } from '@angular/material/tooltip';
import {
  FollowSettings,
  LONGEST_NAME,
  THROUGH_TIME,
  type Following,
  type Network,
  type SliceBy,
} from '@pebble/contract';
import { nodeWords, wovenAs } from '@pebble/core';
import { counted } from '@pebble/core/first';
import { Store } from '@ngrx/store';
import { Api, pathOf } from '../../api/api';
import { Busy } from '../../shared/busy';
import { Chart } from '../../shared/chart';
import { columnOf } from '../../shared/moment-marks';
import { Moments } from '../../shared/moments';
import type { ChartRows } from '../../shared/save-chart';
import { slicesOf, timesOf, wholeOf } from '../../shared/slices';
import { stepRun } from '../../shared/step-run';
import { shortened } from '../../shared/words';
import { ThemeChoice } from '../../shared/theme';
import { work } from '../../store/work.reducer';
import type { Behind } from '../common/messages-behind';
import { flowOptions, SIDE, type FlowPick } from './flow-options';
import { FollowedNodesView } from './followed-nodes';
import { Happenings } from './happenings';
import { MomentsPanel } from './moments-panel';
import { OverTimeView } from './over-time';
import { draftOf } from '../../shared/draft';
import { doneSteps } from '../../shared/done-steps';

/** Width of a slice in a chart that has to be scrolled. */
const SLICE_WIDTH = 132;

/** Groups, hashtags and accounts through the slices of a network: what goes on, begins, ends, grows and shrinks. */
@Component({
  selector: 'pt-change',
  imports: [
    Busy,
    Chart,
    FollowedNodesView,
    FormsModule,
    Happenings,
    MatButton,
    MatButtonToggle,
    MatButtonToggleGroup,
    MatFormField,
    MatInput,
    MatTooltip,
    MomentsPanel,
    OverTimeView,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './change.html',
  styleUrls: ['../common/cells.scss', '../common/view.scss', './change.scss'],
})
export class Change {
  /** The network that is read: the whole, one of its slices, or one that was not sliced. */
  readonly network = input.required<Network>();
  readonly column = input.required<string>();
  /** From the address: what is shown. */
  readonly show = input<string>();
  readonly opened = output<Behind>();
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  private readonly store = inject(Store);
  private readonly theme = inject(ThemeChoice);
  private readonly moments = inject(Moments);
  private readonly networks = this.store.selectSignal(work.selectNetworks);
  private readonly steps = this.store.selectSignal(work.selectSteps);
  protected readonly counted = counted;
  protected readonly following = signal<Following | null>(null);
  protected readonly isRead = signal(false);
  protected readonly error = signal<string | null>(null);
  protected readonly follow = stepRun();
  protected readonly weaving = stepRun();
  protected readonly pick = signal<FlowPick | null>(null);
  /** Lines that have a place of their own in the chart. */
  protected readonly lines = signal(8);
  protected readonly by = signal<SliceBy>('month');
  protected readonly part = computed(() =>
    this.show() === 'leads' || this.show() === 'moments' ? this.show() : 'groups',
  );
  protected readonly whole = computed(() => {
    const id = wholeOf(this.network());
    return this.networks().find((one) => one.id === id) ?? this.network();
  });
  private readonly wholeId = computed(() => this.whole().id);
  protected readonly slices = computed(() => slicesOf(this.networks(), this.wholeId()));
  protected readonly hasSlices = computed(() => this.slices().length > 1);
  /** Whether the network comes from messages, so that its time can be cut. */
  protected readonly canBeSliced = computed(() => {
    const { weave } = this.whole();
    return weave !== null && 'from' in weave;
  });
  protected readonly settings = draftOf(() => {
    const { threshold, least, patience } = this.following()?.settings ?? FollowSettings.parse({});
    return { share: Math.round(100 * threshold), least, patience };
  });
  protected readonly titles = computed(() => {
    const titles = this.whole().titles[THROUGH_TIME] ?? {};
    return (line: string): string => (line === '' ? 'smaller groups' : (titles[line] ?? `group ${line}`));
  });
  /** How often they were followed: when it is once more, they are read anew. */
  private readonly followed = computed(() =>
    doneSteps(
      this.steps(),
      ({ kind, parameters }) => kind === 'follow-groups' && parameters['network'] === this.wholeId(),
    ),
  );
  protected readonly isFollowing = computed(
    () =>
      this.follow.busy() ||
      this.steps().some(
        ({ kind, state, parameters }) =>
          kind === 'follow-groups' &&
          (state === 'running' || state === 'waiting') &&
          parameters['network'] === this.wholeId(),
      ),
  );
  protected readonly chart = computed(() => {
    const following = this.following();
    return following
      ? flowOptions(following, this.lines(), this.titles(), this.words(), this.theme.map())
      : {};
  });
  protected readonly width = computed(() => {
    const slices = this.following()?.slices.length ?? 0;
    return `max(100%, ${2 * SIDE + (slices - 1) * SLICE_WIDTH}px)`;
  });
  /** Where each slice stands over the chart, and the moments that fall into it. */
  protected readonly heads = computed(() => {
    const following = this.following();
    if (!following) return [];
    const { starts, end } = timesOf(this.slices());
    const last = Math.max(1, following.slices.length - 1);
    return following.slices.map(({ title, nodes, followed }, s) => ({
      title,
      nodes,
      rest: nodes - followed,
      left: `calc(${SIDE}px + (100% - ${2 * SIDE}px) * ${s / last})`,
      moments: this.moments.all().filter(({ time }) => columnOf(time, starts, end) === s),
    }));
  });
  /** Title, count, and a line for each moment. */
  protected readonly headHeight = computed(
    () =>
      (this.heads().length > 5 ? 58 : 40) +
      17 * Math.max(0, ...this.heads().map((one) => one.moments.length)),
  );
  protected readonly words = computed(() => nodeWords(wovenAs(this.whole())));
  protected readonly rows = computed<ChartRows>(() => {
    const following = this.following();
    if (!following) return [];
    const title = this.titles();
    const { slices } = following;
    return [
      ['slice', 'group', 'next slice', 'group there', 'nodes'],
      ...following.bands.map(({ slice, from, to, nodes }) => [
        slices[slice].title,
        title(from),
        slices[slice + 1].title,
        title(to),
        nodes,
      ]),
    ];
  });

  constructor() {
    effect((onCleanup) => {
      const whole = this.wholeId();
      this.followed();
      this.isRead.set(false);
      this.error.set(null);
      const reading = untracked(() =>
        this.api.following({ study: this.whole().study, network: whole }).subscribe({
          next: (following) => {
            this.following.set(following);
            this.isRead.set(true);
          },
          error: (error: Error) => this.error.set(error.message),
        }),
      );
      onCleanup(() => reading.unsubscribe());
    });
    effect(() => {
      // What was chosen in another network says nothing of this one.
      this.wholeId();
      this.pick.set(null);
    });
  }

  protected choose(show: string): void {
    void this.router.navigate([], { queryParams: { show }, queryParamsHandling: 'merge', replaceUrl: true });
  }

  protected pickedIn(data: unknown): void {
    const { pick } = data as { pick?: FlowPick | null };
    if (pick) this.pick.set(pick);
  }

  protected set(part: Partial<{ share: number; least: number; patience: number }>): void {
    this.settings.update((before) => ({ ...before, ...part }));
  }

  protected followAgain(): void {
    const { share, least, patience } = this.settings();
    const whole = this.whole();
    const column = this.column() === THROUGH_TIME ? (this.following()?.column ?? 'community') : this.column();
    const within = (value: number, from: number, to: number): number =>
      Math.min(to, Math.max(from, Math.round(value) || from));
    const settings = {
      threshold: within(share, 1, 100) / 100,
      least: within(least, 2, 10_000),
      patience: within(patience, 0, 20),
    };
    this.follow.start(whole.study, 'follow-groups', { network: whole.id, column, settings }, () => {
      this.api.following(pathOf(whole)).subscribe((following) => this.following.set(following));
    });
  }

  /** Weaves the same network anew with slices, and goes to it. */
  protected weaveSlices(): void {
    const { study, name, weave } = this.whole();
    if (!weave) return;
    const as = ` by ${this.by()}`;
    const asked = { name: shortened(name, LONGEST_NAME - as.length) + as, weave, by: this.by(), event: null };
    this.weaving.start(study, 'weave-slices', asked, ({ result }) => {
      void this.router.navigate(['/studies', study, 'read', String(result?.['network'])], {
        queryParams: { view: 'change' },
      });
    });
  }
}
