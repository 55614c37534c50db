import { ChangeDetectionStrategy, Component, computed, input, model } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatTooltip } from '@angular/material/tooltip';
import type { GroupWeave, Network } from '@pebble/contract';
import { groupColumns } from './group-columns';

/** The groups of a network as nodes. */
@Component({
  selector: 'pt-group-sentence',
  imports: [MatTooltip, MatInput, MatFormField, FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let w = weave();
    The groups of
    <mat-form-field><select matNativeControl aria-label="Network" [matTooltip]="chosen()?.name" [ngModel]="w.network" (ngModelChange)="setNetwork($event)">
      @for (one of networks(); track one.id) {
        <option [value]="one.id">{{ one.name }}</option>
      }
    </select></mat-form-field>
    by
    <mat-form-field><select matNativeControl aria-label="Column" [ngModel]="w.column" (ngModelChange)="change({ column: $event, open: [] })">
      @for (column of columns(); track column.name) {
        <option [value]="column.name">{{ column.title }}</option>
      }
    </select></mat-form-field>
    become nodes, tied where the ties between them weigh at least
    <mat-form-field class="count"><input matInput
      type="number"
      min="0"
      aria-label="Weight between groups at least"
      [ngModel]="w.atLeast"
      (ngModelChange)="change({ atLeast: $event ?? 0 })" /></mat-form-field>. Open, with their nodes shown singly:
    <mat-form-field class="names"><input matInput
      aria-label="Open groups"
      placeholder="none"
      [ngModel]="w.open.join(', ')"
      (change)="setOpen($any($event.target).value)" /></mat-form-field>.
  `,
  styleUrl: './sentence.scss',
})
export class GroupSentence {
  readonly weave = model.required<GroupWeave>();
  readonly networks = input.required<readonly Network[]>();
  protected readonly chosen = computed(() => this.networks().find(({ id }) => id === this.weave().network));
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
