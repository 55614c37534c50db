import { ChangeDetectionStrategy, Component } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { TieForm } from '@pebble/contract';
import { describing } from './describing';

/** How ties run, and what their colour and width say. */
@Component({
  selector: 'pt-tie-settings',
  imports: [FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrl: './settings.scss',
  template: `
    @let ties = map.description().ties;
    <h4>Ties</h4>
    <div class="seg" role="group" aria-label="Form">
      @for (form of forms; track form) {
        <button
          [class.on]="ties.form === form"
          [attr.aria-pressed]="ties.form === form"
          (click)="map.set('ties', { form })"
        >
          {{ form }}
        </button>
      }
    </div>
    @if (ties.form === 'bundled') {
      <label
        >loose
        <input
          type="range"
          min="0"
          max="1"
          step="0.05"
          aria-label="How tightly they are bundled"
          [ngModel]="ties.tightness"
          (change)="map.set('ties', { tightness: +$any($event.target).value })"
        />
        tight</label
      >
      <p class="how">
        Ties between two groups are drawn together along the line between their middles. Single ties can then no longer
        be followed by eye; click one to read it.
      </p>
    }
    <label
      >colour
      <select
        class="box"
        aria-label="Colour of the ties"
        [ngModel]="ties.colour"
        (ngModelChange)="map.set('ties', { colour: $event })"
      >
        <option value="by community">of their source</option>
        <option value="by target">of their target</option>
        <option value="mixed">of both ends, mixed</option>
        <option value="neutral">neutral</option>
      </select></label
    >
    <label
      >width
      <select
        class="box"
        aria-label="Width of the ties"
        [ngModel]="ties.width"
        (ngModelChange)="map.set('ties', { width: $event })"
      >
        <option value="by weight">by weight: 1, 2, 4, 10 and more</option>
        <option value="even">the same for all</option>
      </select></label
    >
    <label
      >pale
      <input
        type="range"
        min="-1"
        max="1"
        step="0.1"
        aria-label="How strongly they are drawn"
        [ngModel]="logOf(ties.strength)"
        (change)="map.set('ties', { strength: powerOf(+$any($event.target).value) })"
      />
      strong</label
    >
    <label
      ><input type="checkbox" [ngModel]="ties.arrows" (ngModelChange)="map.set('ties', { arrows: $event })" />
      arrowheads, where they can be seen</label
    >
  `,
})
export class TieSettings {
  protected readonly map = describing();
  protected readonly forms = TieForm.options;

  /** The middle of the slider is what is usual; its ends are a quarter and four times that. */
  protected logOf(strength: number): number {
    return Math.log(strength) / Math.log(4);
  }

  protected powerOf(place: number): number {
    return Math.min(4, Math.max(0.1, Number((4 ** place).toFixed(2))));
  }
}
