import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { MatTooltip } from '@angular/material/tooltip';
import type { FullPortrait, PortraitThing, Term } from '@pebble/contract';
import { counted, formatCount } from '@pebble/core/first';
import { languageName } from '../../shared/words';
import type { Evidence } from '../common/evidence';

/** Which terms of a group are listed. */
export type TermView = 'typical' | 'used' | 'missing';

const FEW = 7;
const MANY = 30;

/** What stands in the messages of a group: what is typical, most used, or missing; each with its messages. */
@Component({
  selector: 'pt-term-list',
  imports: [MatTooltip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrl: '../common/cells.scss',
  template: `
    <ul>
      @for (term of terms(); track term.label) {
        <li>
          <span class="name" dir="auto">{{ nameOf(term) }}</span>
          <button class="evidence" [matTooltip]="how(term)" [attr.aria-label]="spoken(term)" (click)="open(term)">
            {{ count(view() === 'missing' ? term.elsewhere : term.messages) }}
          </button>
          <span class="times">{{ times(term) }}</span>
        </li>
      } @empty {
        <li class="faint">{{ nothing() }}</li>
      }
    </ul>
    @if (view() === 'typical' && lists().ofFewAuthors > 0 && isWide()) {
      <p class="faint">
        {{ counted(lists().ofFewAuthors, 'more') }} by fewer than {{ leastAuthors() }} authors left out.
      </p>
    }
  `,
})
export class TermList {
  readonly portrait = input.required<FullPortrait>();
  readonly thing = input.required<PortraitThing>();
  readonly view = input.required<TermView>();
  readonly isWide = input(false);
  readonly leastAuthors = input.required<number>();
  /** Messages of the network. */
  readonly all = input.required<number>();
  readonly opened = output<Evidence>();
  protected readonly count = formatCount;
  protected readonly counted = (n: number, word: string): string =>
    n === 1 ? `1 ${word}` : `${formatCount(n)} ${word}`;
  protected readonly lists = computed(() => this.portrait().things[this.thing()]);
  protected readonly terms = computed(() => this.lists()[this.view()].slice(0, this.isWide() ? MANY : FEW));
  protected readonly nothing = computed(
    () => ({ typical: 'nothing stands out', used: 'none', missing: 'nothing' })[this.view()],
  );

  protected nameOf({ label }: Term): string {
    return this.thing() === 'language' ? languageName(label) : label;
  }

  /** "5.2×", "only here", "0.3×" */
  protected times({ times, elsewhere, messages }: Term): string {
    if (this.view() === 'missing') return messages === 0 ? 'never here' : `${shortly(times)}×`;
    return elsewhere === 0 ? 'only here' : `${shortly(times)}×`;
  }

  protected how(term: Term): string {
    const { messages } = this.portrait();
    const score = term.score < 0.05 ? '' : `; log-likelihood ${term.score.toFixed(1)}`;
    return (
      `In ${formatCount(term.messages)} of ${counted(messages, 'message')} here, by ${counted(term.authors, 'author')}; ` +
      `in ${formatCount(term.elsewhere)} of ${formatCount(this.all() - messages)} elsewhere${score}`
    );
  }

  protected spoken(term: Term): string {
    return `Read the messages with ${this.nameOf(term)}: ${this.how(term)}`;
  }

  protected open(term: Term): void {
    const isElsewhere = this.view() === 'missing';
    const query = { group: this.portrait().group, thing: this.thing(), label: term.label };
    this.opened.emit({
      words: isElsewhere ? `${this.nameOf(term)}, elsewhere` : this.nameOf(term),
      query: { ...query, elsewhere: isElsewhere ? 'true' : 'false' },
    });
  }
}

function shortly(times: number | null): string {
  if (times === null) return '';
  return times >= 10 ? String(Math.round(times)) : times.toFixed(1);
}
