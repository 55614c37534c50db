import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { MatDatepickerModule, type MatDatepickerInputEvent } from '@angular/material/datepicker';
import { MatFormField, MatSuffix } from '@angular/material/form-field';
import { DAYS, dayOf, endOf, startOf } from './days-adapter';

/** Days in UTC as they are kept: from a moment on, and before another, in milliseconds since 1970; null for no bound. */
export interface DayRange {
  readonly from: number | null;
  readonly until: number | null;
}

const asDay = (time: number | null): Date | null => (time === null ? null : dayOf(time));

/** A first and a last day, typed or chosen from a calendar. What is no day is said, and changes nothing. */
@Component({
  selector: 'pt-day-range',
  imports: [MatDatepickerModule, MatFormField, MatSuffix],
  changeDetection: ChangeDetectionStrategy.OnPush,
  providers: DAYS,
  template: `
    <mat-form-field>
      <mat-date-range-input [rangePicker]="picker" separator="to" [min]="least()" [max]="most()">
        <input
          matStartDate
          placeholder="any day"
          aria-label="First day (UTC)"
          [value]="first()"
          (dateChange)="set('from', $event)"
        />
        <input
          matEndDate
          placeholder="any day"
          aria-label="Last day (UTC)"
          [value]="last()"
          (dateChange)="set('until', $event)"
        />
      </mat-date-range-input>
      <mat-datepicker-toggle matIconSuffix [for]="picker" />
      <mat-date-range-picker #picker />
    </mat-form-field>
    @if (fault(); as typed) {
      <span class="error" role="alert">“{{ typed }}” is no day. Write 1 March 2026, or 2026-03-01.</span>
    }
  `,
  styles: `
    :host {
      display: inline;
    }
    mat-form-field {
      --mat-datepicker-toggle-icon-color: var(--soft);
      --mat-icon-button-state-layer-size: 28px;
      width: 330px;
      max-width: 100%;
    }
    .error {
      font-size: 13px;
      padding: 2px 8px;
      margin: 0 4px;
    }
  `,
})
export class DayRangeField {
  readonly range = input.required<DayRange>();
  /** The days that can be chosen, where these are known. */
  readonly within = input<DayRange | null>(null);
  readonly changed = output<DayRange>();
  /** What was typed that is no day. */
  protected readonly fault = signal<string | null>(null);
  protected readonly first = computed(() => asDay(this.range().from));
  protected readonly last = computed(() => lastDay(this.range()));
  protected readonly least = computed(() => asDay(this.within()?.from ?? null));
  protected readonly most = computed(() => lastDay(this.within()));

  protected set(end: keyof DayRange, { value, targetElement }: MatDatepickerInputEvent<Date, unknown>): void {
    const typed = (targetElement as HTMLInputElement).value.trim();
    const isNone = value === null && typed !== '';
    this.fault.set(isNone ? typed : null);
    if (isNone) return;
    const time = value === null ? null : end === 'from' ? startOf(value) : endOf(value);
    if (time !== this.range()[end]) this.changed.emit({ ...this.range(), [end]: time });
  }
}

/** The last day before the end of a range. */
function lastDay(range: DayRange | null): Date | null {
  const until = range?.until ?? null;
  return until === null ? null : dayOf(until - 1);
}
