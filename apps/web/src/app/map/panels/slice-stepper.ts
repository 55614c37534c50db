import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatTooltip } from '@angular/material/tooltip';
import { MatButton } from '@angular/material/button';
import type { Network } from '@pebble/contract';
import { EMPTY, interval, switchMap } from 'rxjs';
import { slicesOf, wholeOf } from '../../shared/slices';

/** Milliseconds for which each slice is shown when they are played. */
const PACE = 1600;

/** Goes through the slices of a network, one after the other; every node keeps its place. */
@Component({
  selector: 'pt-slice-stepper',
  imports: [MatButton, MatTooltip, MatInput, MatFormField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (slices().length > 0) {
      <div class="stepper" role="group" aria-label="Slices in time">
        <button matButton (click)="step(-1)" [disabled]="place() < 0" matTooltip="Earlier" aria-label="Earlier slice">◂</button>
        <mat-form-field><select matNativeControl aria-label="Slice" (change)="opened.emit($any($event.target).value)">
          <option [value]="whole()" [selected]="place() < 0">The whole time</option>
          @for (one of slices(); track one.id) {
            <option [value]="one.id" [selected]="one.id === network().id">{{ one.slice?.title }}</option>
          }
        </select></mat-form-field>
        <button matButton
          (click)="step(1)"
          [disabled]="place() === slices().length - 1"
          matTooltip="Later"
          aria-label="Later slice"
        >
          ▸
        </button>
        <button matButton (click)="playing.set(!playing())" [attr.aria-pressed]="playing()">
          {{ playing() ? 'Stop' : 'Play' }}
        </button>
      </div>
    }
  `,
  styles: `
    .stepper {
      display: flex;
      border: 1px solid var(--line);
      border-radius: 7px;
      background: var(--sheet);
      overflow: hidden;
    }
    mat-form-field {
      width: 210px;
    }
  `,
})
export class SliceStepper {
  readonly network = input.required<Network>();
  readonly networks = input.required<readonly Network[]>();
  readonly opened = output<string>();
  protected readonly playing = signal(false);
  protected readonly whole = computed(() => wholeOf(this.network()));
  protected readonly slices = computed(() => slicesOf(this.networks(), this.whole()));
  /** Where the network stands among the slices; -1 for the whole. */
  protected readonly place = computed(() => this.slices().findIndex(({ id }) => id === this.network().id));

  constructor() {
    toObservable(this.playing)
      .pipe(
        switchMap((playing) => (playing ? interval(PACE) : EMPTY)),
        takeUntilDestroyed(),
      )
      .subscribe(() => this.playOn());
  }

  protected step(by: number): void {
    this.playing.set(false);
    this.go(this.place() + by);
  }

  /** After the last slice it stops. */
  private playOn(): void {
    if (this.place() === this.slices().length - 1) this.playing.set(false);
    else this.go(this.place() + 1);
  }

  private go(place: number): void {
    this.opened.emit(place < 0 ? this.whole() : this.slices()[place].id);
  }
}
