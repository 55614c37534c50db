import { ChangeDetectionStrategy, Component } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatButtonToggle } from '@angular/material/button-toggle';
import { MatButtonToggleGroup } from '@angular/material/button-toggle';
import { ConditionList } from './condition-list';
import { clamp, injectMapEditor } from '../session/inject-map-editor';

/** Which names stand on the map, and how they are written. */
@Component({
  selector: 'pt-name-settings',
  imports: [
    MatButtonToggleGroup,
    MatButtonToggle,
    MatInput,
    MatFormField,
    MatCheckbox,
    MatButton,
    ConditionList,
    FormsModule,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrl: './settings.scss',
  template: `
    @let names = map.description().names;
    <h4>Names</h4>
    <label
      >how many
      <mat-form-field><input matInput
        type="number"
        min="0"
        max="2000"
        [ngModel]="names.count"
        (change)="map.set('names', { count: clamp(+$any($event.target).value, 0, 2000) })" /></mat-form-field></label>
    <label
      >those with most
      <mat-form-field><select matNativeControl [ngModel]="names.column" (ngModelChange)="map.set('names', { column: $event })">
        @for (c of map.numberColumns(); track c.name) {
          <option [value]="c.name">{{ c.title }}</option>
        }
      </select></mat-form-field></label
    >
    <mat-checkbox [ngModel]="names.also" (ngModelChange)="map.set('names', { also: $event })">the two largest nodes of each group too</mat-checkbox>
    <label
      >letters
      <mat-form-field><input matInput
        type="number"
        min="6"
        max="48"
        [ngModel]="names.fontSize"
        (change)="map.set('names', { fontSize: clamp(+$any($event.target).value, 6, 48) })" /></mat-form-field>
      px
      <mat-form-field><select matNativeControl aria-label="Typeface" [ngModel]="names.face" (ngModelChange)="map.set('names', { face: $event })">
        <option value="sans">sans serif</option>
        <option value="serif">serif</option>
      </select></mat-form-field></label
    >
    <label
      >bold
      <mat-form-field><select matNativeControl aria-label="Bold names" [ngModel]="names.bold" (ngModelChange)="map.set('names', { bold: $event })">
        <option value="first">the first five</option>
        <option value="all">all</option>
        <option value="none">none</option>
      </select></mat-form-field></label
    >
    <mat-checkbox [ngModel]="names.grow" (ngModelChange)="map.set('names', { grow: $event })">grow with the size of the node</mat-checkbox>
    <mat-button-toggle-group hideSingleSelectionIndicator aria-label="Length">
      @for (one of lengths; track one) {
        <mat-button-toggle
          [checked]="names.length === one"
          (change)="map.set('names', { length: one })"
        >
          {{ one }}
        </mat-button-toggle>
      }
    </mat-button-toggle-group>
    <label
      >colour
      <mat-form-field><select matNativeControl aria-label="Colour of names" [ngModel]="names.ink" (ngModelChange)="map.set('names', { ink: $event })">
        <option value="ink">ink</option>
        <option value="node">like the node, darker</option>
      </select></mat-form-field></label
    >
    <label
      >behind them
      <mat-form-field><select matNativeControl aria-label="Behind names" [ngModel]="names.behind" (ngModelChange)="map.set('names', { behind: $event })">
        <option value="halo">a soft edge</option>
        <option value="box">a box</option>
        <option value="nothing">nothing</option>
      </select></mat-form-field></label
    >
    <pt-condition-list heading="Who is named" [filter]="names.where" (changed)="map.set('names', { where: $event })" />
    @if (names.placed.length > 0) {
      <p>
        {{ names.placed.length === 1 ? '1 name was' : names.placed.length + ' names were' }} moved by hand.
        <button matButton (click)="map.set('names', { placed: [] })">Place all anew</button>
      </p>
    }
    <p class="how">
      {{ map.how(names.column) }} Names never cover each other: one without a free place is left out. When you zoom in,
      they are those in view. Drag a name to put it elsewhere.
    </p>
  `,
})
export class NameSettings {
  protected readonly map = injectMapEditor();
  protected readonly clamp = clamp;
  protected readonly lengths = ['full', 'short', 'two lines'] as const;
}
