import { ChangeDetectionStrategy, Component, computed, input, model } from '@angular/core';
import { FormsModule } from '@angular/forms';
import type { Network, ProjectionWeave, Weave } from '@pebble/contract';
import { atLeastOne } from './numbers';
import { SCALES } from './scales';
import { sortsOf, twoModeNetworks } from './two-mode';

/** The nodes of one sort of a two-mode network, tied by what they share. */
@Component({
  selector: 'pt-projection-sentence',
  imports: [FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let w = weave();
    Of the two-mode network
    <select class="box" aria-label="Network" [ngModel]="w.network" (ngModelChange)="setNetwork($event)">
      @for (one of offered(); track one.id) {
        <option [value]="one.id">{{ one.name }}</option>
      }
    </select>
    every
    @if (isFromFile()) {
      <input
        class="box"
        list="sorts"
        aria-label="Sort of nodes"
        [ngModel]="w.sort"
        (change)="change({ sort: $any($event.target).value.trim() })"
      />
      <datalist id="sorts">
        @for (sort of sorts(); track sort) {
          <option [value]="sort"></option>
        }
      </datalist>
    } @else {
      <select class="box" aria-label="Sort of nodes" [ngModel]="w.sort" (ngModelChange)="change({ sort: $event })">
        @for (sort of sorts(); track sort) {
          <option [value]="sort">{{ sort }}</option>
        }
      </select>
    }
    with at least
    <input
      type="number"
      min="1"
      class="box count"
      aria-label="Partners at least"
      [ngModel]="w.partnersAtLeast"
      (ngModelChange)="change({ partnersAtLeast: atLeastOne($event) })"
    />
    {{ w.partnersAtLeast === 1 ? 'tie' : 'ties' }} to the other sort; two are tied when they share at least
    <input
      type="number"
      min="1"
      class="box count"
      aria-label="Shared at least"
      [ngModel]="w.atLeast"
      (ngModelChange)="change({ atLeast: atLeastOne($event) })"
    />
    of these, weighed
    <select class="box" aria-label="Scale" [ngModel]="w.scale" (ngModelChange)="change({ scale: $event })">
      @for (scale of scales; track scale[0]) {
        <option [value]="scale[0]">{{ scale[1] }}</option>
      }
    </select>
    <label
      ><input type="checkbox" [ngModel]="w.isolates" (ngModelChange)="change({ isolates: $event })" /> Nodes
      without a tie are kept.</label
    >
  `,
  styleUrl: './sentence.scss',
})
export class ProjectionSentence {
  readonly weave = model.required<ProjectionWeave>();
  readonly networks = input.required<readonly Network[]>();
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
