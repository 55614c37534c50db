import { ChangeDetectionStrategy, Component, computed, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { LegendCorner, type LegendPart } from '@pebble/contract';
import { groupTitle, legendSections } from '@pebble/core';
import { withGroupName, withHeading } from '../session/legend-words';
import { injectMapEditor } from '../session/inject-map-editor';
import { WordsField } from '../settings/words-field';

const PARTS: readonly (readonly [LegendPart, words: string])[] = [
  ['colour', 'colours'],
  ['shape', 'shapes'],
  ['rim', 'rims'],
  ['size', 'sizes'],
  ['ties', 'colours of ties'],
  ['width', 'widths of ties'],
  ['outlines', 'outlines'],
];

/** Where the legend stands, what of it, and in which words. */
@Component({
  selector: 'pt-legend-panel',
  imports: [MatInput, MatFormField, MatCheckbox, MatButton, FormsModule, WordsField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrls: ['./corner-panel.scss', '../settings/settings.scss', '../settings/colour-settings.scss'],
  template: `
    @let legend = map.description().legend;
    <h3>Legend <button matButton (click)="closed.emit()">Close</button></h3>
    <label
      >stands
      <mat-form-field><select matNativeControl
        aria-label="Corner of the legend"
        [ngModel]="legend.corner"
        (ngModelChange)="map.set('legend', { corner: $event })"
      >
        @for (corner of corners; track corner) {
          <option [value]="corner">{{ corner }}</option>
        }
      </select></mat-form-field></label
    >
    <h4>What it explains</h4>
    @for (part of parts; track part[0]) {
      <mat-checkbox [ngModel]="!legend.without.includes(part[0])" (ngModelChange)="show(part[0], $event)">{{ part[1] }}</mat-checkbox>
      @if (headings().get(part[0]); as usual) {
        <pt-words-field
          [label]="'Heading of ' + part[1]"
          [usual]="usual"
          [words]="legend.headings[part[0]] || ''"
          (written)="setHeading(part[0], $event)"
        />
      }
    }
    @if (groups().length > 0) {
      <h4>Names of groups</h4>
      <div class="groups">
        @for (one of groups(); track one.key) {
          <pt-words-field
            [label]="'Name of ' + one.usual"
            [usual]="one.usual"
            [words]="legend.names[one.key] || ''"
            (written)="setName(one.key, $event)"
            ><b [style.background]="one.colour"></b
          ></pt-words-field>
        }
      </div>
    }
    <p class="how">Parts that explain nothing are left out by themselves. The figure has the same legend.</p>
  `,
  styles: `
    :host {
      width: 320px;
    }
    b {
      width: 12px;
      height: 12px;
      border-radius: 50%;
      flex: none;
    }
  `,
})
export class LegendPanel {
  readonly closed = output();
  protected readonly map = injectMapEditor();
  protected readonly corners = LegendCorner.options;
  protected readonly parts = PARTS;
  /** The usual headings of the parts that the legend has now. */
  protected readonly headings = computed(() => {
    const map = this.map.session.prepared();
    if (!map) return new Map<LegendPart, string>();
    const legend = { ...map.description.legend, headings: {} };
    const sections = legendSections({ ...map, description: { ...map.description, legend } });
    return new Map(sections.map(({ part, heading }) => [part, heading]));
  });
  protected readonly groups = computed(() =>
    (this.map.session.prepared()?.groups ?? [])
      .filter(({ value }) => value !== -1)
      .map(({ value, name, leader, colour }) => ({
        key: name ?? String(value),
        usual: groupTitle(this.map.session.titles(), this.map.description().colour.column, {
          name,
          value,
          leader,
        }),
        colour,
      })),
  );

  protected show(part: LegendPart, on: boolean): void {
    const others = this.map.description().legend.without.filter((one) => one !== part);
    this.map.set('legend', { without: on ? others : [...others, part] });
  }

  protected setHeading(part: LegendPart, text: string): void {
    this.map.set('legend', withHeading(this.map.description().legend, part, text));
  }

  protected setName(key: string, text: string): void {
    this.map.set('legend', withGroupName(this.map.description().legend, key, text));
  }
}
