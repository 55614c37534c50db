import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { Router } from '@angular/router';
import { MatButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatProgressBar } from '@angular/material/progress-bar';
import { MatTooltip } from '@angular/material/tooltip';
import { MessageSet, type Network } from '@pebble/contract';
import { formatCount } from '@pebble/core/first';
import { Store } from '@ngrx/store';
import { Api } from '../../api/api';
import { asking } from '../../shared/asking';
import { Chart } from '../../shared/chart';
import { Moments } from '../../shared/moments';
import { ThemeChoice } from '../../shared/theme';
import { work } from '../../store/work.reducer';
import type { Behind } from '../common/messages-behind';
import { Portraits } from '../common/portraits';
import { comparedDays } from './compared-days';
import { comparedRows, type Line, type Side } from './compared-rows';
import { readyMade, type ReadyMade } from './ready-made';
import { SetPicker } from './set-picker';
import { setWords } from './set-words';

/** Two of anything beside each other: what is typical of each, what both have; every number opens its messages. */
@Component({
  selector: 'pt-compare',
  imports: [Chart, MatButton, MatFormField, MatInput, MatProgressBar, MatTooltip, SetPicker],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './compare.html',
  styleUrls: ['../common/cells.scss', '../common/view.scss', './compare.scss'],
})
export class Compare {
  readonly study = input.required<string>();
  /** The network whose groups can be compared; null where there is none. */
  readonly network = input.required<Network | null>();
  readonly column = input.required<string>();
  /** From the address: the two sets. */
  readonly a = input<string>();
  readonly b = input<string>();
  readonly opened = output<Behind>();
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  private readonly store = inject(Store);
  private readonly theme = inject(ThemeChoice);
  private readonly moments = inject(Moments);
  private readonly portraits = inject(Portraits);
  private readonly networks = this.store.selectSignal(work.selectNetworks);
  private readonly sources = this.store.selectSignal(work.selectSources);
  private readonly overview = this.store.selectSignal(work.selectOverview);
  protected readonly isWide = signal(false);
  protected readonly count = formatCount;
  protected readonly sides: readonly Side[] = ['a', 'b'];
  protected readonly parts = ['a', 'both', 'b'] as const;

  protected readonly hasMessages = computed(() => (this.overview()?.messages ?? 0) > 0);
  /** What is offered: months, or slices. */
  protected readonly offers = computed(() =>
    readyMade(this.networks(), this.network(), this.overview()?.from ?? null, this.overview()?.until ?? null),
  );
  /** The two sets; the first that is offered, or two groups, where the address names none. */
  protected readonly sets = computed((): Record<Side, MessageSet> => {
    const network = this.network();
    const group = (at: number): MessageSet =>
      network === null
        ? { what: 'filter', filter: {} }
        : {
            what: 'group',
            network: network.id,
            column: this.column(),
            group: this.portraits.list()?.groups[at]?.group ?? '',
          };
    const first = this.offers().at(0);
    return {
      a: setIn(this.a()) ?? first?.a ?? group(0),
      b: setIn(this.b()) ?? first?.b ?? group(1),
    };
  });
  private readonly asked = computed(() => {
    const { a, b } = this.sets();
    const isChosen = [a, b].every((set) => set.what !== 'group' || set.group !== '');
    return this.hasMessages() && isChosen ? { study: this.study(), body: { a, b, leastAuthors: 3 } } : null;
  });
  private readonly asking = asking(this.asked, ({ study, body }) => this.api.comparison({ study }, body));
  protected readonly found = this.asking.found;
  protected readonly error = this.asking.error;
  protected readonly isBusy = this.asking.isBusy;
  protected readonly words = computed(() => {
    const names = { networks: this.networks(), sources: this.sources() };
    return { a: setWords(this.sets().a, names), b: setWords(this.sets().b, names) };
  });
  protected readonly rows = computed(() => {
    const found = this.found();
    return found ? comparedRows(found, this.isWide()) : [];
  });
  protected readonly chart = computed(() =>
    comparedDays(this.found()?.days ?? [], this.moments.all(), this.theme.map()),
  );

  /** What is compared stands in the address. */
  protected choose(part: Partial<Record<Side, MessageSet>>): void {
    const next = { ...this.sets(), ...part };
    void this.router.navigate([], {
      queryParams: { a: JSON.stringify(next.a), b: JSON.stringify(next.b) },
      queryParamsHandling: 'merge',
    });
  }

  protected take(offer: ReadyMade): void {
    this.choose({ a: offer.a, b: offer.b });
  }

  protected takeAt(at: string): void {
    const offer = this.offers().at(Number(at));
    if (offer) this.take(offer);
  }

  protected exchange(): void {
    const { a, b } = this.sets();
    this.choose({ a: b, b: a });
  }

  /** Which of those that are offered is compared now. */
  protected isOffer(offer: ReadyMade): boolean {
    const { a, b } = this.sets();
    return JSON.stringify([offer.a, offer.b]) === JSON.stringify([a, b]);
  }

  /** Opens the messages of one side; where the other side is typical, only those that are not in it count. */
  protected open(line: Line, side: Side, isElsewhere: boolean): void {
    const sets = this.sets();
    const set = sets[side];
    const without = isElsewhere ? sets[side === 'a' ? 'b' : 'a'] : null;
    const study = this.study();
    this.opened.emit({
      words: line.label,
      where: `In ${side.toUpperCase()}, ${this.words()[side]}`,
      found: line.ask.label,
      page: (offset, limit) => this.api.setMessages({ study }, { set, without, ...line.ask, offset, limit }),
    });
  }
}

/** The set that an address names; null where it names none. */
function setIn(text: string | undefined): MessageSet | null {
  if (text === undefined) return null;
  try {
    const read = MessageSet.safeParse(JSON.parse(text));
    return read.success ? read.data : null;
  } catch {
    return null;
  }
}
