import { ChangeDetectionStrategy, Component, computed } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { TieForm } from '@pebble/contract';
import { tieKinds } from '@pebble/core';
import { isByAddress, tieColumns } from '../session/tie-columns';
import { injectMapEditor } from '../session/inject-map-editor';

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
          <button class="btn" (click)="map.session.bundling.again()">Draw them together</button>
        </p>
      }
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
        @if (kinds(); as k) {
          <option value="by kind">of their kind ({{ k }})</option>
        }
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
      ><input
        type="checkbox"
        [ngModel]="ties.opacity === 'by weight'"
        (ngModelChange)="map.set('ties', { opacity: $event ? 'by weight' : 'even' })"
      />
      the weaker, the paler</label
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
    @if (ties.form === 'straight') {
      <label
        ><input type="checkbox" [ngModel]="ties.apart" (ngModelChange)="map.set('ties', { apart: $event })" />
        both directions of a pair beside each other</label
      >
    }
    <label
      ><input
        type="checkbox"
        [ngModel]="ties.shown === 'of selection'"
        (ngModelChange)="map.set('ties', { shown: $event ? 'of selection' : 'all' })"
      />
      only ties of what is selected</label
    >
    <label
      >written on them
      <select
        class="box"
        aria-label="Written on the ties"
        [ngModel]="ties.names.column ?? ''"
        (ngModelChange)="map.set('ties', { names: { column: $event || null, count: ties.names.count } })"
      >
        <option value="">nothing</option>
        @for (one of columns(); track one) {
          <option [value]="one">{{ one === 'kinds' ? 'messages by kind' : one }}</option>
        }
      </select></label
    >
    @if (ties.names.column !== null) {
      <label
        >of the strongest
        <input
          class="box"
          type="number"
          min="1"
          max="500"
          aria-label="Ties that are written on"
          [ngModel]="ties.names.count"
          (change)="setCount(+$any($event.target).value)"
      /></label>
    }
  `,
})
export class TieSettings {
  protected readonly map = injectMapEditor();
  protected readonly forms = TieForm.options;
  /** The kinds that ties have, in words; null where they have none. */
  protected readonly kinds = computed(() => {
    const data = this.map.session.data();
    const kinds = data && tieKinds(data.edges);
    if (!kinds) return null;
    return kinds.names.length > 3 ? `${kinds.names.slice(0, 3).join(', ')} …` : kinds.names.join(', ');
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
