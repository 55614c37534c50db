import { ChangeDetectionStrategy, Component, model } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import type { SliceBy } from '@pebble/contract';

/** Into which parts the time of a weave is cut; the moment of an event in milliseconds since 1970. */
export interface Slicing {
  readonly by: SliceBy;
  readonly event: number | null;
}

/** Whether one network is woven, or one for each part of the time beside it. */
@Component({
  selector: 'pt-slice-fields',
  imports: [MatInput, MatFormField, FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <details [open]="slicing() !== null">
      <summary>Slices in time: {{ slicing() ? 'with one arrangement for all' : 'none' }}</summary>
      Woven as
      <mat-form-field><select matNativeControl aria-label="Slices" [ngModel]="slicing()?.by ?? ''" (ngModelChange)="choose($event)">
        <option value="">one network</option>
        <option value="day">one for the whole and one for each day</option>
        <option value="week">one for the whole and one for each week</option>
        <option value="month">one for the whole and one for each month</option>
        <option value="event">one for the whole, one before and one after a moment</option>
      </select></mat-form-field>
      @if (slicing()?.by === 'event') {
        <mat-form-field><input matInput
          type="datetime-local"
          aria-label="Moment (UTC)"
          [ngModel]="moment()"
          (ngModelChange)="setMoment($event)" /></mat-form-field>
        UTC
      }
      .
    </details>
  `,
  styleUrl: './sentence.scss',
})
export class SliceFields {
  readonly slicing = model.required<Slicing | null>();

  protected choose(by: SliceBy | ''): void {
    this.slicing.set(
      by === '' ? null : { by, event: by === 'event' ? (this.slicing()?.event ?? null) : null },
    );
  }

  protected moment(): string {
    const event = this.slicing()?.event ?? null;
    return event === null ? '' : new Date(event).toISOString().slice(0, 16);
  }

  protected setMoment(typed: string): void {
    const time = Date.parse(`${typed}:00Z`);
    this.slicing.set({ by: 'event', event: Number.isNaN(time) ? null : time });
  }
}
