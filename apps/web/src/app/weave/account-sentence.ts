import { ChangeDetectionStrategy, Component, computed, input, model } from '@angular/core';
import { FormsModule } from '@angular/forms';
import type { AccountWeave, AddressKind } from '@pebble/contract';
import { ADDRESS_VERB } from '@pebble/core';
import { atLeastOne } from './numbers';
import { PeriodFields } from './period-fields';

/** Accounts tied by who addresses whom. */
@Component({
  selector: 'pt-account-sentence',
  imports: [FormsModule, PeriodFields],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let w = weave();
    Accounts are tied when one
    <span class="choices" role="group" aria-label="Kinds of tie">
      @for (kind of kinds(); track kind) {
        <button [class.on]="has(kind)" [attr.aria-pressed]="has(kind)" (click)="toggle(kind)">
          {{ verbs[kind] }}
        </button>
      }
    </span>
    another at least
    <input
      type="number"
      min="1"
      class="box count"
      aria-label="Messages for each tie at least"
      [ngModel]="w.atLeast"
      (ngModelChange)="change({ atLeast: atLeastOne($event) })"
    />
    {{ w.atLeast === 1 ? 'time' : 'times' }}<pt-period-fields [period]="w" (changed)="change($event)" />
    <label
      ><input type="checkbox" [ngModel]="w.isolates" (ngModelChange)="change({ isolates: $event })" /> Accounts
      without a tie are kept.</label
    >
    <label
      ><input type="checkbox" [ngModel]="w.selfTies" (ngModelChange)="change({ selfTies: $event })" /> A post
      that addresses nobody is a tie of its author to itself.</label
    >
    @if (has('mention') && kinds().includes('repost')) {
      <label
        ><input
          type="checkbox"
          [ngModel]="w.repostMentions"
          (ngModelChange)="change({ repostMentions: $event })"
        />
        A repost also counts for those whom the reposted text mentions.</label
      >
    }
    <label
      ><input
        type="checkbox"
        [ngModel]="w.share === 'divided'"
        (ngModelChange)="change({ share: $event ? 'divided' : 'whole' })"
      />
      Each message is divided by the accounts that it addresses.</label
    >
    <label
      ><input
        type="checkbox"
        [ngModel]="w.mostReceivers !== null"
        (ngModelChange)="change({ mostReceivers: $event ? 20 : null })"
      />
      Messages to very many are left out@if (w.mostReceivers !== null) {: more than
        <input
          type="number"
          min="1"
          class="box count"
          aria-label="Most receivers of a message"
          [ngModel]="w.mostReceivers"
          (ngModelChange)="change({ mostReceivers: atLeastOne($event) })"
        />}.</label
    >
  `,
  styleUrl: './sentence.scss',
})
export class AccountSentence {
  readonly weave = model.required<AccountWeave>();
  /** The ways of addressing that occur in the study. */
  readonly kinds = input.required<readonly AddressKind[]>();
  protected readonly verbs = ADDRESS_VERB;
  protected readonly atLeastOne = atLeastOne;
  private readonly chosen = computed(() => new Set(this.weave().kinds));

  protected has(kind: AddressKind): boolean {
    return this.chosen().has(kind);
  }

  protected toggle(kind: AddressKind): void {
    const next = new Set(this.chosen());
    if (!next.delete(kind)) next.add(kind);
    this.change({ kinds: this.kinds().filter((one) => next.has(one)) });
  }

  protected change(part: Partial<AccountWeave>): void {
    this.weave.update((weave) => ({ ...weave, ...part }));
  }
}
