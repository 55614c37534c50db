import { ChangeDetectionStrategy, Component, computed, input, model } from '@angular/core';
import { FormsModule } from '@angular/forms';
import type { FollowWeave, GroupWeave, InStepWeave, Network } from '@pebble/contract';
import { atLeastOne } from './numbers';
import { PeriodFields } from './period-fields';

/** Accounts tied by who follows whom. */
@Component({
  selector: 'pt-follow-sentence',
  imports: [FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    Accounts are tied when one follows another. Only followers of at least
    <input
      type="number"
      min="1"
      class="box count"
      aria-label="Listed accounts that they follow at least"
      [ngModel]="weave().listsAtLeast"
      (ngModelChange)="change(atLeastOne($event))"
    />
    of the listed accounts are shown.
  `,
  styleUrl: './sentence.scss',
})
export class FollowSentence {
  readonly weave = model.required<FollowWeave>();
  protected readonly atLeastOne = atLeastOne;

  protected change(listsAtLeast: number): void {
    this.weave.update((weave) => ({ ...weave, listsAtLeast }));
  }
}

/** Accounts tied by posting the same at the same time. */
@Component({
  selector: 'pt-step-sentence',
  imports: [FormsModule, PeriodFields],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let w = weave();
    Accounts are tied when they post the same
    <select class="box" aria-label="The same" [ngModel]="w.same" (ngModelChange)="change({ same: $event })">
      <option value="text">text</option>
      <option value="link">link</option>
      <option value="hashtags">set of hashtags</option>
    </select>
    within
    <input
      type="number"
      min="1"
      class="box count"
      aria-label="Seconds"
      [ngModel]="w.seconds"
      (ngModelChange)="change({ seconds: atLeastOne($event) })"
    />
    {{ w.seconds === 1 ? 'second' : 'seconds' }}, with at least
    <input
      type="number"
      min="1"
      class="box count"
      aria-label="Different ones at least"
      [ngModel]="w.atLeast"
      (ngModelChange)="change({ atLeast: atLeastOne($event) })"
    />
    different ones<pt-period-fields [period]="w" (changed)="change($event)" />
    <label
      ><input type="checkbox" [ngModel]="w.reposts" (ngModelChange)="change({ reposts: $event })" /> Reposts
      count too.</label
    >
  `,
  styleUrl: './sentence.scss',
})
export class StepSentence {
  readonly weave = model.required<InStepWeave>();
  protected readonly atLeastOne = atLeastOne;

  protected change(part: Partial<InStepWeave>): void {
    this.weave.update((weave) => ({ ...weave, ...part }));
  }
}

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

/** Columns of a network by which its nodes fall into groups, communities first. */
export function groupColumns(networks: readonly Network[], id: string): Network['columns'] {
  const columns = networks.find((network) => network.id === id)?.columns ?? [];
  const groups = columns.filter(({ type, name }) => type !== 'number' && name !== 'component');
  return groups.sort((a, b) => Number(b.name === 'community') - Number(a.name === 'community'));
}
