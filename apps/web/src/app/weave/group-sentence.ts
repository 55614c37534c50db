import { ChangeDetectionStrategy, Component, computed, input, model } from '@angular/core';
import { FormsModule } from '@angular/forms';
import type { GroupWeave, Network } from '@pebble/contract';
import { groupColumns } from './group-columns';

/** The groups of a network as nodes. */
@Component({
  selector: 'pt-group-sentence',
  imports: [FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let w = weave();
    The groups of
    <select class="box" aria-label="Network" [ngModel]="w.network" (ngModelChange)="setNetwork($event)">
      @for (one of networks(); track one.id) {
        <option [value]="one.id">{{ one.name }}</option>
      }
    </select>
    by
    <select class="box" aria-label="Column" [ngModel]="w.column" (ngModelChange)="change({ column: $event, open: [] })">
      @for (column of columns(); track column.name) {
        <option [value]="column.name">{{ column.title }}</option>
      }
    </select>
    become nodes, tied where the ties between them weigh at least
    <input
      type="number"
      min="0"
      class="box count"
      aria-label="Weight between groups at least"
      [ngModel]="w.atLeast"
      (ngModelChange)="change({ atLeast: $event ?? 0 })"
    />. Open, with their nodes shown singly:
    <input
      class="box names"
      aria-label="Open groups"
      placeholder="none"
      [ngModel]="w.open.join(', ')"
      (change)="setOpen($any($event.target).value)"
    />.
  `,
  styleUrl: './sentence.scss',
})
export class GroupSentence {
  readonly weave = model.required<GroupWeave>();
  readonly networks = input.required<readonly Network[]>();
  protected readonly columns = computed(() => groupColumns(this.networks(), this.weave().network));

  protected setNetwork(network: string): void {
    const [first] = groupColumns(this.networks(), network);
    this.change({ network, column: first?.name ?? '', open: [] });
  }

  protected setOpen(typed: string): void {
    const names = typed.split(',').map((name) => name.trim());
    this.change({ open: names.filter((name) => name !== '') });
  }

  protected change(part: Partial<GroupWeave>): void {
    this.weave.update((weave) => ({ ...weave, ...part }));
  }
}
