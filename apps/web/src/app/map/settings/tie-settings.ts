import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatButtonToggle } from '@angular/material/button-toggle';
import { MatButtonToggleGroup } from '@angular/material/button-toggle';
import { Ramp, TieForm } from '@pebble/contract';
import { tieKinds } from '@pebble/core';
import { isByAddress, tieColumns } from '../session/tie-columns';
import { injectMapEditor } from '../session/inject-map-editor';

/** How ties run, and what their colour and width say. */
@Component({
  selector: 'pt-tie-settings',
  imports: [
    MatButtonToggleGroup,
    MatButtonToggle,
    MatInput,
    MatFormField,
    MatCheckbox,
    MatButton,
    FormsModule,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrl: './settings.scss',
  template: `
    @let ties = map.description().ties;
    <h4>Ties</h4>
    <mat-button-toggle-group hideSingleSelectionIndicator aria-label="Form">
      @for (form of forms; track form) {
        <mat-button-toggle
          [checked]="ties.form === form"
          (change)="map.set('ties', { form })"
        >
          {{ form }}
        </mat-button-toggle>
      }
    </mat-button-toggle-group>
    @if (ties.form === 'bundled' || ties.form === 'bundled freely') {
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
        {{
          ties.form === 'bundled'
            ? 'Ties between two groups are drawn together along the line between their middles.'
            : 'Ties that run alike attract each other, whichever groups they join; worked out anew when nodes move.'
        }}
        Single ties can then no longer be followed by eye; click one to read it.
      </p>
      @if (ties.form === 'bundled freely' && map.session.bundling.state().what === 'stopped') {
        <p class="how">
          This was cancelled before it was done.
          <button matButton="outlined" (click)="map.session.bundling.again()">Draw them together</button>
        </p>
      }
    }
    <label
      >colour
      <mat-form-field><select matNativeControl
        aria-label="Colour of the ties"
        [ngModel]="ties.colour"
        (ngModelChange)="map.set('ties', { colour: $event })"
      >
        <option value="by community">of their source</option>
        <option value="by target">of their target</option>
        <option value="mixed">of both ends, mixed</option>
        @if (kinds(); as k) {
          <option value="by kind">of their kind ({{ k }})</option>
        }
        @if (numbers().length > 0) {
          <option value="by number">by a number</option>
        }
        <option value="neutral">neutral</option>
      </select></mat-form-field></label
    >
    @if (ties.colour === 'by number') {
      <label
        >number
        <mat-form-field><select matNativeControl
          aria-label="Number that colours the ties"
          [ngModel]="ties.number.column"
          (ngModelChange)="map.set('ties', { number: { column: $event, ramp: ties.number.ramp } })"
        >
          @for (one of numbers(); track one) {
            <option [value]="one">{{ one }}</option>
          }
        </select></mat-form-field></label
      >
      <label
        >ramp
        <mat-form-field><select matNativeControl
          aria-label="Ramp of the ties"
          [ngModel]="ties.number.ramp"
          (ngModelChange)="map.set('ties', { number: { column: ties.number.column, ramp: $event } })"
        >
          @for (one of ramps; track one) {
            <option [value]="one">{{ one }}</option>
          }
        </select></mat-form-field></label
      >
    }
    <label
      >width
      <mat-form-field><select matNativeControl
        aria-label="Width of the ties"
        [ngModel]="ties.width"
        (ngModelChange)="map.set('ties', { width: $event })"
      >
        <option value="by weight">by weight: 1, 2, 4, 10 and more</option>
        <option value="even">the same for all</option>
      </select></mat-form-field></label
    >
    <mat-checkbox
        [ngModel]="ties.opacity === 'by weight'"
        (ngModelChange)="map.set('ties', { opacity: $event ? 'by weight' : 'even' })">the weaker, the paler</mat-checkbox>
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
    <mat-checkbox [ngModel]="ties.arrows" (ngModelChange)="map.set('ties', { arrows: $event })">arrowheads, where they can be seen</mat-checkbox>
    @if (ties.form === 'straight') {
      <mat-checkbox [ngModel]="ties.apart" (ngModelChange)="map.set('ties', { apart: $event })">both directions of a pair beside each other</mat-checkbox>
    }
    <mat-checkbox
        [ngModel]="ties.shown === 'of selection'"
        (ngModelChange)="map.set('ties', { shown: $event ? 'of selection' : 'all' })">only ties of what is selected</mat-checkbox>
    <label
      >written on them
      <mat-form-field><select matNativeControl
        aria-label="Written on the ties"
        [ngModel]="ties.names.column ?? ''"
        (ngModelChange)="map.set('ties', { names: { column: $event || null, count: ties.names.count } })"
      >
        <option value="">nothing</option>
        @for (one of columns(); track one) {
          <option [value]="one">{{ one === 'kinds' ? 'messages by kind' : one }}</option>
        }
      </select></mat-form-field></label
    >
    @if (ties.names.column !== null) {
      <label
        >of the strongest
        <mat-form-field><input matInput
          type="number"
          min="1"
          max="500"
          aria-label="Ties that are written on"
          [ngModel]="ties.names.count"
          (change)="setCount(+$any($event.target).value)" /></mat-form-field></label>
    }
  `,
})
export class TieSettings {
  protected readonly map = injectMapEditor();
  protected readonly forms = TieForm.options;
  protected readonly ramps = Ramp.options;
  /** The kinds that ties have, in words; null where they have none. */
  protected readonly kinds = computed(() => {
    const data = this.map.session.data();
    const kinds = data && tieKinds(data.edges);
    if (!kinds) return null;
    return kinds.names.length > 3 ? `${kinds.names.slice(0, 3).join(', ')} …` : kinds.names.join(', ');
  });
  /** What ties can be coloured by. */
  protected readonly numbers = computed(() => {
    const data = this.map.session.data();
    return data ? ['weight', ...tieColumns(data).numbers] : [];
  });
  /** What can be written on ties. */
  protected readonly columns = computed(() => {
    const data = this.map.session.data();
    if (!data) return [];
    const { numbers, texts } = tieColumns(data);
    return ['weight', ...(isByAddress(data) ? ['kinds'] : []), ...texts, ...numbers];
  });

  protected setCount(count: number): void {
    const { names } = this.map.description().ties;
    this.map.set('ties', { names: { ...names, count: Math.max(1, Math.min(500, Math.round(count) || 1)) } });
  }

  /** The middle of the slider is what is usual; its ends are a quarter and four times that. */
  protected logOf(strength: number): number {
    return Math.log(strength) / Math.log(4);
  }

  protected powerOf(place: number): number {
    return Math.min(4, Math.max(0.1, Number((4 ** place).toFixed(2))));
  }
}
