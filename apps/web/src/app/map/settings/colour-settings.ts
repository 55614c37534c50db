import { ChangeDetectionStrategy, Component, computed, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { MatButton } from '@angular/material/button';
import { MatCheckbox } from '@angular/material/checkbox';
import { MatFormField } from '@angular/material/form-field';
import { MatInput } from '@angular/material/input';
import { MatTooltip } from '@angular/material/tooltip';
import { Ramp } from '@pebble/contract';
import { alikeColours, formatValue, groupKey, groupTitle, type ColourGroup } from '@pebble/core';
import { injectMapEditor } from '../session/inject-map-editor';
import { OutlineSettings } from './outline-settings';
import { PictureSettings } from './picture-settings';
import { RimSettings } from './rim-settings';
import { CountPipe } from '../../shared/count-pipe';

/** What colour, shape and outlines say. */
@Component({
  selector: 'pt-colour-settings',
  imports: [
    CountPipe,
    MatTooltip,
    MatInput,
    MatFormField,
    MatCheckbox,
    MatButton,
    FormsModule,
    OutlineSettings,
    PictureSettings,
    RimSettings,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styleUrls: ['./settings.scss', './colour-settings.scss'],
  template: `
    @let d = map.description();
    <h4>Colour</h4>
    <label
      >by
      <mat-form-field><select matNativeControl
        aria-label="Colour by"
        [ngModel]="d.colour.column"
        (ngModelChange)="map.set('colour', { column: $event, chosen: {}, order: [] })"
      >
        @for (c of map.columns(); track c.name) {
          <option [value]="c.name">{{ c.title }}</option>
        }
      </select></mat-form-field></label
    >
    <p class="how">{{ map.how(d.colour.column) }}</p>
    @if (groups().length) {
      <div class="groups">
        @for (g of groups(); track g.value; let i = $index) {
          <div class="group">
          <label
            ><input
              type="color"
              [attr.aria-label]="'Colour of ' + titleOf(g)"
              [value]="g.colour.toLowerCase()"
              [disabled]="g.value === -1"
              (change)="choose(g, $any($event.target).value)"
            /><span>{{ titleOf(g) }}</span> <i>{{ g.nodes | count }}</i>
            @if (isChosen(g)) {
              <button matButton (click)="choose(g, null)">as before</button>
            }
          </label>
          @if (g.value !== -1) {
            <button matButton class="small step"
              [disabled]="i === 0"
              [attr.aria-label]="'Move ' + titleOf(g) + ' up'"
              matTooltip="Up in the legend"
              (click)="move(i, -1)"
            >↑</button>
            <button matButton class="small step"
              [disabled]="!groups()[i + 1] || groups()[i + 1].value === -1"
              [attr.aria-label]="'Move ' + titleOf(g) + ' down'"
              matTooltip="Down in the legend"
              (click)="move(i, 1)"
            >↓</button>
          }
          </div>
        }
      </div>
      <label
        >own colours for the largest
        <mat-form-field><input matInput
          type="number"
          min="1"
          max="16"
          aria-label="How many have a colour of their own"
          [ngModel]="d.colour.most"
          (change)="setMost(+$any($event.target).value)" /></mat-form-field></label>
      <label
        >in
        <mat-form-field><select matNativeControl
          aria-label="Colours or greys"
          [ngModel]="d.colour.palette"
          (ngModelChange)="map.set('colour', { palette: $event })"
        >
          <option value="colours">colours</option>
          <option value="greys">greys, for print without colour</option>
        </select></mat-form-field></label
      >
      @if (alike(); as pair) {
        <p class="how" role="status">{{ pair }}</p>
      }
      @if (sureColumns().length) {
        <label
          >unsure nodes
          <mat-form-field><select matNativeControl aria-label="Unsure nodes" [ngModel]="d.colour.unsure?.how ?? ''" (ngModelChange)="setUnsure($event)">
            <option value="">as the others</option>
            <option value="pale">pale</option>
            <option value="uncoloured">without colour</option>
          </select></mat-form-field></label
        >
        @if (d.colour.unsure; as unsure) {
          <label
            >below
            <mat-form-field><input matInput
              type="number"
              min="0"
              max="1"
              step="0.05"
              aria-label="How sure they must be"
              [ngModel]="unsure.below"
              (change)="setBelow(+$any($event.target).value)" /></mat-form-field>
            of
            <mat-form-field><select matNativeControl aria-label="Sure by" [ngModel]="unsure.column" (ngModelChange)="setSure($event)">
              @for (c of sureColumns(); track c.name) {
                <option [value]="c.name">{{ c.title }}</option>
              }
            </select></mat-form-field></label
          >
        }
      }
    } @else {
      <label
        >from little to much
        <mat-form-field><select matNativeControl aria-label="Ramp" [ngModel]="d.colour.ramp" (ngModelChange)="map.set('colour', { ramp: $event })">
          @for (ramp of ramps; track ramp) {
            <option [value]="ramp">{{ ramp }}</option>
          }
        </select></mat-form-field></label
      >
      @if (d.colour.ramp === 'two-sided') {
        <label
          >with the middle at
          <mat-form-field><input matInput
            type="number"
            aria-label="Middle"
            [ngModel]="d.colour.middle"
            (change)="map.set('colour', { middle: +$any($event.target).value || 0 })" /></mat-form-field></label>
      }
      <mat-checkbox
          [ngModel]="d.colour.reversed"
          (ngModelChange)="map.set('colour', { reversed: $event })">the other way round</mat-checkbox>
      <p class="how">Here {{ range() }}. Ramps have even steps of lightness; nodes without a value are grey.</p>
    }
    <h4>Shape</h4>
    <label
      >by
      <mat-form-field><select matNativeControl aria-label="Shape by" [ngModel]="d.shape.column" (ngModelChange)="map.set('shape', { column: $event })">
        <option [ngValue]="null">nothing: all circles</option>
        @for (c of map.groupColumns(); track c.name) {
          <option [ngValue]="c.name">{{ c.title }}</option>
        }
      </select></mat-form-field></label
    >
    @if (groups().length > 0) {
      <mat-checkbox
          [ngModel]="d.shape.pies"
          (ngModelChange)="map.set('shape', { pies: $event })">a pie inside of the groups that a node is tied to</mat-checkbox>
    }
    @if (!d.shape.pies) {
      <label
        >inside nodes
        <mat-form-field><select matNativeControl
          aria-label="Written inside of nodes"
          [ngModel]="d.shape.letters ?? ''"
          (ngModelChange)="map.set('shape', { letters: $event || null })"
        >
          <option value="">nothing</option>
          <option value="initials">initials</option>
          @for (c of textColumns(); track c.name) {
            <option [value]="c.name">{{ c.title }}</option>
          }
        </select></mat-form-field></label
      >
      <pt-picture-settings />
    }
    <pt-rim-settings />
    <pt-outline-settings (left)="left.emit()" />
  `,
})
export class ColourSettings {
  /** The reader goes on on the map. */
  readonly left = output();
  protected readonly map = injectMapEditor();
  protected readonly ramps = Ramp.options;
  protected readonly groups = computed(() => this.map.session.prepared()?.groups ?? []);
  protected readonly range = computed(() =>
    (this.map.session.prepared()?.colourRange ?? [0, 0]).map(formatValue).join(' … '),
  );
  protected readonly sureColumns = computed(() =>
    this.map.numberColumns().filter(({ name }) => name.endsWith(', sure')),
  );
  /** Two colours of groups that look alike to some people. */
  protected readonly alike = computed(() => {
    const groups = this.groups().filter(({ value }) => value !== -1);
    const pair = alikeColours(groups.map(({ colour }) => colour));
    if (!pair) return null;
    return `“${this.titleOf(groups[pair.a])}” and “${this.titleOf(groups[pair.b])}” look alike to people with ${pair.vision}. Give one of them another colour, or use shapes.`;
  });
  /** Text columns, whose first signs can stand inside of nodes. */
  protected readonly textColumns = computed(() => {
    const nodes = this.map.session.data()?.nodes ?? {};
    return (this.map.session.network()?.columns ?? []).filter(({ name }) => Array.isArray(nodes[name]));
  });

  /** Moves a group in the legend by one place. */
  protected move(place: number, by: 1 | -1): void {
    const order = this.groups()
      .filter(({ value }) => value !== -1)
      .map(groupKey);
    [order[place], order[place + by]] = [order[place + by], order[place]];
    this.map.set('colour', { order });
  }

  protected titleOf(group: ColourGroup): string {
    if (group.value === -1) return 'all others';
    return groupTitle(this.map.session.titles(), this.map.description().colour.column, group);
  }

  protected isChosen(group: ColourGroup): boolean {
    return groupKey(group) in this.map.description().colour.chosen;
  }

  /** @param colour null for the one it had before */
  protected choose(group: ColourGroup, colour: string | null): void {
    const { [groupKey(group)]: _before, ...others } = this.map.description().colour.chosen;
    const chosen = colour === null ? others : { ...others, [groupKey(group)]: colour.toUpperCase() };
    this.map.set('colour', { chosen });
  }

  protected setMost(most: number): void {
    if (most >= 1 && most <= 16) this.map.set('colour', { most: Math.round(most) });
  }

  protected setUnsure(how: '' | 'pale' | 'uncoloured'): void {
    const before = this.map.description().colour.unsure;
    const column = before?.column ?? this.sureFor() ?? '';
    this.map.set('colour', { unsure: how === '' ? null : { column, below: before?.below ?? 0.6, how } });
  }

  protected setBelow(below: number): void {
    const { unsure } = this.map.description().colour;
    if (unsure && below >= 0 && below <= 1) this.map.set('colour', { unsure: { ...unsure, below } });
  }

  protected setSure(column: string): void {
    const { unsure } = this.map.description().colour;
    if (unsure) this.map.set('colour', { unsure: { ...unsure, column } });
  }

  /** The column that says how sure the groups of the colour are, where there is one. */
  private sureFor(): string | undefined {
    const own = `${this.map.description().colour.column}, sure`;
    return (this.sureColumns().find(({ name }) => name === own) ?? this.sureColumns().at(0))?.name;
  }
}
