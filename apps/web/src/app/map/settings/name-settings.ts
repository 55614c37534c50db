import { ChangeDetectionStrategy, Component } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { ConditionList } from './condition-list';
import { clamp, injectMapEditor } from '../session/inject-map-editor';

/** Which names stand on the map, and how they are written. */
@Component({
  selector: 'pt-name-settings',
  imports: [ConditionList, FormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrl: './settings.scss',
  template: `
    @let names = map.description().names;
    <h4>Names</h4>
    <label
      >how many
      <input
        class="box"
        type="number"
        min="0"
        max="2000"
        [ngModel]="names.count"
        (change)="map.set('names', { count: clamp(+$any($event.target).value, 0, 2000) })"
    /></label>
    <label
      >those with most
      <select class="box" [ngModel]="names.column" (ngModelChange)="map.set('names', { column: $event })">
        @for (c of map.numberColumns(); track c.name) {
          <option [value]="c.name">{{ c.title }}</option>
        }
      </select></label
    >
    <label
      ><input type="checkbox" [ngModel]="names.also" (ngModelChange)="map.set('names', { also: $event })" />
      the largest node of each group too</label
    >
    <label
      >letters
      <input
        class="box"
        type="number"
        min="6"
        max="48"
        [ngModel]="names.fontSize"
        (change)="map.set('names', { fontSize: clamp(+$any($event.target).value, 6, 48) })"
      />
      px
      <select class="box" aria-label="Typeface" [ngModel]="names.face" (ngModelChange)="map.set('names', { face: $event })">
        <option value="sans">sans serif</option>
        <option value="serif">serif</option>
      </select></label
    >
    <label
      >bold
      <select class="box" aria-label="Bold names" [ngModel]="names.bold" (ngModelChange)="map.set('names', { bold: $event })">
        <option value="first">the first five</option>
        <option value="all">all</option>
        <option value="none">none</option>
      </select></label
    >
    <label
      ><input type="checkbox" [ngModel]="names.grow" (ngModelChange)="map.set('names', { grow: $event })" />
      grow with the size of the node</label
    >
    <div class="seg" role="group" aria-label="Length">
      @for (one of lengths; track one) {
        <button
          [class.on]="names.length === one"
          [attr.aria-pressed]="names.length === one"
          (click)="map.set('names', { length: one })"
        >
          {{ one }}
        </button>
      }
    </div>
    <label
      >colour
      <select class="box" aria-label="Colour of names" [ngModel]="names.ink" (ngModelChange)="map.set('names', { ink: $event })">
        <option value="ink">ink</option>
        <option value="node">like the node, darker</option>
      </select></label
    >
    <label
      >behind them
      <select class="box" aria-label="Behind names" [ngModel]="names.behind" (ngModelChange)="map.set('names', { behind: $event })">
        <option value="halo">a soft edge</option>
        <option value="box">a box</option>
        <option value="nothing">nothing</option>
      </select></label
    >
    <pt-condition-list heading="Who is named" [filter]="names.where" (changed)="map.set('names', { where: $event })" />
    @if (names.placed.length > 0) {
      <p>
        {{ names.placed.length === 1 ? '1 name was' : names.placed.length + ' names were' }} moved by hand.
        <button class="btn plain" (click)="map.set('names', { placed: [] })">Place all anew</button>
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
