import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatTooltip } from '@angular/material/tooltip';
import type { Network } from '@pebble/contract';
import { wholesIn } from './slices';

/** Chooses a network of a study: those that are no slices, and the slice that is open. */
@Component({
  selector: 'pt-network-choice',
  imports: [MatFormField, MatInput, MatTooltip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <mat-form-field
      ><select
        matNativeControl
        aria-label="Network"
        [matTooltip]="open()?.name"
        (change)="chosen.emit($any($event.target).value)"
      >
        @for (one of choices(); track one.id) {
          <option [value]="one.id" [selected]="one.id === network()">{{ one.name }}</option>
        }
      </select></mat-form-field
    >
  `,
  styles: `
    :host {
      display: flex;
      min-width: 0;
    }
    mat-form-field {
      flex: auto;
      min-width: 0;
      max-width: 100%;
    }
  `,
})
export class NetworkChoice {
  readonly networks = input.required<readonly Network[]>();
  /** The one that is open. */
  readonly network = input<string>();
  readonly chosen = output<string>();
  protected readonly open = computed(() => this.networks().find(({ id }) => id === this.network()) ?? null);
  protected readonly choices = computed(() => {
    const open = this.open();
    const wholes = wholesIn(this.networks());
    return open && !wholes.includes(open) ? [open, ...wholes] : wholes;
  });
}
