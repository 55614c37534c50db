import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';

const DAY = 86_400_000;

/** A period as it is kept: from a moment on, and before another; null for no bound. */
interface Period {
  readonly from: number | null;
  readonly until: number | null;
}

/** The first and the last day of a weave, whole days in UTC. */
@Component({
  selector: 'pt-period-fields',
  imports: [MatInput, MatFormField, FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `, from
    <mat-form-field class="date"><input matInput type="date" aria-label="First day" [ngModel]="first()" (ngModelChange)="set('from', $event)" /></mat-form-field>
    to
    <mat-form-field class="date"><input matInput type="date" aria-label="Last day" [ngModel]="last()" (ngModelChange)="set('until', $event)" /></mat-form-field>.`,
  styleUrl: './sentence.scss',
  styles: `
    :host {
      display: inline;
    }
  `,
})
export class PeriodFields {
  readonly period = input.required<Period>();
  readonly changed = output<Period>();
  protected readonly first = computed(() => dayOf(this.period().from));
  protected readonly last = computed(() => {
    const { until } = this.period();
    return dayOf(until === null ? null : until - 1);
  });

  protected set(end: keyof Period, day: string): void {
    const time = Date.parse(`${day}T00:00:00Z`);
    const value = Number.isNaN(time) ? null : end === 'from' ? time : time + DAY;
    this.changed.emit({ ...this.period(), [end]: value });
  }
}

function dayOf(time: number | null): string {
  return time === null ? '' : new Date(time).toISOString().slice(0, 10);
}
