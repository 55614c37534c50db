import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import type { CollectRun, StandingWhen } from '@pebble/contract';
import { Api } from '../api/api';
import { everyPage } from '../api/every-page';
import { asking } from '../shared/asking';
import { Busy } from '../shared/busy';
import { standingWords, WEEKDAYS } from './standing-words';

type Turn = 'import' | 'collecting' | 'day' | 'week';

/** Chooses when a routine runs by itself in a study. */
@Component({
  selector: 'pt-standing-form',
  imports: [Busy, FormsModule, MatButton, MatFormField, MatInput],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p class="soft">
      While the application runs, on what the study has then; files are not asked for. A turn that comes while it is closed
      is made up for once, when it is started again.
    </p>
    <label class="field"
      >When
      <mat-form-field
        ><select matNativeControl [ngModel]="turn()" (ngModelChange)="turn.set($event)">
          <option value="import">after each import of files</option>
          <option value="collecting">after each collecting run</option>
          <option value="day">each day</option>
          <option value="week">each week</option>
        </select></mat-form-field
      ></label
    >
    @if (turn() === 'week') {
      <label class="field"
        >On
        <mat-form-field
          ><select matNativeControl [ngModel]="weekday()" (ngModelChange)="weekday.set(+$event)">
            @for (day of weekdays; track day; let i = $index) {
              <option [value]="i">{{ day }}</option>
            }
          </select></mat-form-field
        ></label
      >
    }
    @if (turn() === 'day' || turn() === 'week') {
      <label class="field"
        >At, by the clock of {{ zone }}
        <mat-form-field><input matInput type="time" [ngModel]="at()" (ngModelChange)="at.set($event)" /></mat-form-field>
      </label>
      <label class="field"
        >Collected anew before it
        <mat-form-field
          ><select matNativeControl [ngModel]="collect()" (ngModelChange)="collect.set($event)">
            <option value="">nothing</option>
            @for (run of runs(); track run.id) {
              <option [value]="run.id">{{ run.name }}</option>
            }
          </select></mat-form-field
        ></label
      >
    }
    <p>It will run {{ words() }}.</p>
    <button matButton="outlined" [disabled]="at() === ''" [ptBusy]="busy()" (click)="asked.emit(when())">
      Let it run by itself
    </button>
  `,
  styleUrl: '../publish/fields.scss',
  styles: `
    :host {
      display: block;
      max-width: 420px;
    }
  `,
})
export class StandingForm {
  readonly study = input.required<string>();
  readonly busy = input.required<boolean>();
  readonly asked = output<StandingWhen>();
  private readonly api = inject(Api);
  protected readonly weekdays = WEEKDAYS;
  protected readonly zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
  protected readonly turn = signal<Turn>('import');
  protected readonly weekday = signal(1);
  protected readonly at = signal('07:00');
  protected readonly collect = signal('');
  private readonly read = asking(this.study, (study) =>
    everyPage('runs', (page) => this.api.runs({ study }, page)),
  );
  /** Collecting runs that can be done anew. */
  protected readonly runs = computed((): readonly CollectRun[] =>
    (this.read.found() ?? []).filter(({ state }) => state === 'done' || state === 'cancelled'),
  );
  protected readonly when = computed((): StandingWhen => {
    const turn = this.turn();
    if (turn === 'import' || turn === 'collecting') return { on: turn };
    return {
      on: 'time',
      weekday: turn === 'week' ? this.weekday() : null,
      at: this.at(),
      zone: this.zone,
      collect: this.collect() || null,
    };
  });
  protected readonly words = computed(() =>
    standingWords(this.when(), this.runs().find(({ id }) => id === this.collect())?.name ?? null),
  );
}
