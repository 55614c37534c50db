import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatProgressBar } from '@angular/material/progress-bar';
import { MatTooltip } from '@angular/material/tooltip';
import type { LeadingRow, Network, OverTimeThing, TrendRow } from '@pebble/contract';
import { counted, formatCount } from '@pebble/core/first';
import { Api, pathOf } from '../../api/api';
import { asking } from '../../shared/asking';
import { Chart } from '../../shared/chart';
import { Moments } from '../../shared/moments';
import type { ChartRows } from '../../shared/save-chart';
import { timesOf } from '../../shared/slices';
import { ThemeChoice } from '../../shared/theme';
import { languageName } from '../../shared/words';
import type { Behind } from '../common/messages-behind';
import { THING_WORDS } from '../common/thing-words';
import { MOST_LINES, ranksOptions } from './ranks-options';

/** Ranks that are shown of each slice. */
const MOST = 10;

const WORDS: Readonly<Record<OverTimeThing, string>> = {
  ...THING_WORDS,
  author: 'accounts that write',
  addressed: 'accounts that are addressed',
};

/** What leads in each slice, and what rises and falls over all of them; every count opens its messages. */
@Component({
  selector: 'pt-over-time',
  imports: [Chart, FormsModule, MatFormField, MatInput, MatProgressBar, MatTooltip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './over-time.html',
  styleUrls: ['../common/cells.scss', './over-time.scss'],
})
export class OverTimeView {
  /** The whole, and its slices in the order of time. */
  readonly network = input.required<Network>();
  readonly slices = input.required<readonly Network[]>();
  readonly opened = output<Behind>();
  private readonly api = inject(Api);
  private readonly moments = inject(Moments);
  private readonly theme = inject(ThemeChoice);
  protected readonly count = formatCount;
  protected readonly counted = counted;
  protected readonly words = WORDS;
  protected readonly thing = signal<OverTimeThing>('hashtag');
  protected readonly leastAuthors = signal(3);
  private readonly asked = computed(() => ({
    place: pathOf(this.network()),
    query: { thing: this.thing(), leastAuthors: this.leastAuthors(), most: MOST },
  }));
  private readonly asking = asking(this.asked, ({ place, query }) => this.api.overTime(place, query));
  protected readonly found = this.asking.found;
  protected readonly error = this.asking.error;
  protected readonly isBusy = this.asking.isBusy;
  /** What can be asked: whom messages address only where ties are that. */
  protected readonly things = computed(() => {
    const { weave, directed } = this.network();
    const isByAddress = weave?.what === 'accounts' && directed;
    return (Object.keys(WORDS) as OverTimeThing[]).filter((thing) => isByAddress || thing !== 'addressed');
  });
  protected readonly furtherLines = computed(() =>
    Math.max(0, (this.found()?.leading.length ?? 0) - MOST_LINES),
  );
  protected readonly chart = computed(() => {
    const found = this.found();
    const colours = this.theme.map();
    return found ? ranksOptions(found, MOST, (label) => this.nameOf(label), this.axis(), colours) : {};
  });
  private readonly axis = computed(() => ({ moments: this.moments.all(), ...timesOf(this.slices()) }));
  protected readonly rows = computed<ChartRows>(() => {
    const found = this.found();
    if (!found) return [];
    return [
      [WORDS[this.thing()], ...found.slices.flatMap(({ title }) => [title, `${title}, rank`])],
      ...found.leading.map(({ label, counts, ranks }) => [
        label,
        ...counts.flatMap((own, s) => [own, ranks[s] ?? '']),
      ]),
    ];
  });

  protected nameOf(label: string): string {
    return this.thing() === 'language' ? languageName(label) : label;
  }

  protected setLeast(typed: number): void {
    this.leastAuthors.set(Math.min(1000, Math.max(1, Math.round(typed) || 1)));
  }

  protected times({ times }: TrendRow): string {
    if (times === null) return 'begins later';
    return times >= 1 ? `${times.toFixed(1)} ×` : times === 0 ? 'ends' : `1/${(1 / times).toFixed(1)}`;
  }

  protected sure({ z }: TrendRow): string {
    return `${Math.abs(z).toFixed(1)} standard deviations from an even share (Cochran & Armitage 1955)`;
  }

  protected pickedIn(data: unknown): void {
    const { pick } = data as { pick?: { row: number; slice: number } };
    const row = pick && this.found()?.leading.at(pick.row);
    if (pick && row) this.open(row, pick.slice);
  }

  /** Opens the messages that a count counts. */
  protected open({ label, nodes }: LeadingRow | TrendRow, slice: number): void {
    const found = this.found();
    if (!found) return;
    const thing = this.thing();
    const { network, title } = found.slices[slice];
    const study = this.network().study;
    const node = nodes?.at(slice);
    this.opened.emit({
      words: this.nameOf(label),
      where: `${thing === 'addressed' ? 'Addressed in' : 'In'} ${title}`,
      ...(thing === 'author' || thing === 'addressed' ? {} : { found: label }),
      page: (offset, limit) =>
        thing === 'addressed'
          ? this.api.groupMessages(
              { study, network },
              { column: '', group: '', node: node ?? -1, way: 'in', offset, limit },
            )
          : this.api.setMessages(
              { study },
              {
                set: { what: 'network', network },
                ...(thing === 'author' ? { author: label } : { thing, label }),
                offset,
                limit,
              },
            ),
    });
  }
}
