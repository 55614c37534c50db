import { ChangeDetectionStrategy, Component, computed, input, model } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButtonToggle, MatButtonToggleGroup } from '@angular/material/button-toggle';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import type { AccountWeave, AddressKind } from '@pebble/contract';
import { ADDRESS_VERB } from '@pebble/core';
import { atLeastOne } from './numbers';
import { PeriodFields } from './period-fields';

/** Accounts tied by who addresses whom. */
@Component({
  selector: 'pt-account-sentence',
  imports: [
    MatButtonToggle,
    MatButtonToggleGroup,
    MatInput,
    MatFormField,
    MatCheckbox,
    FormsModule,
    PeriodFields,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let w = weave();
    Accounts are tied when one
    <mat-button-toggle-group class="choices" multiple aria-label="Kinds of tie">
      @for (kind of kinds(); track kind) {
        <mat-button-toggle [checked]="has(kind)" (change)="toggle(kind)">{{ verbs[kind] }}</mat-button-toggle>
      }
    </mat-button-toggle-group>
    another at least
    <mat-form-field class="count"><input matInput
      type="number"
      min="1"
      aria-label="Messages for each tie at least"
      [ngModel]="w.atLeast"
      (ngModelChange)="change({ atLeast: atLeastOne($event) })" /></mat-form-field>
    {{ w.atLeast === 1 ? 'time' : 'times' }}<pt-period-fields [period]="w" (changed)="change($event)" />
    <mat-checkbox [ngModel]="w.isolates" (ngModelChange)="change({ isolates: $event })">Accounts
      without a tie are kept.</mat-checkbox>
    <mat-checkbox [ngModel]="w.selfTies" (ngModelChange)="change({ selfTies: $event })">A post
      that addresses nobody is a tie of its author to itself.</mat-checkbox>
    @if (has('mention') && kinds().includes('repost')) {
      <mat-checkbox
          [ngModel]="w.repostMentions"
          (ngModelChange)="change({ repostMentions: $event })">A repost also counts for those whom the reposted text mentions.</mat-checkbox>
    }
    <mat-checkbox
        [ngModel]="w.share === 'divided'"
        (ngModelChange)="change({ share: $event ? 'divided' : 'whole' })">Each message is divided by the accounts that it addresses.</mat-checkbox>
    <div class="with-number">
      <mat-checkbox
        [ngModel]="w.mostReceivers !== null"
        (ngModelChange)="change({ mostReceivers: $event ? 20 : null })">Messages to very many are left out{{ w.mostReceivers === null ? '.' : '' }}</mat-checkbox>
      @if (w.mostReceivers !== null) {
        : more than
        <mat-form-field class="count"><input matInput
          type="number"
          min="1"
          aria-label="Most receivers of a message"
          [ngModel]="w.mostReceivers"
          (ngModelChange)="change({ mostReceivers: atLeastOne($event) })" /></mat-form-field>.
      }
    </div>
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
