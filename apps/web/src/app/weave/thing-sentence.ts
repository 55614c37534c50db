import { ChangeDetectionStrategy, Component, computed, input, model } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatButton } from '@angular/material/button';
import type { SharedWeave, ThingKind, TogetherWeave, TwoModeWeave } from '@pebble/contract';
import { capital, THING_WORDS } from '@pebble/core';
import { atLeastOne, numberOrNone } from './numbers';
import { PeriodFields } from './period-fields';
import { SCALES } from './scales';

/** A weave of things that stand in messages. */
export type ThingWeave = TogetherWeave | SharedWeave | TwoModeWeave;

const UNITS: readonly (readonly [TogetherWeave['unit'], string])[] = [
  ['message', 'stand in the same message'],
  ['near', 'stand near each other in a message'],
  ['thread', 'stand in the same thread'],
  ['author', 'are used by the same account'],
  ['author-day', 'are used by the same account on one day'],
];

/** Things tied by standing together, accounts by sharing things, or accounts tied to the things they use. */
@Component({
  selector: 'pt-thing-sentence',
  imports: [MatButton, MatInput, MatFormField, MatCheckbox, FormsModule, PeriodFields],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let w = weave();
    @if (w.what === 'together') {
      <mat-form-field><select matNativeControl aria-label="What is tied" [ngModel]="w.things" (ngModelChange)="setThings($event)">
        @for (one of offered(); track one) {
          <option [value]="one">{{ capital(words[one][1]) }}</option>
        }
      </select></mat-form-field>
      are tied when they
      <mat-form-field><select matNativeControl aria-label="Where they meet" [ngModel]="w.unit" (ngModelChange)="change({ unit: $event })">
        @for (unit of units(); track unit[0]) {
          <option [value]="unit[0]">{{ unit[1] }}</option>
        }
      </select></mat-form-field>
      @if (w.unit === 'near') {
        , within
        <mat-form-field class="count"><input matInput
          type="number"
          min="1"
          aria-label="Words apart at most"
          [ngModel]="w.within"
          (ngModelChange)="change({ within: atLeastOne($event) })" /></mat-form-field>
        {{ w.within === 1 ? 'word' : 'words' }},
      }
      at least
    } @else {
      Accounts are tied {{ w.what === 'shared' ? 'when they use the same' : 'to the' }}
      <mat-form-field><select matNativeControl aria-label="What is used" [ngModel]="w.things" (ngModelChange)="setThings($event)">
        @for (one of offered(); track one) {
          <option [value]="one">{{ words[one][1] }}</option>
        }
      </select></mat-form-field>
      {{ w.what === 'shared' ? ', at least' : 'they use, at least' }}
    }
    <mat-form-field class="count"><input matInput
      type="number"
      min="1"
      aria-label="Strength of a tie at least"
      [ngModel]="w.atLeast"
      (ngModelChange)="change({ atLeast: atLeastOne($event) })" /></mat-form-field>
    {{ w.what === 'shared' ? 'of them' : w.atLeast === 1 ? 'time' : 'times' }}<pt-period-fields
      [period]="w"
      (changed)="change($event)"
    />
    <div>
      Only the
      <mat-form-field class="count"><input matInput
        type="number"
        min="2"
        placeholder="all"
        aria-label="Most used"
        [ngModel]="w.mostUsed"
        (ngModelChange)="change({ mostUsed: numberOrNone($event, 2) })" /></mat-form-field>
      most used, each in at least
      <mat-form-field class="count"><input matInput
        type="number"
        min="1"
        aria-label="Messages for each at least"
        [ngModel]="w.usedAtLeast"
        (ngModelChange)="change({ usedAtLeast: atLeastOne($event) })" /></mat-form-field>
      {{ w.usedAtLeast === 1 ? 'message' : 'messages' }}; without
      <mat-form-field class="names"><input matInput
        aria-label="Left out"
        [placeholder]="'names, apart by commas'"
        [ngModel]="without()"
        (change)="setWithout($any($event.target).value)" /></mat-form-field>.
      @for (tag of proposed(); track tag) {
        <button matButton="outlined" (click)="leaveOut(tag)">without #{{ tag }}</button>
      }
    </div>
    <details>
      <summary>How ties are weighed, and what else is left out</summary>
      @if (w.what !== 'two-mode') {
        Ties are weighed
        <mat-form-field><select matNativeControl aria-label="Scale" [ngModel]="w.scale" (ngModelChange)="change({ scale: $event })">
          @for (scale of scales; track scale[0]) {
            <option [value]="scale[0]">{{ scale[1] }}</option>
          }
        </select></mat-form-field>
      }
      @if (w.what === 'together') {
        and count
        <mat-form-field><select matNativeControl aria-label="Weight" [ngModel]="w.weight" (ngModelChange)="change({ weight: $event })">
          <option value="units">how often they meet</option>
          <option value="authors">different authors</option>
        </select></mat-form-field>
      }
      <label
        >Messages with more than
        <mat-form-field class="count"><input matInput
          type="number"
          min="2"
          [ngModel]="w.mostInOne"
          (ngModelChange)="change({ mostInOne: numberOrNone($event, 2) ?? 30 })" /></mat-form-field>
        of them are left out (lists and spam say little of what belongs together).</label
      >
      <mat-checkbox [ngModel]="w.reposts" (ngModelChange)="change({ reposts: $event })">Reposts
        count like other messages.</mat-checkbox>
      @if (w.what !== 'two-mode') {
        <mat-checkbox [ngModel]="w.isolates" (ngModelChange)="change({ isolates: $event })">Nodes
          without a tie are kept.</mat-checkbox>
      }
    </details>
  `,
  styleUrl: './sentence.scss',
})
export class ThingSentence {
  readonly weave = model.required<ThingWeave>();
  /** Kinds of things that the study holds. */
  readonly offered = input.required<readonly ThingKind[]>();
  /** A hashtag that stands on so many messages that it ties everything to everything. */
  readonly commonTag = input<string | null>(null);
  protected readonly words = THING_WORDS;
  protected readonly capital = capital;
  protected readonly scales = SCALES;
  protected readonly atLeastOne = atLeastOne;
  protected readonly numberOrNone = numberOrNone;
  protected readonly units = computed(() => {
    const { things } = this.weave();
    return things === 'item' || things === 'channel'
      ? UNITS.filter(([unit]) => unit.startsWith('author'))
      : UNITS;
  });
  protected readonly without = computed(() => this.weave().without.join(', '));
  protected readonly proposed = computed(() => {
    const tag = this.commonTag();
    const { things, without } = this.weave();
    const isThere = without.some((one) => one.replace(/^#/, '').toLowerCase() === tag?.toLowerCase());
    return things === 'hashtag' && tag !== null && !isThere ? [tag] : [];
  });

  /** Comments under one item stand under it alone, so that items meet in accounts. */
  protected setThings(things: ThingKind): void {
    const weave = this.weave();
    const isUnder = things === 'item' || things === 'channel';
    const unit =
      weave.what === 'together' && isUnder && !weave.unit.startsWith('author') ? { unit: 'author' } : {};
    this.change({ things, without: [], ...unit });
  }

  protected setWithout(typed: string): void {
    const names = typed.split(',').map((name) => name.trim());
    this.change({ without: names.filter((name) => name !== '') });
  }

  protected leaveOut(tag: string): void {
    this.change({ without: [...this.weave().without, tag] });
  }

  protected change(part: object): void {
    this.weave.update((weave) => ({ ...weave, ...part }));
  }
}
