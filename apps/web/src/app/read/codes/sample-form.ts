import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import type { Network, SampleFrom } from '@pebble/contract';
import { Store } from '@ngrx/store';
import { Api } from '../../api/api';
import { latest } from '../../shared/latest';
import { work } from '../../store/work.reducer';
import { Coding } from './coding';

type From = 'all' | 'filter' | 'network' | 'groups';

/** Draws messages to be coded: of all, of a kept filter, behind a network, or so many of each of its groups. */
@Component({
  selector: 'pt-sample-form',
  imports: [FormsModule, MatButton, MatFormField, MatInput],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <form (ngSubmit)="draw()">
      <span class="soft"
        >Draw
        <mat-form-field class="few"
          ><input matInput type="number" min="1" max="10000" name="most" aria-label="Messages to draw" [(ngModel)]="most"
        /></mat-form-field>
        messages</span
      >
      <mat-form-field class="from"
        ><select matNativeControl name="from" aria-label="Drawn from" [ngModel]="from()" (ngModelChange)="from.set($event)">
          <option value="all">of all</option>
          @if ((filters() ?? []).length > 0) {
            <option value="filter">of a kept filter</option>
          }
          @if (network()) {
            <option value="network">behind the network</option>
            <option value="groups">of each group of the network</option>
          }
        </select></mat-form-field
      >
      @if (from() === 'filter') {
        <mat-form-field class="from"
          ><select matNativeControl name="filter" aria-label="Kept filter" [ngModel]="filterId()" (ngModelChange)="chosenFilter.set(+$event)">
            @for (one of filters() ?? []; track one.id) {
              <option [value]="one.id">{{ one.name }}</option>
            }
          </select></mat-form-field
        >
      }
      <span class="soft"
        >seed
        <mat-form-field class="few"
          ><input matInput type="number" min="0" name="seed" aria-label="Seed of the sample" [(ngModel)]="seed"
        /></mat-form-field>
        as
        <mat-form-field class="name"
          ><input matInput name="name" maxlength="80" aria-label="Name of the sample" [(ngModel)]="name"
        /></mat-form-field>
      </span>
      <button matButton="outlined" type="submit" [disabled]="coding.drawing.busy() || name().trim() === ''">
        {{ coding.drawing.busy() ? 'Drawing …' : 'Draw the sample' }}
      </button>
    </form>
    @if (coding.drawing.problem(); as problem) {
      <p class="error" role="alert">{{ problem }}</p>
    }
  `,
  styles: `
    form,
    span {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 8px 10px;
    }
    .few {
      width: 84px;
    }
    .from {
      width: 190px;
    }
    .name {
      width: 170px;
    }
  `,
})
export class SampleForm {
  readonly network = input.required<Network | null>();
  readonly column = input.required<string>();
  readonly drawn = output<number>();
  private readonly api = inject(Api);
  private readonly store = inject(Store);
  protected readonly coding = inject(Coding);
  private readonly study = this.store.selectSignal(work.selectStudy);
  private readonly asked = computed(() => this.study()?.id ?? this.coding.study());
  protected readonly filters = latest(this.asked, (study) => this.api.filters({ study }));
  protected readonly from = signal<From>('all');
  protected readonly most = signal(50);
  protected readonly seed = signal(1);
  protected readonly name = signal('First sample');
  protected readonly chosenFilter = signal<number | null>(null);
  protected readonly filterId = computed(() => this.chosenFilter() ?? this.filters()?.at(0)?.id ?? 0);

  protected draw(): void {
    const within = (value: number, least: number, most: number): number =>
      Math.min(most, Math.max(least, Math.round(value) || least));
    const asked = {
      name: this.name().trim(),
      from: this.source(),
      most: within(this.most(), 1, 10_000),
      seed: within(this.seed(), 0, 0xffffffff),
    };
    this.coding.drawing.start(this.coding.study(), 'draw-sample', asked, ({ result }) => {
      this.coding.read();
      this.drawn.emit(Number(result?.['sample']));
    });
  }

  private source(): SampleFrom {
    const network = this.network()?.id;
    if (network !== undefined && this.from() === 'network') return { what: 'network', network };
    if (network !== undefined && this.from() === 'groups')
      return { what: 'groups', network, column: this.column() };
    const kept = this.filters()?.find(({ id }) => id === this.filterId());
    return { what: 'filter', filter: this.from() === 'filter' ? (kept?.filter ?? {}) : {} };
  }
}
