import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { DayRangeField, type DayRange } from '../shared/days/day-range';

/** The first and the last day of a weave, as the end of its sentence. */
@Component({
  selector: 'pt-period-fields',
  imports: [DayRangeField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `, from <pt-day-range [range]="period()" (changed)="changed.emit($event)" />.`,
  styles: `
    :host {
      display: inline;
    }
  `,
})
export class PeriodFields {
  readonly period = input.required<DayRange>();
  readonly changed = output<DayRange>();
}
