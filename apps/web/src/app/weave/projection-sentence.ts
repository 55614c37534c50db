import { ChangeDetectionStrategy, Component, computed, input, model } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatTooltip } from '@angular/material/tooltip';
import type { Network, ProjectionWeave, Weave } from '@pebble/contract';
import { atLeastOne } from './numbers';
import { SCALES } from './scales';
import { sortsOf, twoModeNetworks } from './two-mode';

/** The nodes of one sort of a two-mode network, tied by what they share. */
@Component({
  selector: 'pt-projection-sentence',
  imports: [MatTooltip, MatInput, MatFormField, MatCheckbox, FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let w = weave();
    Of the two-mode network
    <mat-form-field><select matNativeControl aria-label="Network" [matTooltip]="chosen()?.name" [ngModel]="w.network" (ngModelChange)="setNetwork($event)">
      @for (one of offered(); track one.id) {
        <option [value]="one.id">{{ one.name }}</option>
      }
    </select></mat-form-field>
    every
    @if (isFromFile()) {
      <mat-form-field><input matInput
        list="sorts"
        aria-label="Sort of nodes"
        [ngModel]="w.sort"
        (change)="change({ sort: $any($event.target).value.trim() })" /></mat-form-field>
      <datalist id="sorts">
        @for (sort of sorts(); track sort) {
          <option [value]="sort"></option>
        }
      </datalist>
    } @else {
      <mat-form-field><select matNativeControl aria-label="Sort of nodes" [ngModel]="w.sort" (ngModelChange)="change({ sort: $event })">
        @for (sort of sorts(); track sort) {
          <option [value]="sort">{{ sort }}</option>
        }
      </select></mat-form-field>
    }
    with at least
    <mat-form-field class="count"><input matInput
      type="number"
      min="1"
      aria-label="Partners at least"
      [ngModel]="w.partnersAtLeast"
      (ngModelChange)="change({ partnersAtLeast: atLeastOne($event) })" /></mat-form-field>
    {{ w.partnersAtLeast === 1 ? 'tie' : 'ties' }} to the other sort; two are tied when they share at least
    <mat-form-field class="count"><input matInput
      type="number"
      min="1"
      aria-label="Shared at least"
      [ngModel]="w.atLeast"
      (ngModelChange)="change({ atLeast: atLeastOne($event) })" /></mat-form-field>
    of these, weighed
    <mat-form-field><select matNativeControl aria-label="Scale" [ngModel]="w.scale" (ngModelChange)="change({ scale: $event })">
      @for (scale of scales; track scale[0]) {
        <option [value]="scale[0]">{{ scale[1] }}</option>
      }
    </select></mat-form-field>
    <mat-checkbox [ngModel]="w.isolates" (ngModelChange)="change({ isolates: $event })">Nodes
      without a tie are kept.</mat-checkbox>
  `,
  styleUrl: './sentence.scss',
})
export class ProjectionSentence {
  readonly weave = model.required<ProjectionWeave>();
  readonly networks = input.required<readonly Network[]>();
  protected readonly chosen = computed(() => this.networks().find(({ id }) => id === this.weave().network));
  protected readonly scales = SCALES;
  protected readonly atLeastOne = atLeastOne;
  protected readonly offered = computed(() => twoModeNetworks(this.networks()));
  protected readonly sorts = computed(() => sortsOf(this.networks(), this.weave().network));

  /** A file may name its sorts as it likes. */
  protected readonly isFromFile = computed(
    () => this.offered().find(({ id }) => id === this.weave().network)?.weave === null,
  );

  protected setNetwork(network: string): void {
    const [sort = ''] = sortsOf(this.networks(), network);
    this.change({ network, sort });
  }

  protected change(part: Partial<Extract<Weave, { what: 'projection' }>>): void {
    this.weave.update((weave) => ({ ...weave, ...part }));
  }
}
